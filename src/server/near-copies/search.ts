import { join } from "node:path";
import Database from "better-sqlite3";
import { type NearCopies, type Nearness, findNearCopies, nearnessOf } from "@/core/library/near-copies";
import { liftContent } from "@/core/presets/migrations";
import { DATABASE_FILE } from "../data/library-file";
import type { DocumentTable, PresetTable, VersionTable } from "../data/tables";
import { setPragmas } from "../data/pragmas";

export interface NearCopiesJob {
  /** The data folder. */
  readonly folder: string;
  readonly within: number;
  readonly apart: readonly (readonly string[])[];
  /** The presets that are compared; null for all. */
  readonly among: readonly string[] | null;
}

type Compared = Pick<PresetTable, "id"> & Pick<VersionTable, "fingerprint"> & Pick<DocumentTable, "body">;

/** What was found, of how many that could be compared. */
export interface FoundCopies {
  readonly groups: readonly NearCopies[];
  readonly compared: number;
}

export type OnProgress = (share: number) => void;

/** How much of the whole is reading; the rest is comparing. */
const READING = 0.7;
/** Presets between one word of progress and the next. */
const OFTEN = 500;

/** null for what has nothing to compare, or cannot be read. */
function readNearness(id: string, fingerprint: string, body: string): Nearness | null {
  try {
    return nearnessOf({ id, fingerprint, content: liftContent(JSON.parse(body)) });
  } catch {
    return null;
  }
}

/**
 * Presets of one's own that are set the same, or nearly, read by a connection of its own: it may run in another thread. It
 * waits for nothing, and holds up whatever else runs in its thread.
 */
export function searchNearCopies({ folder, within, apart, among }: NearCopiesJob, onProgress: OnProgress): FoundCopies {
  const db = new Database(join(folder, DATABASE_FILE), { readonly: true, fileMustExist: true });
  try {
    setPragmas(db);
    const from = `FROM presets p
      JOIN preset_versions v ON v.preset = p.id AND v.version = p.version
      JOIN documents d ON d.id = v.document
      WHERE p.binned_at IS NULL AND p.pack IS NULL
      ${among ? "AND p.id IN (SELECT value FROM json_each(?))" : ""}`;
    const given = among ? [JSON.stringify(among)] : [];
    const n = db.prepare<string[], { n: number }>(`SELECT count(*) AS n ${from}`).get(...given)?.n ?? 0;
    const found: Nearness[] = [];
    let read = 0;
    const rows = db.prepare<string[], Compared>(`SELECT p.id, v.fingerprint, d.body ${from} ORDER BY p.row`);
    for (const { id, fingerprint, body } of rows.iterate(...given)) {
      const nearness = readNearness(id, fingerprint, body);
      if (nearness) found.push(nearness);
      if (++read % OFTEN === 0) onProgress((READING * read) / n);
    }
    const groups = findNearCopies(found, within, apart, (share) => onProgress(READING + (1 - READING) * share));
    return { groups, compared: found.length };
  } finally {
    db.close();
  }
}
