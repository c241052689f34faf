import { z } from "zod";
import { ChainSchema, KeySchema, NameSchema, PresetRefSchema, ProcessorSchema } from "../chains/schema";
import { isVisible } from "../names/cut";
import { LONGEST_SHORT } from "../names/short";
import { MOST_NOTES, MOST_REFERRING, MOST_STRIPS, MOST_TAGS } from "../documents/limits";
import { SavedStripSchema } from "../strips/schema";

import { CONTENT_SCHEMA } from "./version";
const schema = z.literal(CONTENT_SCHEMA);
/** A strip among others: it goes by its name where its look is not kept, too. */
const KeyedStripSchema = SavedStripSchema.extend({ id: KeySchema, name: NameSchema });

/** What a preset holds, by kind. */
export const ContentSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("plugin"), schema, processor: ProcessorSchema }),
  z.strictObject({ kind: z.literal("chain"), schema, chain: ChainSchema }),
  z.strictObject({ kind: z.literal("strip"), schema, strip: SavedStripSchema }),
  z.strictObject({ kind: z.literal("set"), schema, strips: z.array(KeyedStripSchema).min(1).max(MOST_STRIPS) }),
  z.strictObject({
    kind: z.literal("mix"),
    schema,
    tempo: z.number().min(20).max(400),
    strips: z.array(KeyedStripSchema).min(1).max(MOST_STRIPS),
  }),
]);

const Words = z.string().max(200);

export const OriginSchema = z.strictObject({
  artist: Words.optional(),
  client: Words.optional(),
  song: Words.optional(),
  project: Words.optional(),
  strip: Words.optional(),
  performer: Words.optional(),
  instrument: Words.optional(),
  microphone: Words.optional(),
  date: z.iso.date().optional(),
  take: Words.optional(),
  /** The preset that it was made from, where it is a variation, or was changed from one of a pack. */
  from: PresetRefSchema.optional(),
});

/** What no name may hold: controls, and the signs that turn the direction of what stands around them. */
const HIDDEN = /[\p{Cc}\u202a-\u202e\u2066-\u2069]/u;

/** A name that a person files something under: any script, accents and emoji, but nothing that hides. */
export const FiledNameSchema = (most: number) =>
  z
    .string()
    .trim()
    .max(most, `A name has ${most} letters at the most.`)
    .min(1, "Give it a name.")
    .refine(isVisible, "Give it a name that can be seen.")
    .refine((name) => !HIDDEN.test(name), "A name holds no line breaks or other hidden signs.");

export const CardSchema = z.strictObject({
  name: FiledNameSchema(200),
  /** A second name beside the first, for devices that show a few letters; empty for none. */
  short: z
    .string()
    .trim()
    .max(LONGEST_SHORT, `A short name has ${LONGEST_SHORT} letters at the most.`)
    .refine((name) => !HIDDEN.test(name), "A short name holds no line breaks or other hidden signs.")
    .optional(),
  /** Its home. */
  folder: z.string().nullable(),
  /** Other folders that refer to it; see library/filed-in.ts. */
  alsoIn: z.array(z.string().min(1)).max(MOST_REFERRING).optional(),
  tags: z.array(z.string().trim().min(1).max(60).refine(isVisible, "A tag can be seen.")).max(MOST_TAGS),
  purpose: Words,
  rating: z.int().min(0).max(5),
  notes: z.string().max(MOST_NOTES),
  colour: z.string().max(40).optional(),
  icon: z.string().max(40).optional(),
  origin: OriginSchema,
  /** Tags found by measuring that the person does not want on it. */
  dismissed: z.array(z.string().min(1).max(60)).max(60).optional(),
});
