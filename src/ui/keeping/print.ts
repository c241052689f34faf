"use client";

import { type SheetWanted, recallSheet } from "@/clients/sheets";
import { errorText } from "../kit/error-text";
import { saveBlob } from "./save-blob";
import { say, sayError, unsay } from "../kit/say";

/** Until then nothing is said: most sheets are there by then. In milliseconds. */
const SOON = 500;

/** Prints the recall sheet of something, called by its name, into a file that the browser keeps; long work says so, and can be ended. */
export async function print(wanted: SheetWanted, called: string): Promise<void> {
  const id = `sheet ${JSON.stringify(wanted)}`;
  const ending = new AbortController();
  const slow = setTimeout(
    () =>
      say(`Printing the recall sheet of “${called}”…`, {
        id,
        duration: Infinity,
        action: { label: "Stop", onClick: () => ending.abort() },
      }),
    SOON,
  );
  try {
    const { name, blob } = await recallSheet(wanted, ending.signal);
    saveBlob(blob, name);
    say(`The recall sheet of “${called}” is saved as ${name}`);
  } catch (error) {
    if (!ending.signal.aborted) sayError(errorText(error));
  } finally {
    clearTimeout(slow);
    unsay(id);
  }
}
