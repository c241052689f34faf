import type { Executor } from "../data/transaction";

/** Plain JSON by number; who owns a number knows what it is. */
export async function insertDocument(db: Executor, document: unknown): Promise<number> {
  const [id] = await db("documents").insert({ body: JSON.stringify(document) });
  return id as number;
}

export const replaceDocument = (db: Executor, id: number, document: unknown): Promise<number> =>
  db("documents")
    .where({ id })
    .update({ body: JSON.stringify(document) });
