import { InWords } from "@/clients/api";

const UNEXPECTED = "That could not be done, and Diathesis does not know why. See what stands there before you go on.";

/** The one text of an error: its own, where it is in words for the person; any other goes to the console. */
export function errorText(error: unknown): string {
  if (error instanceof InWords) return error.message;
  console.error(error);
  return UNEXPECTED;
}
