import type { NewSweep, Sweep, SweepFinds, SweepWrapUp, SweepWrappedUp } from "@/contracts/wrap-up";
import { ok } from "@/core/result";
import { stripName } from "@/core/strips/strip";
import { type Found, type FoundOnce, onceEach } from "@/core/wrap-up/once";
import { Unreadable, findStorageFault } from "../../data/faults";
import { type Outcome, failure } from "../../failure";
import * as projects from "../../repositories/projects";
import { soundsLike } from "../../repositories/known-sounds";
import type { Context } from "../../store/context";
import { type Share, fileTogether } from "./file";
import { lookAt } from "./look";

/*
 * The wrap-up of many projects: they are looked through one after the other, beside all else; it can be stopped, and goes on where it
 * stopped. What was found is kept until the next sweep begins. One is under way at a time.
 */

/** A project that was looked through: at which revision, and what of it is not in the library. */
interface Looked {
  readonly revision: number;
  readonly found: readonly Found[];
}

interface Sweeping {
  readonly id: string;
  readonly called: string;
  readonly looked: Map<string, Looked>;
  /** Those that are still to be looked through, the next first. */
  waiting: string[];
  failed: Sweep["failed"];
  /** Set until it is stopped, or nothing waits. */
  running: Promise<void> | null;
  isStopped: boolean;
  stamp: number;
  /** What is found, worked out once for each stamp. */
  once: { readonly stamp: number; readonly all: readonly FoundOnce[] } | null;
}

const SWEEPS = new WeakMap<Context["events"], Sweeping>();

const sweepOf = ({ events }: Context): Sweeping | null => SWEEPS.get(events) ?? null;

function told({ id, called, looked, waiting, failed, running, stamp }: Sweeping): Sweep {
  // What is to be looked through again stands among both.
  const again = waiting.filter((project) => looked.has(project)).length;
  const done = looked.size + failed.length - again;
  return { id, called, done, of: done + waiting.length, isRunning: running !== null, failed, stamp };
}

const isLoose = ({ standing }: Found): boolean => standing.is !== "kept";

/** Looks through one project. One that has gone meanwhile is left out; one that cannot be read is told with why. */
async function lookAtNext(context: Context, sweep: Sweeping, id: string): Promise<void> {
  try {
    const record = await projects.findProject(context.db, id);
    if (!record || record.draft || record.binnedAt !== null) {
      sweep.looked.delete(id);
      return;
    }
    // What is filed of it is of the time when it was worked on.
    const date = (await projects.changedAt(context.db, id)) ?? context.now().toISOString();
    const { found } = await lookAt(context, record, date.slice(0, 10));
    sweep.looked.set(id, { revision: record.revision, found: found.filter(isLoose) });
  } catch (error) {
    const isOfOne = error instanceof Unreadable;
    // What is wrong with the whole library would be wrong with the next, too.
    if (!isOfOne && findStorageFault(error)) throw error;
    if (!isOfOne) console.error(error);
    const name = (await projects.projectNames(context.db, [id])).get(id) ?? id;
    sweep.failed = [...sweep.failed, { id, name, why: isOfOne ? error.message : "Something went wrong inside." }];
  }
}

async function goThrough(context: Context, sweep: Sweeping): Promise<void> {
  for (;;) {
    const [next] = sweep.waiting;
    // Another that began meanwhile has taken its place.
    if (next === undefined || sweep.isStopped || sweepOf(context) !== sweep) return;
    await lookAtNext(context, sweep, next);
    sweep.waiting = sweep.waiting.filter((id) => id !== next);
    sweep.stamp += 1;
    // Others have their turn.
    await new Promise((resolve) => setImmediate(resolve));
  }
}

function goOn(context: Context, sweep: Sweeping): void {
  sweep.isStopped = false;
  if (sweep.running || sweep.waiting.length === 0) return;
  sweep.running = goThrough(context, sweep)
    // A fault of the storage holds it up; it can go on from there.
    .catch((error: unknown) => console.error(error))
    .finally(() => (sweep.running = null));
}

/** Begins to look through projects; what an earlier sweep has found is let go of. */
export function beginSweep(context: Context, { projects: ids, called }: NewSweep): { readonly sweep: Sweep } {
  const sweep: Sweeping = {
    id: context.mint(),
    called,
    looked: new Map(),
    waiting: [...new Set(ids)],
    failed: [],
    running: null,
    isStopped: false,
    stamp: 0,
    once: null,
  };
  SWEEPS.set(context.events, sweep);
  goOn(context, sweep);
  return { sweep: told(sweep) };
}

const NONE = failure("notFound", "That sweep is over. Begin another.");

function findSweep(context: Context, id: string): Outcome<Sweeping> {
  const sweep = sweepOf(context);
  return sweep?.id === id ? ok(sweep) : NONE;
}

/** Stops a sweep after the project that it is at, or has it go on with the next. */
export function changeSweep(context: Context, id: string, isRunning: boolean): Outcome<{ readonly sweep: Sweep }> {
  const found = findSweep(context, id);
  if (!found.ok) return found;
  if (isRunning) goOn(context, found.value);
  else found.value.isStopped = true;
  return ok({ sweep: told(found.value) });
}

/** Projects that were changed since they were looked through are to be looked through again. */
async function catchUp(context: Context, sweep: Sweeping): Promise<void> {
  if (sweep.running) return;
  const revisions = await projects.revisionsOf(context.db, [...sweep.looked.keys()]);
  const changed = [...sweep.looked].filter(([id, { revision }]) => revisions.get(id) !== revision).map(([id]) => id);
  if (changed.length === 0) return;
  sweep.waiting = [...sweep.waiting, ...changed.filter((id) => !sweep.waiting.includes(id))];
  if (!sweep.isStopped) goOn(context, sweep);
}

