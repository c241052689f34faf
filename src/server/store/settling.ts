import type { Knex } from "knex";
import type { LibraryFile } from "../data/library-file";
import { mergeSome } from "../repositories/preset-search";

/** Nothing was written for so long, in milliseconds. */
const IDLE = 1000;
/** It is put off no longer than this by what is written meanwhile, in milliseconds. */
const LONGEST_UNSETTLED = 10_000;
/** Between two steps of the tidying, for whoever wants to write. */
const PAUSE = 4;

/** What SQLite answers to a checkpoint: pages that stood beside the library's file, and how many are in it by now. */
interface Checkpoint {
  readonly log: number;
  readonly checkpointed: number;
}

/**
 * What was written stands in a file beside the library's for a while, and its words in a part of the durable index of their
 * own. Once all is quiet the parts are merged, and all is brought over, so that whoever copies the one file has everything.
 */
export function settling(writer: Knex, file: LibraryFile): { settle: () => void; stop: () => Promise<void> } {
  let timer: NodeJS.Timeout | undefined;
  let since: number | null = null;
  let isOver = false;
  const bringOver = async () => {
    try {
      do {
        file.check();
        await new Promise((resolve) => setTimeout(resolve, PAUSE));
      } while (!isOver && (await mergeSome(writer)));
      file.check();
      // One that waits for nobody: what somebody is still reading from comes with the next.
      const [done] = await writer.raw<Checkpoint[]>("PRAGMA wal_checkpoint(PASSIVE)");
      if (done && done.checkpointed < done.log && !isOver) settle();
    } catch (error) {
      // What is told with the next write need not be told by what nobody has asked for.
      console.error(error instanceof Error ? error.message : error);
    }
  };
  let running = Promise.resolve();
  const settle = () => {
    clearTimeout(timer);
    since ??= Date.now();
    const wait = Math.min(IDLE, Math.max(0, since + LONGEST_UNSETTLED - Date.now()));
    timer = setTimeout(() => {
      since = null;
      running = running.then(bringOver);
    }, wait).unref();
  };
  return {
    settle,
    stop() {
      clearTimeout(timer);
      isOver = true;
      return running;
    },
  };
}
