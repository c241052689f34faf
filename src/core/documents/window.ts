/*
 * A window of the application, by the moment when it was opened and some letters that make it one of its own. It is told
 * with every request, and stands with what it did.
 */

/** The header of a request that says which window asks. */
export const WINDOW_HEADER = "x-diathesis-window";

const SHAPE = /^([0-9a-z]{8,9})-[0-9a-z]{4}$/;

/** The name of a window that is opened now. `letters`: four of a to z and 0 to 9, as good as no other's. */
export const windowName = (opened: Date, letters: string): string => `${opened.getTime().toString(36)}-${letters}`;

export const isWindowName = (name: string): boolean => SHAPE.test(name);

/** When a window was opened; null for what is no window's name. */
export function windowOpened(name: string): Date | null {
  const [, time] = SHAPE.exec(name) ?? [];
  return time === undefined ? null : new Date(parseInt(time, 36));
}
