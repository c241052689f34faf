import { type Result, fail, ok } from "../result";

/** Lifts a document of schema n (its place in the list, from 1) to n + 1. Pure. */
export type Migration = (document: Record<string, unknown>) => Record<string, unknown>;

/**
 * Brings a plain document up to the newest schema, which is one more than there are migrations. The error is a sentence:
 * no schema number, or one from a newer Diathesis.
 */
export function migrate(document: unknown, migrations: readonly Migration[]): Result<Record<string, unknown>, string> {
  const newest = migrations.length + 1;
  if (typeof document !== "object" || document === null || Array.isArray(document))
    return fail("This is not a document.");
  const { schema } = document as { schema?: unknown };
  if (typeof schema !== "number" || !Number.isInteger(schema) || schema < 1)
    return fail(`“schema” must be a whole number from 1 to ${newest}.`);
  if (schema > newest)
    return fail(`This document has schema ${schema}; this Diathesis reads up to ${newest}. Use a newer one.`);
  const lifted = migrations
    .slice(schema - 1)
    .reduce<Record<string, unknown>>((d, lift) => lift(d), document as Record<string, unknown>);
  return ok({ ...lifted, schema: newest });
}
