import { z } from "zod";
import { MOST_NODES } from "../documents/limits";
import { STRIP_KINDS } from "../documents/strip-kinds";
import { isVisible } from "../names/cut";
import { FEELS, NOTES } from "../units/note-length";

export const KeySchema = z.string().min(1).max(80);
export const NameSchema = z.string().min(1).max(200).refine(isVisible, "A name can be seen.");

const NoteLengthSchema = z.strictObject({ note: z.enum(NOTES), feel: z.enum(FEELS) });
export const ValueSchema = z.union([z.number(), NoteLengthSchema]);

const reference = { preset: z.string().min(1), version: z.int().min(1), name: z.string() };

/**
 * Which preset a thing was loaded from; of a set or a mix, also which of its strips. What has an origin of its own within the set that it
 * came along in goes by that, and names the set beside it.
 */
export const PresetRefSchema = z.strictObject({
  ...reference,
  strip: KeySchema.optional(),
  along: z.strictObject({ ...reference, strip: KeySchema }).optional(),
});

/** A strip of the same document, or one outside of it by kind and name. */
export const StripRefSchema = z.union([
  z.strictObject({ strip: KeySchema }),
  z.strictObject({ external: z.literal(true), kind: z.enum(STRIP_KINDS), name: NameSchema }),
]);

/** What opens or turns down a processor in place of its own sound. */
export const KeyInputSchema = z.union([
  z.strictObject({ strip: StripRefSchema, tap: z.enum(["pre", "post"]) }),
  z.strictObject({ material: z.string().min(1).max(80) }),
]);

export const ProcessorSchema = z.strictObject({
  type: z.literal("processor"),
  key: KeySchema,
  model: z.string().min(1),
  label: NameSchema.optional(),
  enabled: z.boolean(),
  values: z.record(z.string(), ValueSchema),
  /** Opaque bytes of a foreign plugin, by their SHA-256. */
  state: z.strictObject({ hash: z.string().regex(/^[0-9a-f]{64}$/) }).optional(),
  keyInput: KeyInputSchema.optional(),
  from: PresetRefSchema.optional(),
});

const laneSettings = {
  name: NameSchema,
  enabled: z.boolean(),
  level: z.number().min(-90).max(12),
  pan: z.number().min(-100).max(100),
  /** A lane that does not say is balanced, as all were before there was a choice. */
  panLaw: z.literal("pan").optional(),
};
export const LaneSettingsSchema = z.strictObject(laneSettings);

const splitOf = <N extends z.ZodType>(node: N) =>
  z.strictObject({
    type: z.literal("split"),
    key: KeySchema,
    by: z.union([
      z.strictObject({ way: z.literal("copy") }),
      z.strictObject({ way: z.literal("bands"), crossovers: z.array(z.number().min(20).max(20_000)).min(1).max(5) }),
    ]),
    lanes: z
      .array(
        z.strictObject({
          key: KeySchema,
          ...laneSettings,
          nodes: z.array(node).max(MOST_NODES),
        }),
      )
      .min(1)
      .max(8),
  });

/** A split nests once. */
const SplitSchema = splitOf(z.discriminatedUnion("type", [ProcessorSchema, splitOf(ProcessorSchema)]));

const SectionSchema = z.strictObject({
  type: z.literal("section"),
  key: KeySchema,
  name: NameSchema,
  enabled: z.boolean(),
  from: PresetRefSchema.optional(),
  nodes: z.array(z.discriminatedUnion("type", [ProcessorSchema, SplitSchema])).max(MOST_NODES),
});

export const NodeSchema = z.discriminatedUnion("type", [ProcessorSchema, SectionSchema, SplitSchema]);

const MacroTargetSchema = z.strictObject({
  node: KeySchema,
  param: z.string().min(1),
  from: z.number(),
  to: z.number(),
  bend: z.number().min(-1).max(1),
});

const MacroSchema = z.strictObject({
  key: KeySchema,
  name: NameSchema,
  style: z.enum(["line", "switch", "pad"]),
  /** One list of targets for each axis: a pad has two. */
  axes: z.array(z.array(MacroTargetSchema).max(MOST_NODES)).min(1).max(2),
});

export const MacrosSchema = z.array(MacroSchema).max(64);

export const ChainSchema = z.strictObject({
  nodes: z.array(NodeSchema).max(MOST_NODES),
  macros: MacrosSchema,
  from: PresetRefSchema.optional(),
});
