import type { Knex } from "knex";
import type { Note } from "../data/changes";
import { type Outcome, outcomeOf } from "../failure";
import type { Context } from "./context";
import { inTransaction } from "./transaction";

/** Does work in one transaction; where it refuses, nothing of it has happened, and why is the outcome. */
export const transact = <T>(
  context: Context,
  work: (tx: Knex.Transaction, note: Note) => Promise<T>,
): Promise<Outcome<T>> => outcomeOf(() => inTransaction(context, work));
