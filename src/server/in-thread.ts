import { Worker } from "node:worker_threads";

interface Running<Message, Answer> {
  /** Handed to the script. */
  readonly data: unknown;
  /** The answer in a message; undefined where it was only a word on the way. What it throws ends the work. */
  readonly hear: (message: Message) => Answer | undefined;
  readonly signal?: AbortSignal | undefined;
  /** In the words of an error: "The check". */
  readonly what: string;
}

/** Runs a built script in a thread of its own, so that nobody waits for it, until it has answered or is no longer wanted. */
export const inThread = <Message, Answer>(
  script: URL,
  { data, hear, signal, what }: Running<Message, Answer>,
): Promise<Answer> =>
  new Promise((resolve, reject) => {
    if (signal?.aborted) return reject(new Error(`${what} is no longer wanted.`));
    const worker = new Worker(script, { workerData: data });
    const end = (settle: () => void) => {
      settle();
      void worker.terminate();
    };
    const fail = (error: unknown) => end(() => reject(error instanceof Error ? error : new Error(String(error))));
    signal?.addEventListener("abort", () => fail(new Error(`${what} is no longer wanted.`)));
    worker.on("message", (message: Message) => {
      try {
        const answer = hear(message);
        if (answer !== undefined) end(() => resolve(answer));
      } catch (error) {
        fail(error);
      }
    });
    worker.on("error", fail);
    worker.on("exit", () => reject(new Error(`${what} ended without a word.`)));
  });
