import { z } from "zod";
import {
  ChainSchema,
  FromSchema,
  KeyInputSchema,
  KeySchema,
  LaneSettingsSchema,
  MacrosSchema,
  NameSchema,
  NodeSchema,
  ValueSchema,
} from "../chains/schema";
import { PART_SCHEMAS } from "../strips/parts";
import { StripSchema } from "../strips/schema";

const CellSchema = z.strictObject({
  /** null for the project itself. */
  strip: KeySchema.nullable(),
  part: z.enum(["source", "effects", "inserts", "level", "pan", "routing", "look", "strip", "project"]),
  /** With the part "effects": the layer of the instrument whose chain it is. */
  layer: KeySchema.optional(),
});

/** Behind a node, first where null; in the section or lane of that key, at the top where there is none. */
const place = { after: KeySchema.nullable(), within: KeySchema.optional() };
const PlacedNodeSchema = z.strictObject({ node: NodeSchema, ...place });
const PlacedStripSchema = z.strictObject({ strip: StripSchema, after: KeySchema.nullable() });
const PlaceSchema = z.strictObject(place);

const step = <K extends string, V extends z.ZodType>(kind: K, value: V) => ({
  id: KeySchema,
  cell: CellSchema,
  /** Steps without which this one makes no sense. */
  needs: z.array(KeySchema),
  kind: z.literal(kind),
  from: value,
  to: value,
});

const node = { node: KeySchema };

/** A change that carries both sides: what stands there, and what will. */
export const StepSchema = z.discriminatedUnion("kind", [
  z.strictObject({ ...step("setValue", ValueSchema), ...node, param: z.string().min(1) }),
  z.strictObject({ ...step("setEnabled", z.boolean()), ...node }),
  z.strictObject({ ...step("setLabel", NameSchema.nullable()), ...node }),
  z.strictObject({ ...step("placeNode", PlacedNodeSchema.nullable()), ...node }),
  z.strictObject({ ...step("moveNode", PlaceSchema), ...node }),
  z.strictObject({ ...step("setNode", NodeSchema), ...node }),
  z.strictObject({ ...step("setLane", LaneSettingsSchema), ...node }),
  z.strictObject({ ...step("setKeyInput", KeyInputSchema.nullable()), ...node }),
  z.strictObject(step("setMacros", MacrosSchema)),
  z.strictObject(step("setSource", PART_SCHEMAS.source)),
  z.strictObject(step("setFrom", FromSchema.nullable())),
  z.strictObject(step("setInserts", ChainSchema)),
  z.strictObject(step("setLevel", PART_SCHEMAS.level)),
  z.strictObject(step("setPan", PART_SCHEMAS.pan)),
  z.strictObject(step("setRouting", PART_SCHEMAS.routing)),
  z.strictObject(step("setLook", PART_SCHEMAS.look)),
  z.strictObject(step("placeStrip", PlacedStripSchema.nullable())),
  z.strictObject(step("setTempo", z.number().min(20).max(400))),
]);
