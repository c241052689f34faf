import { z } from "zod";
import { BackupPlanSchema } from "@/core/settings/schema";
import { PRESET_KINDS } from "@/core/presets/preset";
import { ApiErrorSchema } from "./errors";

const Id = z.string().min(1).max(80);
const FileName = z.string().regex(/^[\p{L}\p{N}_][\p{L}\p{N} ._-]{0,199}$/u);

/** What of the library is to be archived. */
export const WishSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("all") }),
  z.strictObject({ kind: z.literal("folder"), id: Id }),
  z.strictObject({ kind: z.literal("client"), name: z.string().min(1).max(200) }),
  z.strictObject({
    kind: z.literal("search"),
    q: z.string().max(20_000),
    only: z.string().max(20_000).optional(),
    folder: Id.optional(),
  }),
  z.strictObject({ kind: z.literal("preset"), id: Id }),
  z.strictObject({ kind: z.literal("project"), id: Id }),
]);
export const NewArchiveSchema = z.strictObject({ wish: WishSchema });

/** `archive`: made when somebody asked for it; `backup`: by the clock; `copy`: of the library's file, before it was brought up to a newer Diathesis. */
const ArchiveFileSchema = z.strictObject({
  name: FileName,
  kind: z.enum(["archive", "backup", "copy"]),
  bytes: z.int(),
  at: z.iso.datetime(),
});

const LastBackupSchema = z.strictObject({
  at: z.iso.datetime(),
  /** Why it failed; null where it came out whole. */
  failed: z.string().nullable(),
});
export const BackupsSchema = z.strictObject({ last: LastBackupSchema.nullable() });

export const ArchiveStateSchema = z.strictObject({
  /** The data folder, where backups and archives lie. */
  folder: z.string(),
  /** The newest first. */
  files: z.array(ArchiveFileSchema),
  backups: z.strictObject({
    plan: BackupPlanSchema,
    /** How the last one went; null where none was tried since this was started, and none is there. */
    last: LastBackupSchema.nullable(),
  }),
  /** How much room everything takes, in bytes. */
  room: z.strictObject({
    library: z.int(),
    media: z.int(),
    history: z.int(),
    files: z.int(),
    /** Versions before the newest that no project uses, and what they take. They stay. */
    unusedVersions: z.strictObject({ count: z.int(), bytes: z.int() }),
  }),
});

const ItemStandingSchema = z.enum(["new", "newer", "forked", "namesake", "same", "older", "unread"]);
const ChoiceSchema = z.enum(["take", "leave", "asVersion"]);

export const ComparedItemSchema = z.strictObject({
  key: z.string(),
  kind: z.enum(["preset", "project"]),
  holds: z.enum(PRESET_KINDS as [string, ...string[]]).nullable(),
  id: z.string(),
  name: z.string(),
  place: z.string(),
  standing: ItemStandingSchema,
  theirs: z.int(),
  own: z.int(),
  isCardAlone: z.boolean(),
  isBinnedHere: z.boolean(),
  at: z.string().nullable(),
  like: z.strictObject({ id: z.string(), name: z.string(), by: z.enum(["name", "sound"]) }).nullable(),
  problem: z.string().nullable(),
});

export const ComparisonHeadSchema = z.strictObject({
  /** What the archive says of itself; null for a document by itself. */
  archive: z.strictObject({ madeAt: z.iso.datetime(), madeBy: z.string(), words: z.string() }).nullable(),
  isRestore: z.boolean(),
  /** How many things stand how. */
  counts: z.partialRecord(ItemStandingSchema, z.int()),
  rest: z.strictObject({
    folders: z.strictObject({ isNew: z.int(), isChanged: z.int() }),
    settings: z.int(),
    media: z.int(),
  }),
});

export const BroughtSchema = z.strictObject({
  presets: z.int(),
  projects: z.int(),
  undo: z.int().nullable(),
  problems: z.array(z.string()),
});

export const FaultSchema = z.strictObject({
  of: z.enum(["database", "sound", "folder", "project", "media", "settings", "index"]),
  id: z.string(),
  name: z.string(),
  what: z.string(),
  mend: z.enum(["derive", "backup"]).nullable(),
  version: z.int().min(1).optional(),
});

export const CheckedSchema = z.strictObject({
  at: z.iso.datetime(),
  faults: z.array(FaultSchema),
  counts: z.strictObject({ sounds: z.int(), versions: z.int(), projects: z.int(), media: z.int() }),
});

