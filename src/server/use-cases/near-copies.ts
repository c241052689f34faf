import type { NearCopies as NearCopiesBody } from "@/contracts/library";
import type { NearCopies } from "@/core/library/near-copies";
import type { Context } from "../store/context";
import { rowsById } from "../repositories/preset-lists";
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

async function begin(context: Context, of: string, within: number): Promise<Search> {
  endNearCopies(context);
  const { apart } = (await readSettings(context.db)).settings;
  const search: Search = { of, abort: new AbortController(), progress: 0, found: null, failed: null, timer: undefined };
  const job = { folder: context.folder, within, apart };
  const running = context.runNearCopies(job, (share) => (search.progress = share), search.abort.signal);
  search.ended = running.then(
    (found) => (search.found = found),
    (error: unknown) => (search.failed = error),
  );
  SEARCHES.set(context.search, search);
  return search;
}

/** The last change of anything: what was found before it may be otherwise by now. */
async function lastChange({ db }: Context): Promise<number> {
  const row = await db("changes").max({ seq: "seq" }).first();
  return Number(row?.seq ?? 0);
}

/**
 * Presets that are set the same, or nearly, the largest groups first; or how far the search for them is, which goes on while
 * it is asked for. One search runs at a time.
 */
export async function listNearCopies(context: Context, within: number): Promise<NearCopiesBody> {
  const of = `${await lastChange(context)} ${within}`;
  const standing = SEARCHES.get(context.search);
  const search = standing?.of === of ? standing : await begin(context, of, within);
  clearTimeout(search.timer);
  search.timer = setTimeout(() => endNearCopies(context), FORGOTTEN).unref();
  await Promise.race([search.ended, new Promise((resolve) => setTimeout(resolve, WAIT).unref())]);
  // Something has changed meanwhile, and another search was begun: this one is asked for anew.
  if (search.abort.signal.aborted) return { progress: 0, total: 0, groups: null };
  if (search.failed) {
    SEARCHES.delete(context.search);
    throw search.failed instanceof Error ? search.failed : new Error("The search failed.");
  }
  if (!search.found) return { progress: search.progress, total: 0, groups: null };
  return { progress: 1, total: search.found.length, groups: await show(context, search.found) };
}

async function show({ db }: Context, found: readonly NearCopies[]): Promise<NonNullable<NearCopiesBody["groups"]>> {
  const groups: NonNullable<NearCopiesBody["groups"]> = [];
  let rows = 0;
  for (const { ids, distance } of found.slice(0, MOST_GROUPS)) {
    if (rows >= MOST_ROWS) break;
    const presets = [...(await rowsById(db, ids.slice(0, MOST_OF_GROUP)))];
    rows += presets.length;
    groups.push({ distance, count: ids.length, presets });
  }
  return groups;
}
