import { vi } from "vitest";
import type { Outcome } from "./failure";

/** What came of it; throws with the reason where it was refused. */
export function value<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
}

/** Why it was refused; throws where it was not. */
export function refused<T>(outcome: Outcome<T>) {
  if (outcome.ok) throw new Error("It was not refused.");
  const { code, path } = outcome.error;
  return { code, path };
}

/** Waits until something holds, as long as it takes on a machine that has other work. */
export const patiently = <T>(check: () => T | Promise<T>): Promise<T> => vi.waitFor(check, { timeout: 30_000 });
