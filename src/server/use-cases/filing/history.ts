import type { History } from "@/contracts/records";
import { walkHistory, wordsOfHistory } from "@/core/documents/history";
import { invertLibrarySteps } from "@/core/library/step";
import type { Context } from "../../data/context";
import type { Executor } from "../../data/transaction";
import { type Outcome, RolledBack, failure } from "../../failure";
import * as log from "../../repositories/library-log";
import { type Filed, fileAndTell } from "./entry";

const historyIn = async (db: Executor): Promise<History> => wordsOfHistory(await log.listLinks(db));

export const libraryHistory = ({ db }: Context): Promise<History> => historyIn(db);

/**
 * Takes back the last change that was not taken back yet, or does the last one that was again. What is told is the
 * history right after it: of two that come close together, each is told its own.
 */
export function walkLibrary(context: Context, direction: "undo" | "redo"): Promise<Outcome<History>> {
  const step = async (tx: Executor): Promise<Filed> => {
    const links = await log.listLinks(tx);
    const n = walkHistory(links)[direction].at(-1);
    if (n === undefined) throw new RolledBack(failure("refused", `There is nothing to ${direction}.`).error);
    const steps = await log.getSteps(tx, n);
    const label = links.find((l) => l.n === n)?.label ?? "";
    return direction === "undo"
      ? { label: `Undo: ${label}`, steps: invertLibrarySteps(steps), undoes: n }
      : { label: `Redo: ${label}`, steps, redoes: n };
  };
  return fileAndTell(context, step, historyIn);
}
