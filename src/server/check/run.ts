import { Worker } from "node:worker_threads";
import { type CheckJob, type Checked, checkLibrary } from "./check";

/** How a check is run, to its end. `onProgress` throws where it is no longer wanted, and it rejects with that. */
export type RunCheck = (job: CheckJob, onProgress: (done: number, of: number) => void) => Promise<Checked>;

/** Here and now: for a library as small as those of tests and tools. */
export const checkHere: RunCheck = (job, onProgress) => Promise.resolve().then(() => checkLibrary(job, onProgress));

type WorkerMessage = { readonly done: number; readonly of: number } | { readonly checked: Checked };

/** In a thread of its own, so that nobody waits for it. `script`: where the built worker is. */
export const checkInThread =
  (script: URL): RunCheck =>
  (job, onProgress) =>
    new Promise((resolve, reject) => {
      const worker = new Worker(script, { workerData: job });
      const end = (settle: () => void) => {
        settle();
        void worker.terminate();
      };
      worker.on("message", (message: WorkerMessage) => {
        if ("checked" in message) return end(() => resolve(message.checked));
        try {
          onProgress(message.done, message.of);
        } catch (error) {
          end(() => reject(error instanceof Error ? error : new Error(String(error))));
        }
      });
      worker.on("error", (error) => end(() => reject(error)));
      worker.on("exit", () => reject(new Error("The check ended without a word.")));
    });
