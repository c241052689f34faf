const DAY = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" });
const DATE = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric" });
const MONTH = new Intl.DateTimeFormat("en-GB", { month: "short", year: "numeric" });
const TIME = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });
/** Sweden writes dates as ISO 8601 does. */
const PLAIN = new Intl.DateTimeFormat("sv-SE");

/** "today", "21 Nov", "Nov 2025": the nearer, the closer. */
export function formatDay(instant: string, now: Date): string {
  const date = new Date(instant);
  if (PLAIN.format(date) === PLAIN.format(now)) return "today";
  return (date.getFullYear() === now.getFullYear() ? DAY : MONTH).format(date);
}

/** "24 Nov 2026" of a plain date or an instant. */
export const formatDate = (date: string): string => DATE.format(new Date(date));

/** "24 Nov 2026, 18:05", here. */
export const formatMoment = (instant: string): string => `${formatDate(instant)}, ${TIME.format(new Date(instant))}`;

/** "18:05", here. */
export const formatTime = (instant: string): string => TIME.format(new Date(instant));

/** "2026-11-24", the day it is here. */
export const plainDate = (now: Date): string => PLAIN.format(now);
