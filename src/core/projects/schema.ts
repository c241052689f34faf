import { z } from "zod";
import { KeySchema, MacrosSchema, NameSchema, NodeSchema } from "../chains/schema";
import { MOST_MIXES, MOST_NODES, MOST_NOTES, MOST_RELIEFS, MOST_RELIEVED, MOST_STRIPS } from "../documents/limits";
import { StripSchema } from "../strips/schema";

const Words = z.string().max(200);

export const PROJECT_SCHEMA = 1;

/** What is said of a project as a whole. */
export const DETAIL_SCHEMAS = {
  name: NameSchema,
  artist: Words,
  client: Words,
  song: Words,
  tempo: z.number().min(20).max(400),
  meter: z.strictObject({
    beats: z.int().min(1).max(32),
    unit: z.union([z.literal(2), z.literal(4), z.literal(8), z.literal(16)]),
  }),
  key: Words,
};

export const MixSchema = z.strictObject({
  id: KeySchema,
  name: NameSchema,
  /** Which take it is a mix of, as it is called: "3", "chorus of 2". */
  take: z.string().max(80),
  note: z.string().max(MOST_NOTES),
  /** When it was kept. */
  at: z.iso.datetime(),
  /** It is what the project was after this change. */
  n: z.int().min(0),
});

/** The inserts of a strip or, with a layer, the effects within that layer of its instrument. */
const inChain = { strip: KeySchema, layer: KeySchema.optional() };

export const ReliefSchema = z.strictObject({
  id: KeySchema,
  /** What was relieved: "Compressors", the name of a model. */
  title: NameSchema,
  how: z.enum(["off", "out"]),
  at: z.iso.datetime(),
  plugins: z
    .array(
      z.strictObject({
        ...inChain,
        stripName: NameSchema,
        key: KeySchema,
        name: NameSchema,
        /** Where it was taken out: what it was, in which section or lane, and what stood before it there, the nearest first. */
        out: z
          .strictObject({
            node: NodeSchema,
            within: KeySchema.optional(),
            before: z.array(KeySchema).max(MOST_NODES),
          })
          .optional(),
      }),
    )
    .min(1)
    .max(MOST_RELIEVED),
  /** Macros that lost what they aimed at, as they were and as they became. */
  macros: z.array(z.strictObject({ ...inChain, from: MacrosSchema, to: MacrosSchema })).max(MOST_RELIEVED),
});

export const ProjectSchema = z.strictObject({
  schema: z.literal(PROJECT_SCHEMA),
  id: KeySchema,
  ...DETAIL_SCHEMAS,
  /** One to begin others from. */
  starter: z.literal(true).optional(),
  sampleRate: z.int().min(44_100).max(192_000),
  strips: z.array(StripSchema).max(MOST_STRIPS),
  /** Moments of this project that are kept under a name; not there where none is. By their moments, the earliest first. */
  mixes: z.array(MixSchema).min(1).max(MOST_MIXES).optional(),
  /** What was relieved and can be put back; not there where nothing is. The earliest first. */
  reliefs: z.array(ReliefSchema).min(1).max(MOST_RELIEFS).optional(),
});
