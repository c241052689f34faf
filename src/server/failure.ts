import type { ApiError, ErrorCode } from "@/contracts/errors";
import { type Result, fail, ok } from "@/core/result";

/** A use-case's expected failure: what the border answers with. */
export type Failure = ApiError;
export type Outcome<T> = Result<T, Failure>;

export const failure = (code: ErrorCode, message: string, more: { path?: string; detail?: unknown } = {}) =>
  fail<Failure>({ code, message, ...more });

/** Carries a failure out of a transaction, which is thereby rolled back. */
export class RolledBack extends Error {
  constructor(readonly failure: Failure) {
    super(failure.message);
  }
}

/** Refuses out of a transaction: nothing of it has happened. */
export function refuse(code: ErrorCode, message: string, more: { path?: string; detail?: unknown } = {}): never {
  throw new RolledBack(failure(code, message, more).error);
}

/** What some work comes to; a failure that it was refused with is handed back as an outcome. */
export async function outcomeOf<T>(work: () => Promise<T>): Promise<Outcome<T>> {
  try {
    return ok(await work());
  } catch (error) {
    if (error instanceof RolledBack) return fail(error.failure);
    throw error;
  }
}
