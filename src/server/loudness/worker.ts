import { parentPort, workerData } from "node:worker_threads";
import { messageOf } from "@/core/result";
import { type MeasuringJob, measureSome } from "./measure";

/* A thread that measures some sounds each time that it is told to, and tells what it found. */

parentPort?.on("message", () => {
  measureSome(workerData as MeasuringJob).then(
    (measured) => parentPort?.postMessage(measured),
    (error: unknown) => {
      console.error(`Loudness is not measured any more: ${messageOf(error)}`);
      process.exit(1);
    },
  );
});
