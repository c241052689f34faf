import { Worker } from "node:worker_threads";
import { type FoundCopies, type NearCopiesJob, type OnProgress, searchNearCopies } from "./search";

/** How a search is run: to its end, or until it is no longer wanted, when it rejects. */
export type RunNearCopies = (job: NearCopiesJob, onProgress: OnProgress, signal: AbortSignal) => Promise<FoundCopies>;

/** Here and now: for a library as small as those of tests and tools. */
export const runHere: RunNearCopies = async (job, onProgress) => Promise.resolve(searchNearCopies(job, onProgress));

type WorkerMessage = { readonly progress: number } | FoundCopies;

/** In a thread of its own, so that nobody waits for it. `script`: where the built worker is. */
export const runInThread =
  (script: URL): RunNearCopies =>
  (job, onProgress, signal) =>
    new Promise((resolve, reject) => {
      const worker = new Worker(script, { workerData: job });
      const end = (settle: () => void) => {
        settle();
        void worker.terminate();
      };
      signal.addEventListener("abort", () => end(() => reject(new Error("The search was ended."))));
      worker.on("message", (message: WorkerMessage) => {
        if ("groups" in message) end(() => resolve(message));
        else onProgress(message.progress);
      });
      worker.on("error", (error) => end(() => reject(error)));
      worker.on("exit", () => reject(new Error("The search ended without a word.")));
    });
