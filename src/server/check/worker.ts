import { parentPort, workerData } from "node:worker_threads";
import { type CheckJob, checkLibrary } from "./check";

/* A thread for one check: it tells how far it is, and at the end what it found. */

/** Between one word and the next, in milliseconds. */
const OFTEN = 200;

let last = 0;
const checked = checkLibrary(workerData as CheckJob, (done, of) => {
  const now = performance.now();
  if (now - last < OFTEN) return;
  last = now;
  parentPort?.postMessage({ done, of });
});
parentPort?.postMessage({ checked });
