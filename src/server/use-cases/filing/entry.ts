import type { LibraryStep } from "@/core/library/step";
import type { Note } from "../../data/changes";
import type { Context } from "../../store/context";
import type { Executor } from "../../data/executor";
import { transact } from "../../store/transact";
import { askingWindow } from "../../store/window";
import { stepByStep } from "../../store/work";
import { type Outcome } from "../../failure";
import * as log from "../../repositories/library-log";
import { takingTurns } from "../../turns";
import { aboutOf } from "./about";
import { applyStep } from "./steps";

/*
 * How the library is filed: cards, folders, the bin. Every change is a list of small steps with what stood there and what
 * stands there now, in a log that only grows: an undo is one more entry, also after a restart.
 */

export interface Filed {
  readonly label: string;
  readonly steps: readonly LibraryStep[];
  readonly undoes?: number;
  readonly redoes?: number;
}

/** Within a transaction, which tells of what it changes. */
export interface Filing {
  readonly context: Context;
  readonly tx: Executor;
  readonly note: Note;
}

/** Takes steps, all or none. */
export async function takeSteps({ context, tx, note }: Filing, steps: readonly LibraryStep[]): Promise<void> {
  const at = context.now().toISOString();
  const turn = takingTurns();
  await stepByStep(steps.length, async (onStep) => {
    for (const step of steps) {
      onStep();
      await applyStep(tx, step, { at, note, context });
      await turn();
    }
  });
}

/** Appends to the log what was done; its number there. */
export const keepEntry = async ({ context, tx }: Filing, filed: Filed): Promise<number> =>
  log.appendLog(tx, {
    at: context.now().toISOString(),
    ...filed,
    window: askingWindow(),
    about: await aboutOf(tx, filed.steps),
  });

/** Does what `make` asks for as one entry of the log, all or none; then tells of it, before anyone else writes. */
export function fileAndTell<T>(
  context: Context,
  make: (tx: Executor) => Promise<Filed>,
  tell: (tx: Executor, filed: Filed) => T | Promise<T>,
): Promise<Outcome<T>> {
  return transact(context, async (tx, note) => {
    const filed = await make(tx);
    const filing = { context, tx, note };
    await takeSteps(filing, filed.steps);
    if (filed.steps.length > 0) await keepEntry(filing, filed);
    return tell(tx, filed);
  });
}

export const file = (context: Context, make: (tx: Executor) => Promise<Filed>): Promise<Outcome<Filed>> =>
  fileAndTell(context, make, (_, filed) => filed);
