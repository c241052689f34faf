import type { Knex } from "knex";

/** Either the database or a transaction of it. */
export type Executor = Knex | Knex.Transaction;
