import { z } from "zod";
import { MOST_NARROWING } from "@/core/documents/limits";
import { MixSchema } from "@/core/projects/schema";
import { PARTS } from "@/core/strips/parts";

/* The past of a project. */

const Id = z.string().min(1).max(80);

export const ProjectHistoryQuerySchema = z.strictObject({
  /** Words, also when: "level of Cello since yesterday". */
  q: z.string().max(MOST_NARROWING).optional(),
  /** Only what concerned this strip. */
  strip: Id.optional(),
  /** Changes older than this one. */
  before: z.coerce.number().int().min(1).optional(),
  limit: z.coerce.number().int().min(1).max(200).optional(),
});
export const ProjectHistoryPageSchema = z.strictObject({
  /** The newest first. */
  items: z.array(
    z.strictObject({
      n: z.int(),
      at: z.iso.datetime(),
      label: z.string(),
      window: z.string().nullable(),
      /** The change that it takes back or does again; null for one of its own. */
      of: z.int().nullable(),
      /** How many strips it concerned, and some of them as they were called then. */
      count: z.int(),
      strips: z.array(z.strictObject({ id: z.string(), name: z.string() })),
      parts: z.array(z.enum(PARTS)),
      /** Its first steps in sentences, and how many steps it has. */
      sentences: z.array(z.string()),
      steps: z.int(),
      /** How it stands today; null of what only takes back or does again. */
      standing: z.enum(["done", "undone", "doneForGood", "undoneForGood"]).nullable(),
    }),
  ),
  more: z.boolean(),
  /** Of the project as it is now. */
  revision: z.int(),
});
export const ReturnRequestSchema = z.strictObject({
  baseRevision: z.int().min(0),
  /** To how it was after this change; 0 is its beginning. */
  revision: z.int().min(0),
});

export const KeepMixRequestSchema = z.strictObject({
  baseRevision: z.int().min(0),
  /** The moment that is kept, by the change that it comes after; without it the project as it is. */
  revision: z.int().min(0).optional(),
  ...MixSchema.pick({ name: true, take: true, note: true }).shape,
});

/** Two moments, by the changes that they come after; the earlier is the one to begin from, whichever is asked for as that. */
export const NoteQuerySchema = z.strictObject({
  from: z.coerce.number().int().min(0),
  to: z.coerce.number().int().min(0),
});
export const NoteSchema = z.strictObject({ text: z.string() });

export type NoteQuery = z.infer<typeof NoteQuerySchema>;
export type Note = z.infer<typeof NoteSchema>;
export type ProjectHistoryQuery = z.infer<typeof ProjectHistoryQuerySchema>;
export type ProjectHistoryPage = z.infer<typeof ProjectHistoryPageSchema>;
export type ReturnRequest = z.infer<typeof ReturnRequestSchema>;
export type KeepMixRequest = z.infer<typeof KeepMixRequestSchema>;