const ResultSchema = z.discriminatedUnion("kind", [
  z.strictObject({ kind: z.literal("checked"), checked: CheckedSchema }),
  z.strictObject({ kind: z.literal("wrote"), file: FileName, bytes: z.int(), presets: z.int(), projects: z.int() }),
  z.strictObject({ kind: z.literal("compared") }),
  z.strictObject({ kind: z.literal("brought"), brought: BroughtSchema }),
]);

/** Long work that goes on by itself, in whichever window it was begun. */
export const JobSchema = z.strictObject({
  id: Id,
  title: z.string(),
  /** The file that it is for, as its address names it; empty for the library. */
  about: z.string(),
  /** How far it is; `of` is 0 where that is not known. */
  done: z.int(),
  of: z.int(),
  state: z.enum(["running", "done", "failed"]),
  error: ApiErrorSchema.optional(),
  result: ResultSchema.optional(),
});
export const JobBodySchema = z.strictObject({ job: JobSchema });
export const JobListSchema = z.strictObject({ jobs: z.array(JobSchema) });

/** What is to come in: a file that is sent in pieces, or one that lies with the archives here. */
export const NewIncomingSchema = z.union([
  z.strictObject({ name: z.string().min(1).max(300), bytes: z.int().min(0) }),
  z.strictObject({ file: FileName }),
]);

export const IncomingSchema = z.strictObject({
  id: Id,
  name: z.string(),
  bytes: z.int(),
  /** How much of it has come. */
  received: z.int(),
  /** How it stands to the library; null before it was compared. */
  head: ComparisonHeadSchema.nullable(),
});
export const IncomingBodySchema = z.strictObject({ incoming: IncomingSchema });
export const PieceQuerySchema = z.strictObject({ at: z.coerce.number().int().min(0) });

export const ItemsQuerySchema = z.strictObject({
  standing: ItemStandingSchema.optional(),
  q: z.string().max(200).optional(),
  offset: z.coerce.number().int().min(0).optional(),
  limit: z.coerce.number().int().min(1).max(500).optional(),
});
export const ItemPageSchema = z.strictObject({ items: z.array(ComparedItemSchema), total: z.int() });

export const BringSchema = z.strictObject({
  items: z.record(z.string().max(200), ChoiceSchema),
  groups: z.partialRecord(ItemStandingSchema, ChoiceSchema),
});
/** What is to be mended, as the check has told it. */
export const MendSchema = z.strictObject({ faults: z.array(FaultSchema).min(1).max(1000) });
/** How many of the faults were mended; the others, each with why not. */
export const MendedSchema = z.strictObject({ mended: z.int(), left: z.array(z.string()) });
const CatalogueChangeSchema = z.strictObject({
  id: z.string(),
  line: z.int(),
  /** What it is called now. */
  called: z.string(),
  fields: z.array(
    z.strictObject({
      name: z.enum(["name", "folder", "tags", "purpose", "rating", "notes"]),
      from: z.string(),
      to: z.string(),
    }),
  ),
});
export const CatalogueQuerySchema = z.strictObject({ preview: z.literal("true").optional() });
/** What a table changes of the cards, or has changed: `undo` is its number in the library's log. */
export const CataloguePreviewSchema = z.strictObject({
  /** The first of them. */
  changes: z.array(CatalogueChangeSchema),
  total: z.int(),
  lines: z.int(),
  /** Columns that say nothing that could be changed. */
  passedOver: z.array(z.string()),
  problems: z.array(z.string()),
  undo: z.int().nullable(),
});
export const LetGoSchema = z.strictObject({ gone: z.boolean() });

export type Backups = z.infer<typeof BackupsSchema>;
export type Fault = z.infer<typeof FaultSchema>;
export type CheckedLibrary = z.infer<typeof CheckedSchema>;
export type Mended = z.infer<typeof MendedSchema>;
export type CatalogueChange = z.infer<typeof CatalogueChangeSchema>;
export type CataloguePreview = z.infer<typeof CataloguePreviewSchema>;
export type Wish = z.infer<typeof WishSchema>;
export type ArchiveState = z.infer<typeof ArchiveStateSchema>;
export type ArchiveFile = z.infer<typeof ArchiveFileSchema>;
export type Job = z.infer<typeof JobSchema>;
export type JobResult = z.infer<typeof ResultSchema>;
export type IncomingRecord = z.infer<typeof IncomingSchema>;
export type NewIncoming = z.infer<typeof NewIncomingSchema>;
export type ItemsQuery = z.infer<typeof ItemsQuerySchema>;
export type ItemPage = z.infer<typeof ItemPageSchema>;
export type BringRequest = z.infer<typeof BringSchema>;
