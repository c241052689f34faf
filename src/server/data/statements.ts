import type { Database, Statement } from "better-sqlite3";
import type { Executor } from "./executor";

const CACHES = new WeakMap<Database, Map<string, Statement<unknown[]>>>();

/** Prepares a statement, or finds it prepared; `Row` is what it gives, where it gives anything. */
export type Statements = <Row = never>(sql: string) => Statement<unknown[], Row>;

/** The driver's own connection, which Knex hands out without its type. */
interface Driver {
  acquireConnection(): Promise<Database>;
}

/**
 * Prepared statements, kept for the life of the connection, for the few paths that are measured: Knex prepares each
 * query anew. Only within a transaction, whose connection is its own.
 */
export async function statementsOf(tx: Executor): Promise<Statements> {
  if (!tx.isTransaction) throw new Error("Statements are kept within a transaction only");
  const connection = await (tx.client as Driver).acquireConnection();
  const cache = CACHES.get(connection) ?? new Map<string, Statement<unknown[]>>();
  CACHES.set(connection, cache);
  return <Row>(sql: string) => {
    const statement = cache.get(sql) ?? connection.prepare<unknown[]>(sql);
    cache.set(sql, statement);
    return statement as Statement<unknown[], Row>;
  };
}
