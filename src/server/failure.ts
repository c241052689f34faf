import type { ApiError, ErrorCode } from "@/contracts/errors";
import { type Result, fail } from "@/core/result";

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

/** Runs work in which a failure is thrown as `RolledBack`, and hands the failure back as an outcome. */
export async function catchRolledBack<T>(work: () => Promise<Outcome<T>>): Promise<Outcome<T>> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof RolledBack) return fail(error.failure);
    throw error;
  }
}
