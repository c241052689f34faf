import type { z } from "zod";
import type { PresetKind } from "../presets/preset";
import type { StripKind } from "../documents/strip-kinds";
import type { PartName } from "../strips/parts";
import type { SavedSearchSchema, SettingsSchema, ShortcutSchema, StartingPointSchema } from "./schema";

export type Settings = Readonly<z.infer<typeof SettingsSchema>>;
export type SavedSearch = Readonly<z.infer<typeof SavedSearchSchema>>;
export type Shortcut = Readonly<z.infer<typeof ShortcutSchema>>;
export type BackupPlan = Settings["backups"];
export type StartingPoint = Readonly<z.infer<typeof StartingPointSchema>>;

/** A kept search and its place in their list, from 0. */
export interface PlacedSearch {
  readonly at: number;
  readonly search: SavedSearch;
}

export const NO_SETTINGS: Settings = {
  patterns: {},
  searches: [],
  shortcuts: [],
  startingPoints: [],
  apart: [],
  choices: [],
  lastParts: {},
  backups: { every: "day", days: 7, weeks: 4, months: 6 },
};

/** A kept search put at a place of their list, counted from 0, or, for null, let go of. */
export function withSearch(settings: Settings, id: string, placed: PlacedSearch | null): Settings {
  const others = settings.searches.filter((search) => search.id !== id);
  return { ...settings, searches: placed ? others.toSpliced(placed.at, 0, placed.search) : others };
}

/** What something opens with. */
export type Start = Pick<StartingPoint, "preset" | "version" | "values">;

/** As the maker set it, also where something else is set for everywhere. */
export const MAKERS_START: Start = { preset: null, version: null };

/** Patterns that are kept for a kind. */
const MOST_PATTERNS = 8;

/** A pattern that was used stands first. */
export function withPattern(settings: Settings, kind: PresetKind, pattern: string): Settings {
  const kept = [...new Set([pattern, ...(settings.patterns[kind] ?? [])])].slice(0, MOST_PATTERNS);
  return { ...settings, patterns: { ...settings.patterns, [kind]: kept } };
}

/**
 * What a plugin opens with on a strip of a kind: a starting point for just that comes before one for the model anywhere.
 * Null where there is none, which is the maker's own start.
 */
export function startingPointFor(
  { startingPoints }: Settings,
  model: string | null,
  strip: StripKind | null,
): StartingPoint | null {
  const of = (kind: StripKind | null) => startingPoints.find((s) => s.model === model && s.strip === kind);
  return (strip === null ? undefined : of(strip)) ?? (model === null ? undefined : of(null)) ?? null;
}

/** Puts a starting point in the place of the one that there was; null goes back to that for everywhere, else to the maker's. */
export function withStartingPoint(
  settings: Settings,
  place: Pick<StartingPoint, "model" | "strip">,
  start: Start | null,
): Settings {
  const others = settings.startingPoints.filter((s) => s.model !== place.model || s.strip !== place.strip);
  const { model, strip } = place;
  return { ...settings, startingPoints: start ? [...others, { model, strip, ...start }] : others };
}

/** Presets that are set alike and are kept as they are: they are not found as near copies of each other again. */
export const withApart = (settings: Settings, ids: readonly string[]): Settings => ({
  ...settings,
  apart: [...settings.apart, [...ids]],
});

/** The shortcut for a thing; null keys take it away. Keys that something else had are taken from it. */
export function withShortcut(settings: Settings, does: Shortcut["does"], keys: string | null): Settings {
  const isSame = (other: Shortcut["does"]) => JSON.stringify(other) === JSON.stringify(does);
  const others = settings.shortcuts.filter((s) => !isSame(s.does) && s.keys !== keys);
  return { ...settings, shortcuts: keys === null ? others : [...others, { keys, does }] };
}

/** A choice of parts in the place of one of the same name; without parts it is taken away. */
export function withChoice(settings: Settings, name: string, parts: readonly PartName[]): Settings {
  const others = settings.choices.filter((choice) => choice.name !== name);
  return { ...settings, choices: parts.length === 0 ? others : [...others, { name, parts: [...parts] }] };
}

/** Remembers which parts were applied of something of a kind; null for all. */
export function withLastParts(settings: Settings, kind: PresetKind, parts: readonly PartName[] | null): Settings {
  const { [kind]: _, ...others } = settings.lastParts;
  return { ...settings, lastParts: parts === null ? others : { ...others, [kind]: [...parts] } };
}
