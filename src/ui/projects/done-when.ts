import { thisWindow } from "@/clients/window";
import { windowOpened } from "@/core/documents/window";
import { formatDate, formatMoment, plainDate } from "../kit/dates";

/* When, and in which window, something was done: for lists of what was. */

/** "this window", "window of 28 Nov 2026, 10:04"; nothing where it is not known. */
export function windowWords(window: string | null): string {
  if (window === null) return "";
  if (window === thisWindow()) return "this window";
  const opened = windowOpened(window);
  return opened ? `window of ${formatMoment(opened.toISOString())}` : "another window";
}

/** What was done day by day, in the order in which it comes: "2026-11-28". */
export function daysOf<E extends { readonly at: string }>(
  entries: readonly E[],
): readonly { readonly day: string; readonly entries: readonly E[] }[] {
  const days: { readonly day: string; readonly entries: E[] }[] = [];
  for (const entry of entries) {
    const day = plainDate(new Date(entry.at));
    const last = days.at(-1);
    // A clock that went backwards begins a day anew.
    if (last?.day === day) last.entries.push(entry);
    else days.push({ day, entries: [entry] });
  }
  return days;
}

/** "Today", "24 Nov 2026". */
export const dayWords = (day: string): string => (day === plainDate(new Date()) ? "Today" : formatDate(day));
