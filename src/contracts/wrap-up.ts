import { z } from "zod";
import { CardSchema } from "@/core/presets/schema";
import { LEVELS } from "@/core/wrap-up/finds";
import { FolderPath } from "./library";
import { PresetRowSchema } from "./records";

const Id = z.string().min(1).max(80);
const FingerprintSchema = z.string().min(1).max(80);
/** "plugin cello layer1 eq1": a level and three names at most. */
const FindKeySchema = z.string().min(1).max(400);

/** Things of a project that are looked at together. */
const MOST_FINDS = 20_000;

const sound = { preset: Id, name: z.string(), version: z.int().min(1) };

const FindStandingSchema = z.discriminatedUnion("is", [
  z.strictObject({ is: z.literal("kept"), ...sound }),
  z.strictObject({ is: z.literal("changed"), ...sound, newest: z.int().min(1) }),
  z.strictObject({ is: z.literal("near"), ...sound, distance: z.number() }),
  z.strictObject({ is: z.literal("new") }),
]);

const UndoSchema = z.strictObject({ log: z.int().min(1), revision: z.int().min(1).nullable() });

export const WrapUpSchema = z.strictObject({
  /** Of the project, for which all of it is true. */
  revision: z.int(),
  /** When it was wrapped up last. */
  last: z.iso.datetime().nullable(),
  /** How that is taken back; null where nothing was filed. */
  undo: UndoSchema.nullable(),
  finds: z.array(
    z.strictObject({
      key: FindKeySchema,
      level: z.enum(LEVELS),
      strip: Id,
      /** Of what sounds in it. */
      fingerprint: FingerprintSchema,
      standing: FindStandingSchema,
      /** The nearest that the library has, to be heard beside it. */
      nearest: z.strictObject({ ...sound, distance: z.number() }).nullable(),
      work: z.strictObject({ changes: z.int(), minutes: z.number(), turned: z.int(), apart: z.number() }),
      /** How much work is in it, 0 to 4. */
      weight: z.number(),
      isProposed: z.boolean(),
      /** It was passed over the last time, as it is. */
      wasLeft: z.boolean(),
    }),
  ),
  /** How the sounds of each strip would be filed, by the strip. */
  cards: z.record(Id, CardSchema.pick({ folder: true, purpose: true, tags: true, origin: true })),
});

export const WrapUpRequestSchema = z.strictObject({
  baseRevision: z.int().min(0),
  /** What is filed, of what was found at that revision. */
  file: z
    .array(
      z.strictObject({
        key: FindKeySchema,
        as: z.union([
          /** A preset of its own. */
          z.strictObject({ card: CardSchema }),
          /** The next version of another. */
          z.strictObject({ preset: Id, baseVersion: z.int().min(1) }),
        ]),
      }),
    )
    .max(1000),
  /** All that are filed as presets of their own go into the folder at this path; what is missing of it is made. */
  newFolder: FolderPath.optional(),
  newFolderIn: Id.nullable().optional(),
  /** What was passed over, by its fingerprint: the next time it is not shown again. */
  left: z.array(FingerprintSchema).max(MOST_FINDS),
});

export const WrappedUpSchema = z.strictObject({
  presets: z.array(PresetRowSchema),
  /** Of the project, whose strips go by the new names from then on. */
  revision: z.int(),
  /** How it is taken back; null where nothing was filed. */
  undo: UndoSchema.nullable(),
});

export const WrapUpUndoSchema = UndoSchema;

export type WrapUp = z.infer<typeof WrapUpSchema>;
export type WrapUpRequest = z.infer<typeof WrapUpRequestSchema>;
export type WrappedUp = z.infer<typeof WrappedUpSchema>;
export type WrapUpUndo = z.infer<typeof WrapUpUndoSchema>;
