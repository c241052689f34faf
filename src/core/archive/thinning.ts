import type { BackupPlan } from "../settings/settings";

const DAY = 86_400_000;

/** Monday, 5 January 1970, began the second week. */
const FIRST_MONDAY = 4 * DAY;

const dayOf = (at: Date): string => at.toISOString().slice(0, 10);
const weekOf = (at: Date): string => String(Math.floor((at.getTime() - FIRST_MONDAY) / (7 * DAY)));
const monthOf = (at: Date): string => at.toISOString().slice(0, 7);

/** The newest of each of the last so many stretches of time that have any. */
function newestOf(backups: readonly Date[], stretchOf: (at: Date) => string, most: number): readonly Date[] {
  const kept = new Map<string, Date>();
  for (const at of backups) {
    const stretch = stretchOf(at);
    if (!kept.has(stretch)) kept.set(stretch, at);
  }
  return [...kept.values()].slice(0, most);
}

/**
 * Of backups made at these times, those that go. Laws: the newest never goes; nothing goes that is the last of one of the days, weeks or
 * months that are kept; thinned once more, nothing goes; one that is made later never brings back, nor needs, one that went.
 */
export function thinnedOut(made: readonly Date[], { days, weeks, months }: BackupPlan): readonly Date[] {
  const backups = made.toSorted((a, b) => b.getTime() - a.getTime());
  const kept = new Set([
    ...backups.slice(0, 1),
    ...newestOf(backups, dayOf, days),
    ...newestOf(backups, weekOf, weeks),
    ...newestOf(backups, monthOf, months),
  ]);
  return backups.filter((at) => !kept.has(at));
}

/** Whether the next backup is due. `last`: when the last one that came out whole was made; null where none was. */
export function isDue({ every }: BackupPlan, last: Date | null, now: Date): boolean {
  if (every === "never") return false;
  return last === null || now.getTime() - last.getTime() >= (every === "day" ? DAY : 7 * DAY);
}
