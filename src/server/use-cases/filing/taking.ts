import type { Note } from "../../data/changes";
import type { Context } from "../../store/context";

/** Within a transaction in which a step is taken: when, who hears of it, and what else it needs. */
export interface Taking {
  readonly at: string;
  readonly note: Note;
  readonly context: Context;
}
