import { messageOf } from "@/core/result";
import { Unreadable } from "../data/faults";
import type { Executor } from "../data/executor";

/** Plain JSON by number; who owns a number knows what it is. */
export async function insertDocument(db: Executor, document: unknown): Promise<number> {
  const [id] = await db("documents").insert({ body: JSON.stringify(document) });
  return id as number;
}

export const replaceDocument = (db: Executor, id: number, document: unknown): Promise<number> =>
  db("documents")
    .where({ id })
    .update({ body: JSON.stringify(document) });

/** A stored document in today's form. Throws `Unreadable`, in words, for what cannot be read as what it was written as. */
export function readDocument<T>(body: string, lift: (document: unknown) => T, what: string): T {
  try {
    return lift(JSON.parse(body));
  } catch (error) {
    const why = error instanceof SyntaxError ? "it is no whole document any more." : messageOf(error);
    throw new Unreadable(`${what} cannot be read: ${why} Take an earlier version or a backup; all else is untouched.`);
  }
}
