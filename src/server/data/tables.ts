import type { Knex } from "knex";
import type { ProjectRow } from "@/contracts/records";
import type { PresetKind } from "@/core/presets/preset";

/*
 * The tables as `migrations.ts` leaves them: what a query gives is typed by this and nothing else. Times are ISO 8601 in UTC.
 * `card`, `inside`, `body`, `steps` and `about` are JSON: `stored.ts` and `repositories/documents.ts` read them.
 */

export interface DocumentTable {
  readonly id: number;
  readonly body: string;
}

export interface FolderTable {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
  /** When it was named or moved last. */
  readonly changed_at: string;
}

export interface PresetTable {
  /** Its number in the indexes. */
  readonly row: number;
  readonly id: string;
  readonly kind: PresetKind;
  readonly folder: string | null;
  readonly sort_name: string;
  readonly card: string;
  readonly card_revision: number;
  readonly inside: string;
  readonly pack: string | null;
  /** Its card as the pack brought it; null of one's own. */
  readonly pack_card: string | null;
  readonly version: number;
  readonly saved_at: string;
  readonly used_at: string | null;
  readonly touched_at: string;
  readonly binned_at: string | null;
  /** The preset that it was put into. */
  readonly merged_into: string | null;
  /** When its card, its place or the name of a version was changed last. */
  readonly filed_at: string;
}

export interface VersionTable {
  readonly preset: string;
  readonly version: number;
  readonly document: number;
  readonly fingerprint: string;
  readonly saved_at: string;
  readonly name: string | null;
  /** The version that it was made of; null for the one before it. */
  readonly based_on: number | null;
}

/** Folders that refer to presets, beside the home of each; `preset` is a row. */
export interface ReferenceTable {
  readonly folder: string;
  readonly preset: number;
}

/** How loud sounds are, by their fingerprints, in LUFS; null for silence. What is not in it was not measured yet. */
export interface LoudnessTable {
  readonly fingerprint: string;
  readonly lufs: number | null;
}

/** Which presets one has inside: `held` is an id, `preset` a row. */
export interface HoldTable {
  readonly held: string;
  readonly preset: number;
}

export interface ProjectTable extends Omit<ProjectRow, "sampleRate" | "changedAt" | "binnedAt" | "starter"> {
  readonly starter: 0 | 1;
  readonly kind: "project" | "draft";
  readonly sample_rate: number;
  readonly changed_at: string;
  readonly draft_preset: string | null;
  readonly draft_version: number | null;
  readonly document: number;
  /** When it was put into the bin; null where it is not in it. */
  readonly binned_at: string | null;
  /** The size of the moment that was kept last, in bytes; 0 where none is. What was written since, in letters. */
  readonly kept_size: number;
  readonly unkept: number;
}

/** Moments of projects that are kept whole: as each was after its nth change. */
export interface MomentTable {
  readonly id: number;
  readonly project: string;
  readonly n: number;
  /** The project as JSON, in raw DEFLATE (RFC 1951). */
  readonly packed: Buffer;
}

/** The strips of a project or a draft; their order stands in its document. `face`: what each is found by. */
export interface StripTable {
  readonly row: number;
  readonly project: string;
  readonly strip: string;
  readonly body: string;
  readonly face: string;
}

export interface RevisionTable {
  readonly project: string;
  readonly n: number;
  readonly at: string;
  readonly label: string;
  readonly steps: string;
  readonly undoes: number | null;
  readonly redoes: number | null;
  /** In which window it was done; null where that was not said. */
  readonly window: string | null;
  /** What it concerned, JSON; null of what was done before that was kept. */
  readonly about: string | null;
}

export interface UseTable {
  readonly project: string;
  readonly strip: string;
  readonly preset: string;
  readonly version: number;
}

export interface LogTable {
  readonly n: number;
  readonly at: string;
  readonly label: string;
  readonly steps: string;
  readonly undoes: number | null;
  readonly redoes: number | null;
  /** 1 where it can never be taken back, nor done, again. */
  readonly closed: 0 | 1;
  /** In which window it was done; null where that was not said. */
  readonly window: string | null;
  /** What it concerned, JSON; null of what was done before that was kept. */
  readonly about: string | null;
}

export interface WrapUpTable {
  readonly id: number;
  readonly project: string;
  readonly at: string;
  /** Fingerprints, JSON. */
  readonly passed_over: string;
  /** What it is in the library's log, and in the project's; null where nothing was filed, or nothing goes by it. */
  readonly log: number | null;
  readonly revision: number | null;
}

export interface MediaTable {
  readonly hash: string;
  readonly name: string;
  readonly seconds: number;
  readonly added_at: string;
  readonly bytes: Buffer;
}

export interface ChangeTable {
  readonly seq: number;
  readonly at: string;
  readonly records: string;
}

export interface SettingsTable {
  readonly id: number;
  readonly revision: number;
  readonly body: string;
}

/** A table whose number SQLite counts up by itself, or which has defaults. */
type Counted<Table, Given extends keyof Table> = Knex.CompositeTableType<
  Table,
  Omit<Table, Given> & Partial<Pick<Table, Given>>
>;

declare module "knex/types/tables" {
  interface Tables {
    documents: Counted<DocumentTable, "id">;
    folders: Counted<FolderTable, "changed_at">;
    presets: Counted<PresetTable, "row" | "merged_into" | "binned_at" | "filed_at">;
    preset_versions: Counted<VersionTable, "name" | "based_on">;
    loudness: LoudnessTable;
    preset_holds: HoldTable;
    preset_references: ReferenceTable;
    projects: Counted<ProjectTable, "starter" | "binned_at" | "kept_size" | "unkept">;
    moments: Counted<MomentTable, "id">;
    project_strips: Counted<StripTable, "row">;
    revisions: RevisionTable;
    uses: UseTable;
    library_log: Counted<LogTable, "n" | "closed">;
    wrap_ups: Counted<WrapUpTable, "id">;
    media: MediaTable;
    changes: Counted<ChangeTable, "seq">;
    settings: SettingsTable;
    knex_migrations: { readonly name: string };
  }
}
