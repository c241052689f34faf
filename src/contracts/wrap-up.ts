import { z } from "zod";
import { MOST_STRIPS } from "@/core/documents/limits";
import { STRIP_KINDS } from "@/core/documents/strip-kinds";
import { PresetRefSchema } from "@/core/chains/schema";
import { CardSchema, ContentSchema } from "@/core/presets/schema";
import { LookSchema } from "@/core/strips/parts/schemas";
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

/** How something that was found stands to the library, and how much work is in it. */
const answer = {
  standing: FindStandingSchema,
  /** The nearest that the library has, to be heard beside it. */
  nearest: z.strictObject({ ...sound, distance: z.number() }).nullable(),
  work: z.strictObject({ changes: z.int(), minutes: z.number(), turned: z.int(), apart: z.number() }),
  /** How much work is in it, 0 to 4. */
  weight: z.number(),
  isProposed: z.boolean(),
  /** It was passed over the last time, as it is. */
  wasLeft: z.boolean(),
};

/** How a sound would be filed, without a name. */
const FiledCardSchema = CardSchema.pick({ folder: true, purpose: true, tags: true, origin: true });

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
      ...answer,
    }),
  ),
  /** How the sounds of each strip would be filed, by the strip. */
  cards: z.record(Id, FiledCardSchema),
});

const FiledAsSchema = z.union([
  /** A preset of its own. */
  z.strictObject({ card: CardSchema }),
  /** The next version of another. */
  z.strictObject({ preset: Id, baseVersion: z.int().min(1) }),
]);

export const WrapUpRequestSchema = z.strictObject({
  baseRevision: z.int().min(0),
  /** What is filed, of what was found at that revision. */
  file: z
    .array(
      z.strictObject({
        key: FindKeySchema,
        as: FiledAsSchema,
        /** Strips that are kept together with it, by their ids: it is a set then. */
        companions: z.array(Id).max(MOST_STRIPS).optional(),
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

/** Many projects that are looked through, one after the other. */
const SweepSchema = z.strictObject({
  id: Id,
  /** What they are together: "Copper Heron". */
  called: z.string(),
  /** Of how many projects so many were looked through. */
  done: z.int(),
  of: z.int(),
  /** False where it was stopped, or has come to its end. */
  isRunning: z.boolean(),
  /** Those that could not be looked through, each with why. */
  failed: z.array(z.strictObject({ id: Id, name: z.string(), why: z.string() })),
  /** Another number when something else is found. */
  stamp: z.int(),
});
export const SweepBodySchema = z.strictObject({ sweep: SweepSchema.nullable() });

export const NewSweepSchema = z.strictObject({
  projects: z.array(Id).min(1).max(10_000),
  called: z.string().min(1).max(200),
});
/** To stop it, or to go on where it stopped. */
export const SweepChangeSchema = z.strictObject({ isRunning: z.boolean() });

/** Things of many projects that are shown together. */
const MOST_SHOWN = 500;
export const SweepFindsQuerySchema = z.strictObject({
  limit: z.coerce.number().int().min(1).max(MOST_SHOWN).optional(),
});

const OnceIdSchema = z.string().min(1).max(120);

export const SweepFindsSchema = z.strictObject({
  stamp: z.int(),
  /** How many there are; of these the first are told. */
  total: z.int(),
  finds: z.array(
    z.strictObject({
      id: OnceIdSchema,
      key: FindKeySchema,
      level: z.enum(LEVELS),
      place: z.strictObject({ strip: Id, layer: Id.optional(), node: Id.optional() }),
      name: z.string(),
      content: ContentSchema,
      from: PresetRefSchema.nullable(),
      /** How many strips it holds. */
      strips: z.int(),
      strip: z.strictObject({ id: Id, kind: z.enum(STRIP_KINDS), look: LookSchema }),
      project: z.strictObject({ id: Id, name: z.string(), tempo: z.number() }),
      fingerprint: FingerprintSchema,
      ...answer,
      isAlone: z.boolean(),
      card: FiledCardSchema,
      /** Where else it was found: the project, and the strip. */
      others: z.array(z.strictObject({ project: z.string(), strip: z.string() })),
    }),
  ),
});

export const SweepWrapUpSchema = z.strictObject({
  file: z.array(z.strictObject({ id: OnceIdSchema, as: FiledAsSchema })).max(1000),
  newFolder: FolderPath.optional(),
  newFolderIn: Id.nullable().optional(),
  /** What was passed over, by its id: in all of its projects it is not shown again. */
  left: z.array(OnceIdSchema).max(MOST_FINDS),
});

export const SweepWrappedUpSchema = z.strictObject({
  presets: z.array(PresetRowSchema),
  /** How it is taken back, by way of one of its projects; null where nothing was filed. */
  undo: z.strictObject({ project: Id, ...UndoSchema.shape }).nullable(),
});

export type Sweep = z.infer<typeof SweepSchema>;
export type SweepBody = z.infer<typeof SweepBodySchema>;
export type NewSweep = z.infer<typeof NewSweepSchema>;
export type SweepFinds = z.infer<typeof SweepFindsSchema>;
export type SweepWrapUp = z.infer<typeof SweepWrapUpSchema>;
export type SweepWrappedUp = z.infer<typeof SweepWrappedUpSchema>;
export type WrapUp = z.infer<typeof WrapUpSchema>;
export type WrapUpRequest = z.infer<typeof WrapUpRequestSchema>;
export type WrappedUp = z.infer<typeof WrappedUpSchema>;
export type WrapUpUndo = z.infer<typeof WrapUpUndoSchema>;
