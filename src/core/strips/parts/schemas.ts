import { z } from "zod";
import { ChainSchema, KeySchema, NameSchema, ProcessorSchema, StripRefSchema } from "../../chains/schema";
import { MOST_SENDS } from "../../documents/limits";
import { FADER, INPUT_GAIN, PAN, WIDTH } from "../params";

/*
 * What documents may hold of each part. It stands apart from the records of the parts, which the interface carries: nothing
 * is parsed there.
 */

const ranged = ({ min, max }: { min: number; max: number }) => z.number().min(min).max(max);

export const LevelSchema = z.strictObject({ fader: ranged(FADER), mute: z.boolean() });

/** What is set on a send. */
export const SendSettingsSchema = z.strictObject({
  to: StripRefSchema,
  /** Before or behind the fader. */
  tap: z.enum(["pre", "post"]),
  level: ranged(FADER),
  pan: ranged(PAN),
  on: z.boolean(),
});
export const SendSchema = z.strictObject({ key: KeySchema, ...SendSettingsSchema.shape });
const SendsSchema = z.array(SendSchema).max(MOST_SENDS);

export const PanSchema = z.strictObject({ pan: ranged(PAN), width: ranged(WIDTH) });

export const LookSchema = z.strictObject({
  name: NameSchema,
  colour: z.string().max(40).optional(),
  icon: z.string().max(40).optional(),
  /** In which it stands, for the eye. */
  folder: StripRefSchema.optional(),
});

/** Where a strip's sound goes: a strip, a pair of sockets, or nowhere. */
export const OutputSchema = z.union([StripRefSchema, z.strictObject({ hardware: NameSchema }), z.null()]);
export const RoutingSchema = z.strictObject({ output: OutputSchema });

const ChannelsSchema = z.enum(["mono", "stereo"]);
const KeyRangeSchema = z.strictObject({ low: z.int().min(0).max(127), high: z.int().min(0).max(127) });

const LayerSchema = z.strictObject({
  key: KeySchema,
  name: NameSchema,
  instrument: ProcessorSchema,
  keys: KeyRangeSchema,
  velocities: KeyRangeSchema,
  effects: ChainSchema,
});

export const SourceSchema = z.discriminatedUnion("type", [
  z.strictObject({
    type: z.literal("input"),
    channels: ChannelsSchema,
    input: z.string().max(200),
    gain: ranged(INPUT_GAIN),
    inverted: z.boolean(),
  }),
  z.strictObject({ type: z.literal("bus"), channels: ChannelsSchema }),
  z.strictObject({ type: z.literal("layers"), channels: ChannelsSchema, layers: z.array(LayerSchema).max(32) }),
  z.strictObject({
    type: z.literal("output"),
    channels: ChannelsSchema,
    strip: StripRefSchema,
    output: z.int().min(1),
  }),
]);

/** A sound that lies on a strip; what it holds is kept beside the documents, by its SHA-256. */
const ClipSchema = z.strictObject({ name: NameSchema, hash: z.string().regex(/^[0-9a-f]{64}$/) });
export const MediaSchema = z.array(ClipSchema).max(1000);

export const PART_SCHEMAS = {
  source: SourceSchema,
  inserts: ChainSchema,
  sends: SendsSchema,
  level: LevelSchema,
  pan: PanSchema,
  routing: RoutingSchema,
  look: LookSchema,
  media: MediaSchema,
};
