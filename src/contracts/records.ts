import { z } from "zod";
import { CardSchema, ContentSchema } from "@/core/presets/schema";
import { StepSchema } from "@/core/recall/steps/step-schema";
import { StripSchema } from "@/core/strips/schema";

const PresetKindSchema = z.enum(["plugin", "chain", "strip", "set", "mix"]);
const Id = z.string().min(1).max(80);

/** A row of the library: what a list needs, with the chain that is drawn. */
export const PresetRowSchema = z.strictObject({
  id: Id,
  kind: PresetKindSchema,
  card: CardSchema,
  cardRevision: z.int(),
  version: z.int(),
  content: ContentSchema,
  savedAt: z.iso.datetime(),
  usedAt: z.iso.datetime().nullable(),
  /** The pack that it belongs to and with which it is read only; null for one's own. */
  pack: z.string().nullable(),
  /** Tags found by measuring, without those that were taken off. */
  measured: z.array(z.string()),
  /** How loud it is, in LUFS; not there before it was measured, of silence, and of several strips. */
  loudness: z.number().optional(),
  /** Why its sound cannot be read; what stands in its place is empty. */
  unreadable: z.string().optional(),
});

/** A preset in the bin. */
export const BinnedRowSchema = z.strictObject({
  id: Id,
  kind: PresetKindSchema,
  name: z.string(),
  cardRevision: z.int(),
  binnedAt: z.iso.datetime(),
  /** Strips of projects that came from it. */
  uses: z.int(),
});

/** A preset that was put into another. */
export const MergedRowSchema = z.strictObject({ id: Id, name: z.string(), version: z.int() });

export const VersionRowSchema = z.strictObject({
  version: z.int(),
  savedAt: z.iso.datetime(),
  fingerprint: z.string(),
  name: z.string().nullable(),
  /** The version that it was made of; null for the one before it. Where both of two machines went on, theirs stand beside each other. */
  basedOn: z.int().nullable(),
});

export const UseSchema = z.strictObject({
  project: z.string(),
  projectName: z.string(),
  strip: z.string(),
  stripName: z.string(),
  version: z.int(),
  /** Of a set or a mix: from which of its strips, by their keys there; empty for all else. */
  of: z.array(z.string()),
  /** How many values, switches and plugins are not as in that version. */
  differs: z.int(),
});

/** A strip of any project, with where it stands. */
export const StripRowSchema = z.strictObject({
  project: z.string(),
  projectName: z.string(),
  artist: z.string(),
  song: z.string(),
  tempo: z.number(),
  /** When its project was changed last. */
  changedAt: z.iso.datetime(),
  strip: StripSchema,
});

export const FolderSchema = z.strictObject({
  id: Id,
  name: z.string().min(1).max(120),
  parent: z.string().nullable(),
  /** Presets in it and below. */
  count: z.int(),
});

export const ProjectRowSchema = z.strictObject({
  id: Id,
  name: z.string(),
  artist: z.string(),
  client: z.string(),
  song: z.string(),
  tempo: z.number(),
  sampleRate: z.int(),
  /** One to begin others from. */
  starter: z.boolean(),
  strips: z.int(),
  revision: z.int(),
  changedAt: z.iso.datetime(),
  /** When it was put into the bin; null where it is not in it. */
  binnedAt: z.iso.datetime().nullable(),
});

/** A sound of the person's own, kept by the SHA-256 of its bytes. */
export const MediaRowSchema = z.strictObject({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  name: z.string().min(1).max(200),
  seconds: z.number(),
  addedAt: z.iso.datetime(),
});

/** A step back and a step forward, each with the words of the gesture that it concerns. */
export const HistorySchema = z.strictObject({ undo: z.string().nullable(), redo: z.string().nullable() });

/** What came of an undo or a redo: the change that it was for, how many of its steps, and why not the others. */
export const WalkedSchema = z.strictObject({
  label: z.string(),
  done: z.int(),
  passed: z.int(),
  reasons: z.array(z.string()),
});

export const RevisionRowSchema = z.strictObject({
  n: z.int(),
  at: z.iso.datetime(),
  label: z.string(),
  undoes: z.int().nullable(),
  redoes: z.int().nullable(),
  steps: z.array(StepSchema),
});

export type PresetRow = z.infer<typeof PresetRowSchema>;
export type MergedRow = z.infer<typeof MergedRowSchema>;
export type BinnedRow = z.infer<typeof BinnedRowSchema>;
export type VersionRow = z.infer<typeof VersionRowSchema>;
export type Use = z.infer<typeof UseSchema>;
export type StripRow = z.infer<typeof StripRowSchema>;
export type Folder = z.infer<typeof FolderSchema>;
export type ProjectRow = z.infer<typeof ProjectRowSchema>;
export type MediaRow = z.infer<typeof MediaRowSchema>;
export type History = z.infer<typeof HistorySchema>;
export type Walked = z.infer<typeof WalkedSchema>;
export type RevisionRow = z.infer<typeof RevisionRowSchema>;
