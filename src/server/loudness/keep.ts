import { Worker } from "node:worker_threads";
import type { ChangedRecord } from "../data/changes";
import type { LoudnessTable } from "../data/tables";
import { writeLoudness } from "../repositories/loudness";
import type { Context } from "../store/context";
import { inTransaction } from "../store/transaction";
import type { MeasuringJob } from "./measure";

/** How long is rested after each sound, in shares of what measuring it took. */
const REST = 2;

/** Writes down what was measured; whoever looks at a list of them is told. */
export const keepMeasured = (context: Context, measured: readonly LoudnessTable[]): Promise<void> =>
  inTransaction(context, async (tx, note) => {
    for (const id of await writeLoudness(tx, measured)) note({ kind: "preset", id });
  });

/**
 * Has all that is in the library measured, and what is saved from now on, in a thread of its own. `script`: where its built worker is.
 * Gives back what ends it; what was measured and not written by then is measured another time.
 */
export function keepLoudness(context: Context, script: URL): () => Promise<void> {
  const job: MeasuringJob = { folder: context.folder, rest: REST };
  const worker = new Worker(script, { workerData: job });
  let isLooking = false;
  let isAskedAgain = false;
  let writing: Promise<unknown> = Promise.resolve();
  const look = () => {
    isAskedAgain = isLooking;
    if (isLooking) return;
    isLooking = true;
    worker.postMessage("look");
  };
  const onMeasured = async (measured: readonly LoudnessTable[]) => {
    if (measured.length > 0) await keepMeasured(context, measured);
    isLooking = false;
    if (isAskedAgain || measured.length > 0) look();
  };
  worker.on("message", (measured: readonly LoudnessTable[]) => {
    // What could not be written, as on a full disk, is measured after the next start.
    writing = onMeasured(measured).catch((error: unknown) => console.error(error));
  });
  worker.on("error", (error) => console.error(error));
  const onChange = ({ records }: { readonly records: readonly ChangedRecord[] }) => {
    if (records.some(({ kind }) => kind === "preset")) look();
  };
  context.events.on("change", onChange);
  look();
  return async () => {
    context.events.off("change", onChange);
    await worker.terminate();
    await writing;
  };
}
