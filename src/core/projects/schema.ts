import { z } from "zod";
import { KeySchema, MacrosSchema, NameSchema, NodeSchema } from "../chains/schema";
import {
  MOST_MIXES,
  MOST_NODES,
  MOST_NOTES,
  MOST_RELIEFS,
  MOST_RELIEVED,
  MOST_STRIPS,
  MOST_VIEWS,
} from "../documents/limits";
import { STRIP_KINDS } from "../documents/strip-kinds";
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

const Strips = z.array(KeySchema).max(MOST_STRIPS);

/** By what the strips of the ledger can stand. */
export const ROW_ORDERS = ["project", "name", "kind", "level"] as const;

export const ViewSchema = z.strictObject({
  id: KeySchema,
  name: NameSchema,
  /** The key by which it is taken; null where it has none. */
  digit: z.int().min(1).max(9).nullable(),
  /** These alone are shown, with what stands in them; null for all. */
  only: Strips.min(1).nullable(),
  /** Not shown, with what stands in them. */
  hidden: Strips,
  /** Shown, whatever hides them. */
  also: Strips,
  /** Not shown. */
  kinds: z.array(z.enum(STRIP_KINDS)).max(STRIP_KINDS.length),
  order: z.enum(ROW_ORDERS),
  /** The columns that are shown, in order; a width in pixels for those that were given one. */
  columns: z
    .array(z.strictObject({ id: z.string().min(1).max(40), width: z.int().min(20).max(2000).optional() }))
    .min(1)
    .max(40),
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
  /** What the ledger shows of it, by name; not there where none is kept. By their digits. */
  views: z.array(ViewSchema).min(1).max(MOST_VIEWS).optional(),
});
