import type { LibraryHistory, LogPage, LogQuery } from "@/contracts/library";
import type { History, PresetRow, Walked } from "@/contracts/records";
import { standings, walkHistory, wordsOfHistory } from "@/core/documents/history";
import { areBegun, wordsOf } from "@/core/names/words";
import { type LibraryStep, invertLibrarySteps, subjectsOf } from "@/core/library/step";
import type { Context } from "../../store/context";
import type { Executor } from "../../data/executor";
import { transact } from "../../store/transact";
import { type Outcome, RolledBack, refuse } from "../../failure";
import { rowsById } from "../../repositories/preset-lists";
import * as log from "../../repositories/library-log";
import { takingTurns } from "../../turns";
import { stepByStep } from "../../store/work";
import { askingWindow, wordsFrom } from "../../store/window";
import { aboutOf } from "./about";
import type { Filing } from "./entry";
import { applyStep } from "./steps";
import type { Taking } from "./taking";

/** What the next undo and redo concern, in words that say so where it was done in another window. */
const historyIn = async (db: Executor): Promise<History> => {
  const links = await log.listLinks(db);
  return wordsOfHistory(links.map((link) => ({ ...link, label: wordsFrom(link.window, link.label) })));
};

export const libraryHistory = ({ db }: Context): Promise<History> => historyIn(db);

/** Things that are told of one change. */
const MOST_TOLD = 3;

/** Changes that can still be asked to be taken back by their messages; older ones have none on screen any more. */
const STANDING = 30;

/** The newest changes that stand, newest first. */
export async function listStanding({ db }: Context): Promise<LibraryHistory["standing"]> {
  const links = await log.listLinks(db);
  const labels = new Map(links.map(({ n, label }) => [n, label]));
  const standing = walkHistory(links).undo.slice(-STANDING).toReversed();
  return standing.map((n) => ({ n, label: labels.get(n) ?? "" }));
}

/** Entries that are looked through at once for what is searched. */
const CHUNK = 500;

/** All words of a search stand, each as the beginning of one, in what is told of an entry. */
const isAbout = (entry: log.ToldEntry, words: readonly string[]): boolean =>
  words.length === 0 ||
  areBegun(words, wordsOf([entry.label, ...(entry.about?.some ?? []).map(({ name }) => name)].join(" ")));

/** Everything that was done to the library, the newest first, and how each change stands today. */
export async function listLog({ db }: Context, { q, before, limit = 60 }: LogQuery): Promise<LogPage> {
  const standing = standings(await log.listLinks(db));
  const words = wordsOf(q ?? "");
  const turn = takingTurns();
  const found: log.ToldEntry[] = [];
  let from = before ?? null;
  for (let isMore = true; isMore && found.length <= limit; ) {
    await turn();
    const entries = await log.listTold(db, from, CHUNK);
    found.push(...entries.filter((entry) => isAbout(entry, words)));
    from = entries.at(-1)?.n ?? null;
    isMore = entries.length === CHUNK;
  }
  const items = found.slice(0, limit).map(({ about, undoes, redoes, ...entry }) => ({
    ...entry,
    of: undoes ?? redoes,
    count: about?.count ?? 0,
    some: (about?.some ?? []).slice(0, MOST_TOLD),
    standing: undoes === null && redoes === null ? (standing.get(entry.n) ?? null) : null,
  }));
  return { items, more: found.length > limit };
}

/** Presets that are told as an undo has left them. */
const MOST_ROWS = 100;

/** Reasons that are told; more would not be read. */
const MOST_REASONS = 3;

interface Now extends Taking {
  /** Hears of each step; what it refuses is no reason to pass over one. */
  readonly onStep: () => void;
}

interface Tried {
  readonly done: readonly LibraryStep[];
  readonly passed: number;
  readonly reasons: readonly string[];
}

/** Takes what can be taken of some steps, in order: each is checked for itself. */
async function tryAll(tx: Executor, steps: readonly LibraryStep[], now: Now): Promise<Tried> {
  const done: LibraryStep[] = [];
  const reasons = new Set<string>();
  const turn = takingTurns();
  for (const step of steps) {
    await turn();
    now.onStep();
    try {
      await applyStep(tx, step, now);
      done.push(step);
    } catch (error) {
      if (!(error instanceof RolledBack)) throw error;
      const { code, message } = error.failure;
      if (reasons.size < MOST_REASONS)
        reasons.add(code === "notFound" ? "What it concerns is gone for good." : message);
    }
  }
  return { done, passed: steps.length - done.length, reasons: [...reasons] };
}

function wordsOfStanding(of: string, links: readonly { n: number; label: string }[], last: number | undefined): string {
  const since = links.find((l) => l.n === last)?.label ?? "";
  return of === since
    ? `“${of}” can no longer be taken back.`
    : `“${of}” cannot be taken back by itself: more was done since, “${since}” last. Undo that first.`;
}

interface Walk {
  readonly direction: "undo" | "redo";
  /** The change that is meant, by its number; without it the last. */
  readonly only?: number | undefined;
}

/** Takes a change of the library back, or does it again, within a transaction: what was done, and where it was done. */
export async function walkIn({ context, tx, note }: Filing, { direction, only }: Walk) {
  const links = await log.listLinks(tx);
  const pile = walkHistory(links)[direction];
  const n = only ?? pile.at(-1) ?? refuse("refused", `There is nothing to ${direction}.`);
  if (!pile.includes(n)) refuse("refused", "That has been taken back already.");
  const of = links.find((l) => l.n === n)?.label ?? "";
  const at = context.now().toISOString();
  // The inverse of what was done last with it, be that the change itself, its undo or its redo.
  const steps = invertLibrarySteps(await log.lastSteps(tx, n));
  const { done, passed, reasons } = await stepByStep(steps.length, (onStep) =>
    tryAll(tx, steps, { at, note, context, onStep }),
  );
  if (only !== undefined && passed > 0) refuse("refused", wordsOfStanding(of, links, pile.at(-1)));
  if (done.length === 0) {
    await log.closeEntry(tx, n);
    note({ kind: "folder", id: "" });
  } else {
    const words = direction === "undo" ? { label: `Undo: ${of}`, undoes: n } : { label: `Redo: ${of}`, redoes: n };
    const about = await aboutOf(tx, done);
    await log.appendLog(tx, { at, steps: done, ...words, window: askingWindow(), about });
  }
  const from = links.find((l) => l.n === n)?.window;
  const walked: Walked = { label: wordsFrom(from, of), done: done.length, passed, reasons: [...reasons] };
  return { done, walked };
}

/**
 * Takes back the last change that was not taken back yet, or does the last one that was again. What can no longer be is passed
 * over, and said: there is always a next one to go on to. What is told is the history right after it: of two that come close
 * together, each is told its own. A change that is asked for by its number is taken back whole, or not at all.
 */
export function walkLibrary(
  context: Context,
  direction: "undo" | "redo",
  only?: number,
): Promise<Outcome<{ history: History; walked: Walked; presets: readonly PresetRow[] }>> {
  return transact(context, async (tx, note) => {
    const { done, walked } = await walkIn({ context, tx, note }, { direction, only });
    const changed = subjectsOf(done).flatMap(({ kind, id }) => (kind === "preset" ? [id] : []));
    return { history: await historyIn(tx), walked, presets: await rowsById(tx, changed.slice(0, MOST_ROWS)) };
  });
}
