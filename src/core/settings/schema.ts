import { z } from "zod";
import { PRESET_KINDS } from "../presets/preset";
import { ValueSchema } from "../chains/schema";
import { STRIP_KINDS } from "../documents/strip-kinds";
import { PARTS } from "../strips/parts";

const Id = z.string().min(1).max(80);

/** A search that is kept: what stands in the field, and the filters beside it. */
export const SavedSearchSchema = z.strictObject({
  id: Id,
  name: z.string().trim().min(1).max(120),
  q: z.string().max(20_000),
  only: z.string().max(20_000),
  folder: Id.nullable(),
  /** In which order its list stands, and with which columns, as an address says them; as always without. */
  sort: z.string().max(20).optional(),
  columns: z.string().max(120).optional(),
});

/** What a key does: apply a preset, or add a plugin. */
export const ShortcutSchema = z.strictObject({
  /** As in "Ctrl+Alt+1", or two presses as in "Q V". */
  keys: z.string().trim().min(1).max(60),
  does: z.union([z.strictObject({ preset: Id }), z.strictObject({ model: Id })]),
});

/** What a plugin opens with, on strips of a kind or on all; or, without a model, what a new strip of the kind begins as. */
export const StartingPointSchema = z
  .strictObject({
    model: Id.nullable(),
    strip: z.enum(STRIP_KINDS).nullable(),
    /** null for a setting of one's own that was never saved, or, without values, as the maker set it. */
    preset: Id.nullable(),
    /** null for the newest. */
    version: z.int().min(1).nullable(),
    values: z.record(z.string(), ValueSchema).optional(),
  })
  .refine(({ model, strip }) => model !== null || strip !== null, "It is for a model, for a kind of strip, or both.")
  .refine(({ model, preset }) => model !== null || preset !== null, "A new strip begins as a preset.");

const ChoiceSchema = z.strictObject({
  name: z.string().trim().min(1).max(60),
  parts: z.array(z.enum(PARTS)).min(1).max(PARTS.length),
});

/** When backups are made, and how many of them stay. */
export const BackupPlanSchema = z.strictObject({
  every: z.enum(["never", "day", "week"]),
  /** Of so many days, weeks and months the last backup of each stays. */
  days: z.int().min(1).max(365),
  weeks: z.int().min(0).max(520),
  months: z.int().min(0).max(600),
});

/** What a person has set up for themselves, beside the library. */
export const SettingsSchema = z.strictObject({
  /** Patterns for names by kind of preset, the last used first. */
  patterns: z.partialRecord(z.enum(PRESET_KINDS), z.array(z.string().min(1).max(300)).max(20)),
  searches: z.array(SavedSearchSchema).max(500),
  shortcuts: z.array(ShortcutSchema).max(2000),
  startingPoints: z.array(StartingPointSchema).max(2000),
  /** Presets that are set alike and are to stay beside each other. */
  apart: z.array(z.array(Id).min(2).max(500)).max(2000),
  /** Parts of a strip that one applies together, by one's own name. */
  choices: z.array(ChoiceSchema).max(200).default([]),
  /** Parts that were applied last, by kind of what they were applied from; none for all. */
  lastParts: z.partialRecord(z.enum(PRESET_KINDS), z.array(z.enum(PARTS)).min(1)).default({}),
  /** Of this machine's own: it stays where another library comes in. */
  backups: BackupPlanSchema.default({ every: "day", days: 7, weeks: 4, months: 6 }),
});
