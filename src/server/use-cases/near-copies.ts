import type { NearCopies as NearCopiesBody, NearCopiesRequest } from "@/contracts/library";
import { MOST_MERGED } from "@/core/documents/limits";
import type { NearCopies } from "@/core/library/near-copies";
import { lastChange } from "../data/changes";
import type { Context } from "../store/context";
import { idsBelow } from "../repositories/folders";
import { countUses, rowsById } from "../repositories/preset-lists";
import { readSettings } from "../repositories/settings";

/** Groups and presets of each that are shown; who merges these looks again. */
const MOST_GROUPS = 100;
const MOST_OF_GROUP = 20;
/** Presets that are shown in all. */
const MOST_ROWS = 400;

/** How long an answer waits for a search that is nearly through, in milliseconds. */
const WAIT = 200;
/** A search for which nobody asks any more is ended, in milliseconds. */
const FORGOTTEN = 5000;

/** A search that is under way or through: of one state of the library, as far as one distance. */
interface Search {
  readonly of: string;
  readonly abort: AbortController;
  compared: number;
  ended?: Promise<unknown>;
  progress: number;
  found: readonly NearCopies[] | null;
  failed: unknown;
  timer: NodeJS.Timeout | undefined;
}

const SEARCHES = new WeakMap<Context["search"], Search>();

/** Ends the search that is under way. */
export function endNearCopies({ search }: Context): void {
  const standing = SEARCHES.get(search);
  if (!standing) return;
  clearTimeout(standing.timer);
  standing.abort.abort();
  SEARCHES.delete(search);
}

async function begin(context: Context, of: string, { within = 0, folder, ids }: NearCopiesRequest): Promise<Search> {
  endNearCopies(context);
  const { apart } = (await readSettings(context.db)).settings;
  const search: Search = {
    of,
    abort: new AbortController(),
    compared: 0,
    progress: 0,
    found: null,
    failed: null,
    timer: undefined,
  };
  const among = ids ?? (folder === undefined ? null : await idsBelow(context.db, folder));
  const job = { folder: context.folder, within, apart, among };
  const running = context.runNearCopies(job, (share) => (search.progress = share), search.abort.signal);
  search.ended = running.then(
    ({ groups, compared }) => {
      search.found = groups;
      search.compared = compared;
    },
    (error: unknown) => (search.failed = error),
  );
  SEARCHES.set(context.search, search);
  return search;
}

/**
 * Presets that are set the same, or nearly, the largest groups first; or how far the search for them is, which goes on while
 * it is asked for. One search runs at a time.
 */
export async function listNearCopies(context: Context, wanted: NearCopiesRequest): Promise<NearCopiesBody> {
  const { within = 0, folder = "", ids = [], whole = null } = wanted;
  const of = [await lastChange(context.db), within, folder, ...ids].join(" ");
  const standing = SEARCHES.get(context.search);
  const search = standing?.of === of ? standing : await begin(context, of, wanted);
  clearTimeout(search.timer);
  search.timer = setTimeout(() => endNearCopies(context), FORGOTTEN).unref();
  await Promise.race([search.ended, new Promise((resolve) => setTimeout(resolve, WAIT).unref())]);
  // Something has changed meanwhile, and another search was begun: this one is asked for anew.
  if (search.abort.signal.aborted) return nothingYet(0);
  if (search.failed) {
    SEARCHES.delete(context.search);
    throw search.failed instanceof Error ? search.failed : new Error("The search failed.");
  }
  if (!search.found) return nothingYet(search.progress);
  const { found, compared } = search;
  return { progress: 1, total: found.length, compared, groups: await show(context, found, whole) };
}

const nothingYet = (progress: number): NearCopiesBody => ({ progress, total: 0, compared: 0, groups: null });

async function show({ db }: Context, found: readonly NearCopies[], whole: string | null) {
  const groups: NonNullable<NearCopiesBody["groups"]> = [];
  let rows = 0;
  for (const { ids, distance } of found.slice(0, MOST_GROUPS)) {
    if (rows >= MOST_ROWS) break;
    const most = whole !== null && ids.includes(whole) ? MOST_MERGED : MOST_OF_GROUP;
    const presets = await rowsById(db, ids.slice(0, most));
    const uses = await countUses(
      db,
      presets.map(({ id }) => id),
    );
    rows += Math.min(MOST_OF_GROUP, presets.length);
    const copies = presets.map((preset) => ({ preset, uses: uses.get(preset.id) ?? 0 }));
    groups.push({ distance, count: ids.length, copies });
  }
  return groups;
}
