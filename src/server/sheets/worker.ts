import { parentPort, workerData } from "node:worker_threads";
import { sheetPdf } from "./pdf";
import type { SheetJob } from "./run";

/* A thread for one recall sheet. */

const { sheet, printedAt } = workerData as SheetJob;
void sheetPdf(sheet, new Date(printedAt)).then((pdf) => parentPort?.postMessage(pdf));
