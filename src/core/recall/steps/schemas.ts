import { z } from "zod";
import {
  ChainSchema,
  PresetRefSchema,
  KeyInputSchema,
  KeySchema,
  LaneSettingsSchema,
  MacrosSchema,
  NameSchema,
  NodeSchema,
  ValueSchema,
} from "../../chains/schema";
import { PART_SCHEMAS, SendSchema, SendSettingsSchema } from "../../strips/parts/schemas";
import { DETAIL_SCHEMAS, MixSchema, ReliefSchema, ViewSchema } from "../../projects/schema";
import { StripSchema } from "../../strips/schema";

/* What a step may say, by its kind. It stands apart from what is known of the kinds, which the interface carries. */

/** The fields that every step has. */
const step = <K extends string, V extends z.ZodType>(kind: K, value: V) => ({
  id: KeySchema,
  kind: z.literal(kind),
  from: value,
  to: value,
});

const onStrip = { strip: KeySchema };
/** The inserts of a strip or, with a layer, the effects within that layer of its instrument. */
const onChain = { ...onStrip, layer: KeySchema.optional() };
const onNode = { node: KeySchema };

/** Behind a node, first where null; in the section or lane of that key, at the top where there is none. */
const place = { after: KeySchema.nullable(), within: KeySchema.optional() };
export const PlaceSchema = z.strictObject(place);

export const SetValueSchema = z.strictObject({
  ...step("setValue", ValueSchema),
  ...onChain,
  ...onNode,
  param: z.string().min(1),
});

export const SetKeyInputSchema = z.strictObject({
  ...step("setKeyInput", KeyInputSchema.nullable()),
  ...onChain,
  ...onNode,
});

export const SetEnabledSchema = z.strictObject({ ...step("setEnabled", z.boolean()), ...onChain, ...onNode });

export const SetLabelSchema = z.strictObject({ ...step("setLabel", NameSchema.nullable()), ...onChain, ...onNode });

const PlacedNodeSchema = z.strictObject({ node: NodeSchema, ...place });

export const PlaceNodeSchema = z.strictObject({
  ...step("placeNode", PlacedNodeSchema.nullable()),
  ...onChain,
  ...onNode,
});

export const MoveNodeSchema = z.strictObject({ ...step("moveNode", PlaceSchema), ...onChain, ...onNode });

export const SetNodeSchema = z.strictObject({ ...step("setNode", NodeSchema), ...onChain, ...onNode });

export const SetLaneSchema = z.strictObject({ ...step("setLane", LaneSettingsSchema), ...onChain, ...onNode });

export const SetMacrosSchema = z.strictObject({ ...step("setMacros", MacrosSchema), ...onChain });

export const SetFromSchema = z.strictObject({ ...step("setFrom", PresetRefSchema.nullable()), ...onChain });

export const SetChainSchema = z.strictObject({ ...step("setChain", ChainSchema), ...onChain });

const PlacedStripSchema = z.strictObject({ strip: StripSchema, after: KeySchema.nullable() });

export const PlaceStripSchema = z.strictObject({ ...step("placeStrip", PlacedStripSchema.nullable()), ...onStrip });

const PlacedSendSchema = z.strictObject({ send: SendSchema, after: KeySchema.nullable() });

export const PlaceSendSchema = z.strictObject({
  ...step("placeSend", PlacedSendSchema.nullable()),
  ...onStrip,
  send: KeySchema,
});

export const SetSendSchema = z.strictObject({ ...step("setSend", SendSettingsSchema), ...onStrip, send: KeySchema });

const [aDetail, ...otherDetails] = Object.entries(DETAIL_SCHEMAS).map(([detail, schema]) =>
  z.strictObject({ ...step("setDetail", schema as z.ZodType), detail: z.literal(detail) }),
);
const SetDetailSchema = z.discriminatedUnion("detail", [aDetail!, ...otherDetails]);

export const SetMixSchema = z.strictObject({ ...step("setMix", MixSchema.nullable()), mix: KeySchema });

export const SetReliefSchema = z.strictObject({
  ...step("setRelief", ReliefSchema.nullable()),
  relief: KeySchema,
});

export const SetViewSchema = z.strictObject({ ...step("setView", ViewSchema.nullable()), view: KeySchema });

/** Inserts are a chain, and sends a list: they change in finer steps. */
const { inserts: _, sends: __, ...WHOLE_PARTS } = PART_SCHEMAS;

const [first, ...others] = Object.entries(WHOLE_PARTS).map(([part, schema]) =>
  z.strictObject({ ...step("setPart", schema as z.ZodType), ...onStrip, part: z.literal(part) }),
);
const SetPartSchema = z.discriminatedUnion("part", [first!, ...others]);

export const AnyStepSchema = z.discriminatedUnion("kind", [
  SetValueSchema,
  SetEnabledSchema,
  SetLabelSchema,
  PlaceNodeSchema,
  MoveNodeSchema,
  SetNodeSchema,
  SetLaneSchema,
  SetKeyInputSchema,
  SetMacrosSchema,
  SetFromSchema,
  SetChainSchema,
  SetPartSchema,
  PlaceSendSchema,
  SetSendSchema,
  PlaceStripSchema,
  SetDetailSchema,
  SetMixSchema,
  SetReliefSchema,
  SetViewSchema,
]);
