import { join } from "node:path";
import Connection, { type Database, type Statement } from "better-sqlite3";
import type { Executor } from "./executor";
import { DATABASE_FILE } from "./library-file";
import { setPragmas } from "./pragmas";

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

/** Statements on a connection of its own, which reads one moment of a library however long it takes. */
export function readingAside(folder: string): { readonly statement: Statements; readonly close: () => void } {
  const db = new Connection(join(folder, DATABASE_FILE), { readonly: true, fileMustExist: true });
  setPragmas(db);
  db.exec("BEGIN");
  const cache = new Map<string, Statement<unknown[]>>();
  return {
    statement: <Row>(sql: string) => {
      const statement = cache.get(sql) ?? db.prepare<unknown[]>(sql);
      cache.set(sql, statement);
      return statement as Statement<unknown[], Row>;
    },
    close: () => db.close(),
  };
}
