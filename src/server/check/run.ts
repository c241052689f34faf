import { inThread } from "../in-thread";
import { type CheckJob, type Checked, checkLibrary } from "./check";

/** How a check is run, to its end. `onProgress` throws where it is no longer wanted, and it rejects with that. */
export type RunCheck = (job: CheckJob, onProgress: (done: number, of: number) => void) => Promise<Checked>;

/** Here and now: for a library as small as those of tests and tools. */
export const checkHere: RunCheck = (job, onProgress) => Promise.resolve().then(() => checkLibrary(job, onProgress));

type WorkerMessage = { readonly done: number; readonly of: number } | { readonly checked: Checked };

/** In a thread of its own. `script`: where the built worker is. */
export const checkInThread =
  (script: URL): RunCheck =>
  (job, onProgress) =>
    inThread<WorkerMessage, Checked>(script, {
      what: "The check",
      data: job,
      hear: (message) => {
        if ("checked" in message) return message.checked;
        onProgress(message.done, message.of);
        return undefined;
      },
    });
