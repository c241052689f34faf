import { inThread } from "../in-thread";
import { type FoundCopies, type NearCopiesJob, type OnProgress, searchNearCopies } from "./search";

/** How a search is run: to its end, or until it is no longer wanted, when it rejects. */
export type RunNearCopies = (job: NearCopiesJob, onProgress: OnProgress, signal: AbortSignal) => Promise<FoundCopies>;

/** Here and now: for a library as small as those of tests and tools. */
export const runHere: RunNearCopies = async (job, onProgress) => Promise.resolve(searchNearCopies(job, onProgress));

type WorkerMessage = { readonly progress: number } | FoundCopies;

/** In a thread of its own. `script`: where the built worker is. */
export const runInThread =
  (script: URL): RunNearCopies =>
  (job, onProgress, signal) =>
    inThread<WorkerMessage, FoundCopies>(script, {
      what: "The search",
      data: job,
      signal,
      hear: (message) => {
        if ("groups" in message) return message;
        onProgress(message.progress);
        return undefined;
      },
    });
