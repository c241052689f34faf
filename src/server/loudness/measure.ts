import { join } from "node:path";
import { setTimeout } from "node:timers/promises";
import Database from "better-sqlite3";
import { readWav } from "@/core/formats/wav/wav";
import { liftContent } from "@/core/presets/migrations";
import { messageOf } from "@/core/result";
import type { Sample } from "@/core/sound/instrument/voice";
import { loudnessOf } from "@/core/sound/preset-loudness";
import { DATABASE_FILE } from "../data/library-file";
import { setPragmas } from "../data/pragmas";
import type { DocumentTable, LoudnessTable, MediaTable, VersionTable } from "../data/tables";

export interface MeasuringJob {
  /** The data folder. */
  readonly folder: string;
  /** How long is rested after each, in shares of what it took: others have the machine, too. */
  readonly rest: number;
}

/** As many as are measured before they are written down. */
const AT_ONCE = 32;
/** What has come by then is written down, in ms. */
const LONGEST = 10_000;

const UNKNOWN = `
  SELECT DISTINCT v.fingerprint, d.body FROM presets p
  JOIN preset_versions v ON v.preset = p.id AND v.version = p.version
  JOIN documents d ON d.id = v.document
  LEFT JOIN loudness l ON l.fingerprint = v.fingerprint
  WHERE l.fingerprint IS NULL AND p.binned_at IS NULL AND p.kind NOT IN ('set', 'mix')
  ORDER BY p.touched_at DESC LIMIT ${AT_ONCE}`;

/**
 * Measures some of what is not measured yet, what was touched last first; none where all is. Read by a connection of its own: it runs in
 * another thread, and holds up whatever else does.
 */
export async function measureSome({ folder, rest }: MeasuringJob): Promise<readonly LoudnessTable[]> {
  const db = new Database(join(folder, DATABASE_FILE), { readonly: true, fileMustExist: true });
  try {
    setPragmas(db);
    const began = performance.now();
    const measured = new Map<string, LoudnessTable>();
    const unknown = db.prepare<[], Pick<VersionTable, "fingerprint"> & Pick<DocumentTable, "body">>(UNKNOWN).all();
    for (const { fingerprint, body } of unknown) {
      if (measured.has(fingerprint)) continue;
      const before = performance.now();
      measured.set(fingerprint, { fingerprint, lufs: await lufsOf(db, body) });
      if (performance.now() - began > LONGEST) break;
      await setTimeout(rest * (performance.now() - before));
    }
    return [...measured.values()];
  } finally {
    db.close();
  }
}

/** One that cannot be read or heard does not keep the others from being measured. */
async function lufsOf(db: Database.Database, body: string): Promise<number | null> {
  const media = db.prepare<[string], Pick<MediaTable, "bytes">>("SELECT bytes FROM media WHERE hash = ?");
  const sampleOf = (hash: string): Promise<Sample | null> => {
    const row = media.get(hash);
    const sound = row ? readWav(row.bytes) : null;
    return Promise.resolve(sound?.ok ? sound.value : null);
  };
  try {
    return await loudnessOf(liftContent(JSON.parse(body)), sampleOf);
  } catch (error) {
    console.error(`A sound cannot be measured: ${messageOf(error)}`);
    return null;
  }
}
