import { format, isSameDay, isSameYear } from "date-fns";

/** "today", "21 Nov", "21 Nov 2025". */
export function formatDay(instant: string, now: Date): string {
  const date = new Date(instant);
  if (isSameDay(date, now)) return "today";
  return format(date, isSameYear(date, now) ? "d MMM" : "d MMM yyyy");
}

/** "24 Nov 2026" of a plain date or an instant. */
export const formatDate = (date: string): string => format(new Date(date), "d MMM yyyy");
