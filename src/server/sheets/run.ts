import type { RecallSheet } from "@/core/sheets/sheet";
import { inThread } from "../in-thread";
import { sheetPdf } from "./pdf";

/** What is to be printed; `printedAt` stands at the foot of its pages, as ISO 8601. */
export interface SheetJob {
  readonly sheet: RecallSheet;
  readonly printedAt: string;
}

/** How a sheet is printed, to its end, or until it is no longer wanted, when it rejects. Gives a PDF. */
export type RunSheet = (job: SheetJob, signal?: AbortSignal) => Promise<Uint8Array>;

/** Here and now: for sheets as small as those of tests. */
export const printHere: RunSheet = ({ sheet, printedAt }) => sheetPdf(sheet, new Date(printedAt));

/** In a thread of its own: a project of hundreds of strips takes seconds. `script`: where the built worker is. */
export const printInThread =
  (script: URL): RunSheet =>
  (job, signal) =>
    inThread<Uint8Array, Uint8Array>(script, { what: "The sheet", data: job, signal, hear: (pdf) => pdf });
