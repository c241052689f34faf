import { type Nearness, nearnessOf } from "@/core/library/near-copies";
import { NearestIndex } from "@/core/library/nearest-index";
import { liftContent } from "@/core/presets/migrations";
import type { ChangedRecord } from "../data/changes";
import type { DocumentTable, PresetTable, VersionTable } from "../data/tables";
import type { Executor } from "../data/executor";
import { takingTurns } from "../turns";

type Row = Pick<PresetTable, "row" | "id" | "binned_at"> &
  Pick<VersionTable, "fingerprint"> &
  Pick<DocumentTable, "body">;

const FROM = `SELECT p.row, p.id, p.binned_at, v.fingerprint, d.body FROM presets p
  JOIN preset_versions v ON v.preset = p.id AND v.version = p.version JOIN documents d ON d.id = v.document`;

/** Rows read in one go. */
const CHUNK = 500;

/** null for what has nothing to compare, lies in the bin, or cannot be read. */
function readNearness({ id, binned_at, fingerprint, body }: Row): Nearness | null {
  if (binned_at !== null) return null;
  try {
    return nearnessOf({ id, fingerprint, content: liftContent(JSON.parse(body)) });
  } catch {
    return null;
  }
}

/** What tells of every change of a library. */
interface Telling {
  on(event: "change", hear: (told: { readonly records: readonly ChangedRecord[] }) => void): unknown;
}

/**
 * Where the sounds of a library stand, to find the nearest of another. It is built when it is first asked for, in turns with others, and
 * hears of every change from then on.
 */
class NearestSearch {
  private readonly index = new NearestIndex();
  private readonly changed = new Set<string>();
  private ready: Promise<void> | null = null;

  constructor(events: Telling) {
    events.on("change", ({ records }) => {
      for (const { kind, id } of records) if (kind === "preset") this.changed.add(id);
    });
  }

  /** The index as the library stands now. */
  async now(db: Executor): Promise<NearestIndex> {
    const before = this.ready ?? Promise.resolve(this.build(db));
    this.ready = before.then(() => this.catchUp(db));
    // One that fails is not what the next one waits for.
    this.ready.catch(() => (this.ready = null));
    await this.ready;
    return this.index;
  }

  private put(row: Row): void {
    const nearness = readNearness(row);
    if (nearness) this.index.put(nearness);
    else this.index.remove(row.id);
  }

  private async build(db: Executor): Promise<void> {
    const turn = takingTurns();
    for (let after = 0, isMore = true; isMore; ) {
      const rows = await db.raw<Row[]>(`${FROM} WHERE p.row > ? AND p.binned_at IS NULL ORDER BY p.row LIMIT ?`, [
        after,
        CHUNK,
      ]);
      for (const row of rows) {
        this.put(row);
        await turn();
      }
      after = rows.at(-1)?.row ?? after;
      isMore = rows.length === CHUNK;
    }
  }

  private async catchUp(db: Executor): Promise<void> {
    const ids = new Set(this.changed);
    this.changed.clear();
    if (ids.size === 0) return;
    const rows = await db.raw<Row[]>(`${FROM} WHERE p.id IN (SELECT value FROM json_each(?))`, [
      JSON.stringify([...ids]),
    ]);
    const turn = takingTurns();
    for (const row of rows) {
      ids.delete(row.id);
      this.put(row);
      await turn();
    }
    // What is nowhere any more is gone for good.
    for (const id of ids) this.index.remove(id);
  }
}

const SEARCHES = new WeakMap<Telling, NearestSearch>();

/** Where the sounds of the library stand now. */
export function nearestNow({ db, events }: { readonly db: Executor; readonly events: Telling }): Promise<NearestIndex> {
  const search = SEARCHES.get(events) ?? new NearestSearch(events);
  SEARCHES.set(events, search);
  return search.now(db);
}
