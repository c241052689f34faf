import type { LibraryStep } from "@/core/library/step";

export const count = (n: number, one: string): string => (n === 1 ? one : `${n} sounds`);

/** What the log calls a change of cards where nothing else was said. */
export function wordsFor(steps: readonly LibraryStep[], names: readonly string[]): string {
  const [first] = steps;
  const what = count(names.length, `“${names[0] ?? ""}”`);
  if (first?.kind === "bin") return first.to ? `Put ${what} into the bin` : `Restore ${what}`;
  const fields = new Set(steps.flatMap((s) => (s.kind === "card" ? Object.keys(s.to) : [])));
  if (fields.size !== 1) return `Change ${what}`;
  const verbs: Record<string, string> = { name: "Rename", folder: "Move", tags: "Tag", rating: "Rate" };
  return `${verbs[[...fields][0] ?? ""] ?? "Change"} ${what}`;
}