/** How far the last sweep is; null where none was begun. */
export async function tellSweep(context: Context): Promise<{ readonly sweep: Sweep | null }> {
  const sweep = sweepOf(context);
  if (!sweep) return { sweep: null };
  await catchUp(context, sweep);
  return { sweep: told(sweep) };
}

/** What was found so far, each sound once. */
function allOf(sweep: Sweeping): readonly FoundOnce[] {
  if (sweep.once?.stamp !== sweep.stamp)
    sweep.once = { stamp: sweep.stamp, all: onceEach([...sweep.looked.values()].flatMap(({ found }) => found)) };
  return sweep.once.all;
}

/** Other places that are told of one sound. */
const MOST_PLACES = 50;

function findTold({ find, places, ...once }: FoundOnce): SweepFinds["finds"][number] {
  const { key, level, place, name, content, from, strips } = find;
  const { id, strip, project, fingerprint, standing, nearest, work, weight, isAlone, isProposed, wasLeft, card } = once;
  const others = places.slice(1, 1 + MOST_PLACES).map((other) => ({
    project: other.project.name,
    strip: stripName(other.strip),
  }));
  return {
    ...{ id, key, level, place: { ...place }, name, content, from, strips: strips.length, strip, project },
    ...{ fingerprint, standing, nearest, work, weight, isAlone, isProposed, wasLeft },
    card: { ...card, tags: [...card.tags] },
    others,
  };
}

/** How many are told where nothing is said. */
const USUALLY = 200;

/** What was found so far and was not filed meanwhile, in this window or another. */
async function looseNow({ db }: Context, sweep: Sweeping): Promise<readonly FoundOnce[]> {
  const all = allOf(sweep);
  const filed = await soundsLike(
    db,
    all.map(({ fingerprint }) => fingerprint),
  );
  return all.filter(({ fingerprint }) => !filed.has(fingerprint));
}

/** What a sweep has found so far that is not in the library: each sound once, those first that are proposed and have the most work. */
export async function listFinds(context: Context, id: string, limit = USUALLY): Promise<Outcome<SweepFinds>> {
  const found = findSweep(context, id);
  if (!found.ok) return found;
  const all = await looseNow(context, found.value);
  return ok({ stamp: found.value.stamp, total: all.length, finds: all.slice(0, limit).map(findTold) });
}

/** What is done to one project of a sweep. */
interface Doing {
  readonly file: Share["file"][number][];
  readonly alike: { key: string; project: string; like: string }[];
  readonly left: string[];
}

const GONE = "Some of it was changed or filed meanwhile. What was found stands here anew: look at it, and file again.";

/** What is asked, by project: what is filed of it, what goes by that since it sounds the same, and what was passed over. */
function sharesOf(
  { looked }: Sweeping,
  byId: ReadonlyMap<string, FoundOnce>,
  { file, left }: SweepWrapUp,
): readonly Share[] | null {
  const doings = new Map<string, Doing>();
  const doingOf = (project: string): Doing => {
    const doing = doings.get(project) ?? { file: [], alike: [], left: [] };
    doings.set(project, doing);
    return doing;
  };
  for (const { id, as } of file) {
    const once = byId.get(id);
    if (!once) return null;
    const { project, find } = once;
    doingOf(project.id).file.push({ key: find.key, as });
    for (const other of once.places.slice(1))
      doingOf(other.project.id).alike.push({ key: other.find.key, project: project.id, like: find.key });
  }
  for (const id of left)
    for (const place of byId.get(id)?.places ?? []) doingOf(place.project.id).left.push(place.fingerprint);
  return [...doings].map(([project, { file: filed, alike, left: passed }]): Share => {
    const { revision, found } = looked.get(project)!;
    // What was passed over before stays so.
    const before = found.filter(({ wasLeft }) => wasLeft).map(({ fingerprint }) => fingerprint);
    return { project, baseRevision: revision, file: filed, alike, left: [...passed, ...before] };
  });
}

/** Files what a sweep has found, as one step of the library and one of each project that it is in, all or nothing. */
export async function wrapUpSweep(
  context: Context,
  id: string,
  request: SweepWrapUp,
): Promise<Outcome<SweepWrappedUp>> {
  const found = findSweep(context, id);
  if (!found.ok) return found;
  const sweep = found.value;
  const byId = new Map((await looseNow(context, sweep)).map((once) => [once.id, once]));
  const shares = sharesOf(sweep, byId, request);
  if (!shares) return failure("stale", GONE);
  const { newFolder, newFolderIn } = request;
  const filed = await fileTogether(context, shares, {
    label: `Wrap up ${sweep.called}`,
    into: { ...(newFolder === undefined ? {} : { newFolder }), ...(newFolderIn === undefined ? {} : { newFolderIn }) },
  });
  if (!filed.ok) {
    await catchUp(context, sweep);
    return filed.error.code === "stale" ? failure("stale", GONE) : filed;
  }
  const gone = new Set(request.file.flatMap(({ id: once }) => byId.get(once)?.places ?? []));
  for (const { project, left } of shares) {
    const looked = sweep.looked.get(project)!;
    const prints = new Set(left);
    sweep.looked.set(project, {
      ...looked,
      found: looked.found
        .filter((one) => !gone.has(one))
        .map((one) => (prints.has(one.fingerprint) ? { ...one, wasLeft: true, isProposed: false } : one)),
    });
  }
  sweep.stamp += 1;
  await catchUp(context, sweep);
  const { presets, undo } = filed.value;
  const [any] = shares;
  return ok({ presets, undo: undo && any ? { project: any.project, ...undo } : null });
}
