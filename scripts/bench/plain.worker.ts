import { type ClientRequest, get } from "node:http";
import { parentPort, workerData } from "node:worker_threads";

/** Between the answer to one plain request and the next, in milliseconds: somebody who looks through the library. */
const EVERY = 10;

const { url } = workerData as { readonly url: string };

/** One plain request on a line of its own, in milliseconds: a page of the library. */
const plain = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const begin = performance.now();
    const asked: ClientRequest = get(`${url}/api/presets?limit=20`, { agent: false }, (answer) => {
      answer.resume();
      answer.on("end", () => resolve(performance.now() - begin));
    });
    asked.on("error", reject);
  });

// Told to stop, it says the longest that it waited.
let isOver = false;
parentPort!.once("message", () => (isOver = true));
let longest = 0;
while (!isOver) {
  longest = Math.max(longest, await plain());
  await new Promise((resolve) => setTimeout(resolve, EVERY));
}
parentPort!.postMessage(longest);
