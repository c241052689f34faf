import { parentPort, workerData } from "node:worker_threads";
import { type NearCopiesJob, searchNearCopies } from "./search";

/* A thread for one search: it tells how far it is, and at the end what it found. */

let reported = 0;
const found = searchNearCopies(workerData as NearCopiesJob, (share) => {
  const hundredths = Math.floor(share * 100);
  if (hundredths > reported) parentPort?.postMessage({ progress: (reported = hundredths) / 100 });
});
parentPort?.postMessage(found);
