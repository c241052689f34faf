import { answerFor } from "../plan-places";
import type { PlannedMatch } from "../plan-shape";

/** Of which of several sets it is: "match:0". */
const setOf = (id: string): string => id.split(":").slice(0, 2).join(":");

/**
 * The answers that put a strip of a set onto one here. Another of the same set that went there goes to where the first one went. Law:
 * what is put back the same way stands as it stood.
 */
export function putOnto(matches: readonly PlannedMatch[], id: string, strip: string): Readonly<Record<string, string>> {
  const own = matches.find((match) => match.id === id);
  const to = answerFor(strip);
  if (!own || own.answer === to) return {};
  const other = matches.find((match) => match.answer === to && setOf(match.id) === setOf(id));
  return { [id]: to, ...(other ? { [other.id]: own.answer } : {}) };
}
