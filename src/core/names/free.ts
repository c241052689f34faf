import { cutText } from "./cut";
import { fold } from "./words";

/** As long as a name may be. */
export const LONGEST_NAME = 200;

/** What a number is put behind, where a name is taken: it leaves room for one. */
export const numberedStem = (name: string): string => cutText(name, LONGEST_NAME - 5);

/** The names with " 2", " 3" behind those that are taken, by others or by one before them in the list. */
export function withoutClashes(names: readonly string[], taken: readonly string[]): readonly string[] {
  const seen = new Set(taken.map(fold));
  // Where thousands are to have one name, none begins to count anew.
  const reached = new Map<string, number>();
  return names.map((name) => {
    const wished = fold(name);
    let free = name;
    let folded = wished;
    let n = reached.get(wished) ?? 2;
    for (; seen.has(folded); n++) {
      free = `${numberedStem(name)} ${n}`;
      folded = fold(free);
    }
    reached.set(wished, n);
    seen.add(folded);
    return free;
  });
}
