import type { LibraryStep } from "@/core/library/step";
import { verbFor } from "@/core/library/verbs";

export const count = (n: number, one: string): string => (n === 1 ? one : `${n} sounds`);

/** What the log calls a change of cards where nothing else was said. */
export function wordsFor(steps: readonly LibraryStep[], names: readonly string[]): string {
  const [first] = steps;
  const what = count(names.length, `“${names[0] ?? ""}”`);
  if (first?.kind === "bin") return first.to ? `Put ${what} into the bin` : `Restore ${what}`;
  return `${verbFor(steps.flatMap((s) => (s.kind === "card" ? Object.keys(s.to) : [])))} ${what}`;
}
