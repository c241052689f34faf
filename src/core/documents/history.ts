/** One entry of a log that only grows: what it did, or which entry it takes back or does again. */
export interface HistoryLink {
  readonly n: number;
  readonly label: string;
  readonly undoes: number | null;
  readonly redoes: number | null;
}

/** What the next undo and redo concern: numbers of entries, found by walking the log. */
export function walkHistory(links: readonly Omit<HistoryLink, "label">[]): {
  readonly undo: number[];
  readonly redo: number[];
} {
  const undo: number[] = [];
  const redo: number[] = [];
  for (const { n, undoes, redoes } of links) {
    if (undoes !== null) redo.push(undo.pop() ?? undoes);
    else if (redoes !== null) undo.push(redo.pop() ?? redoes);
    else {
      undo.push(n);
      redo.length = 0;
    }
  }
  return { undo, redo };
}

/** The words of the next undo and redo; null where there is none. */
export function wordsOfHistory(links: readonly HistoryLink[]): { undo: string | null; redo: string | null } {
  const { undo, redo } = walkHistory(links);
  const label = (n: number | undefined) => links.find((l) => l.n === n)?.label ?? null;
  return { undo: label(undo.at(-1)), redo: label(redo.at(-1)) };
}
