import type { z } from "zod";
import { type Result, fail, ok } from "../result";

/** What is wrong with a document, and where in it. */
export interface Problem {
  readonly path: string;
  readonly message: string;
}

/** A problem and the place of the document that it is in, as a sentence or nearly one. */
export const wordsOfProblem = (where: string, { path, message }: Problem): string =>
  `${where}: ${path === "" ? "" : `${path}: `}${message}`;

/** "strips[1].level". */
export const formatPath = (path: readonly PropertyKey[]): string =>
  path.reduce<string>(
    (text, at) => (typeof at === "number" ? `${text}[${at}]` : text === "" ? String(at) : `${text}.${String(at)}`),
    "",
  );

/** Checks plain data against a schema; the first problem names its field. */
export function parseWith<T>(schema: z.ZodType<T>, data: unknown, at: readonly PropertyKey[] = []): Result<T, Problem> {
  const parsed = schema.safeParse(data);
  if (parsed.success) return ok(parsed.data);
  const [issue] = parsed.error.issues;
  const unknownKey = issue?.code === "unrecognized_keys" ? issue.keys[0] : undefined;
  const path = [...at, ...(issue?.path ?? []), ...(unknownKey === undefined ? [] : [unknownKey])];
  const message = unknownKey === undefined ? (issue?.message ?? "Not understood") : "No such field is known here";
  return fail({ path: formatPath(path), message });
}
