import type { Outcome } from "./failure";

/** What came of it; throws with the reason where it was refused. */
export function value<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
}
