import type { Database, Statement } from "better-sqlite3";
import type { Executor } from "./executor";

const CACHES = new WeakMap<Database, Map<string, Statement>>();

/**
 * Prepared statements, kept for the life of the connection, for the few paths that are measured: Knex prepares each
 * query anew. Only within a transaction, whose connection is its own.
 */
export async function statementsOf(tx: Executor): Promise<(sql: string) => Statement> {
  if (!tx.isTransaction) throw new Error("Statements are kept within a transaction only");
  const connection = (await (tx.client as { acquireConnection(): Promise<unknown> }).acquireConnection()) as Database;
  const cache = CACHES.get(connection) ?? new Map<string, Statement>();
  CACHES.set(connection, cache);
  return (sql) => {
    const statement = cache.get(sql) ?? connection.prepare(sql);
    cache.set(sql, statement);
    return statement;
  };
}
