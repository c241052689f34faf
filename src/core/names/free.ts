import { cutText } from "./cut";
import { fold } from "./words";

/** As long as a name may be. */
export const LONGEST_NAME = 200;

/** What a number is put behind, where a name is taken: it leaves room for one. */
export const numberedStem = (name: string): string => cutText(name, LONGEST_NAME - 5);

/** The names with " 2", " 3" behind those that are taken, by others or by one before them in the list. */
export function withoutClashes(names: readonly string[], taken: readonly string[]): readonly string[] {
  const seen = new Set(taken.map(fold));
  return names.map((name) => {
    let free = name;
    for (let n = 2; seen.has(fold(free)); n++) free = `${numberedStem(name)} ${n}`;
    seen.add(fold(free));
    return free;
  });
}
