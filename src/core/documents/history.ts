/** One entry of a log that only grows: what it did, or which entry it takes back or does again. */
export interface HistoryLink {
  readonly n: number;
  readonly label: string;
  readonly undoes: number | null;
  readonly redoes: number | null;
  /** True where it can never be taken back, nor done, again. */
  readonly closed?: boolean;
}

/** What the next undo and redo concern: numbers of entries, found by walking the log. */
export function walkHistory(links: readonly Omit<HistoryLink, "label">[]): {
  readonly undo: number[];
  readonly redo: number[];
} {
  const undo: number[] = [];
  const redo: number[] = [];
  const closed = new Set<number>();
  for (const link of links) {
    if (link.closed) closed.add(link.n);
    if (link.undoes !== null) move(link.undoes, undo, redo);
    else if (link.redoes !== null) move(link.redoes, redo, undo);
    else {
      undo.push(link.n);
      redo.length = 0;
    }
  }
  const isOpen = (n: number) => !closed.has(n);
  return { undo: undo.filter(isOpen), redo: redo.filter(isOpen) };
}

/** How an entry stands: taken back with a way forward again or without, or out of reach for good. */
export type Standing = "done" | "undone" | "undoneForGood" | "doneForGood";

/** How each change of the log stands today; of what only took back or did again, nothing. */
export function standings(links: readonly Omit<HistoryLink, "label">[]): ReadonlyMap<number, Standing> {
  const { undo, redo } = walkHistory(links);
  const isDone = new Map<number, boolean>();
  for (const { n, undoes, redoes } of links) isDone.set(undoes ?? redoes ?? n, undoes === null);
  const [done, undone] = [new Set(undo), new Set(redo)];
  return new Map(
    [...isDone].map(([n, is]) => [
      n,
      done.has(n) ? "done" : undone.has(n) ? "undone" : is ? "doneForGood" : "undoneForGood",
    ]),
  );
}

/** Takes a number from one pile to the other; mostly it lies on top. */
function move(n: number, from: number[], to: number[]): void {
  const at = from.lastIndexOf(n);
  if (at >= 0) from.splice(at, 1);
  to.push(n);
}

/** The words of the next undo and redo; null where there is none. */
export function wordsOfHistory(links: readonly HistoryLink[]): { undo: string | null; redo: string | null } {
  const { undo, redo } = walkHistory(links);
  const label = (n: number | undefined) => links.find((l) => l.n === n)?.label ?? null;
  return { undo: label(undo.at(-1)), redo: label(redo.at(-1)) };
}
