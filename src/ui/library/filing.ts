"use client";

import { type QueryClient, useQueryClient } from "@tanstack/react-query";
import { create } from "zustand";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { CardChanges, FileBy } from "@/contracts/library";
import { besideOf } from "@/core/packs/pack";
import { counted } from "@/core/names/count";
import type { PresetRow, Walked } from "@/contracts/records";
import { touch } from "../actions/last-touched";
import { errorText } from "../kit/error-text";
import { createLine } from "../kit/in-line";
import { say, sayError } from "../kit/say";
import { withProgress } from "./long-work";
import type { CardOf } from "./overtaken";

/** One of two that are compared: a preset and which of its versions. */
export interface Compared {
  readonly preset: PresetRow;
  readonly version: number;
  /** Of a set: only one of its strips, by its key there. */
  readonly strip?: string | undefined;
}

/** A sheet of the library that is open, and what it is for. */
export type LibrarySheet =
  | { readonly sheet: "edit"; readonly presets: readonly PresetRow[]; readonly begin: "name" | "folder" | "tags" }
  | { readonly sheet: "fileBy"; readonly presets: readonly PresetRow[]; readonly by: FileBy["by"] }
  | { readonly sheet: "move" | "tag"; readonly presets: readonly PresetRow[] }
  | { readonly sheet: "rename"; readonly presets: readonly PresetRow[] }
  | {
      readonly sheet: "folder";
      /** Null for a new one. */
      readonly folder: string | null;
      /** In which a new one is made. */
      readonly within?: string | undefined;
      /** It was taken away, out of the one that is given. */
      readonly onGone?: (parent: string | null) => void;
    }
  | { readonly sheet: "moveFolder"; readonly folder: string }
  | { readonly sheet: "compare"; readonly left: Compared; readonly right: Compared }
  | { readonly sheet: "uses"; readonly preset: PresetRow }
  | {
      readonly sheet: "nearCopies";
      /** Those that are chosen, where they are several. */
      readonly chosen: readonly PresetRow[];
    }
  | { readonly sheet: "words" }
  | { readonly sheet: "history" }
  | { readonly sheet: "naming" }
  | { readonly sheet: "bin" };

/** Sheets in which sounds are heard. */
export const HEARING: ReadonlySet<LibrarySheet["sheet"]> = new Set(["compare", "nearCopies", "naming"]);

export const useLibrarySheet = create<{ readonly open: LibrarySheet | null }>(() => ({ open: null }));
export const openSheet = (open: LibrarySheet): void => useLibrarySheet.setState({ open });
export const closeSheet = (): void => useLibrarySheet.setState({ open: null });

export async function refetchLibrary(queries: QueryClient): Promise<void> {
  const keys = [KEYS.presets, KEYS.folders, KEYS.bin, KEYS.libraryHistory];
  await Promise.all(keys.map((queryKey) => queries.invalidateQueries({ queryKey })));
}

/** What came of an undo or a redo, with what was passed over of it and why. */
export function wordsOfWalk(direction: "undo" | "redo", { label, done, passed, reasons }: Walked): string {
  const what = done === 0 ? "Passed over" : direction === "undo" ? "Taken back" : "Done again";
  if (passed === 0) return `${what}: ${label}`;
  const left = done === 0 ? "" : ` ${passed} of ${done + passed} steps passed over:`;
  return `${what}: ${label}.${left} ${reasons.join(" ")}`;
}

/** "“Rim and air”", "3 sounds". */
export const countSounds = (presets: readonly PresetRow[]): string =>
  presets.length === 1 ? `“${presets[0]?.card.name ?? ""}”` : counted(presets.length, "sound");

/** What comes with a pack stays as it is but for what `takes` lets through: the others, and the words for what is done to them. */
export function ownOf(
  presets: readonly PresetRow[],
  wordsFor: (some: readonly PresetRow[]) => string,
  takes: (preset: PresetRow) => boolean = () => false,
) {
  const own = presets.filter((p) => p.pack === null || takes(p));
  if (own.length === 0)
    throw new api.InWords(
      "What comes with a pack is rated, tagged and filed as you like; all else of it stays as it is. Make a copy (U): that is yours to change.",
    );
  const left = presets.length - own.length;
  return { own, words: left === 0 ? wordsFor(own) : `${wordsFor(own)}; ${left} of a pack left as they are` };
}

/** Where sounds are moved to, by the path of a folder or out of all of them: "into “Voices / Lead”". */
export const wordsInto = (path: string | null): string => (path === null ? "out of all folders" : `into “${path}”`);

/** Changes of the filing in this window, one after the other. */
export const inFilingLine = createLine();

/** One of which the server knows what it stands on, and refuses it where that is not so. */
const aloneInLine = <T>(work: () => Promise<T>): Promise<T> => inFilingLine(work, { standsAlone: true });

/** Changes of this window that are under way: there is something to undo, before the history has been told of it. */
export const useFilingUnderWay = create<{ readonly changes: number }>(() => ({ changes: 0 }));

async function underWay(work: () => Promise<void>): Promise<void> {
  const count = (by: number) => useFilingUnderWay.setState(({ changes }) => ({ changes: changes + by }));
  count(1);
  try {
    await work();
  } finally {
    count(-1);
  }
}

/** Rows as this window's own changes have left them, which lists may not show yet; by what it keeps of the server. */
const LATEST = new WeakMap<QueryClient, Map<string, PresetRow>>();

function latestIn(queries: QueryClient): Map<string, PresetRow> {
  const latest = LATEST.get(queries) ?? new Map<string, PresetRow>();
  LATEST.set(queries, latest);
  return latest;
}

/** Keeps a row where none that is as new is kept: lists that nobody looks at stay as they were. */
function keepLatest(queries: QueryClient, row: PresetRow): void {
  const latest = latestIn(queries);
  if (row.cardRevision > (latest.get(row.id)?.cardRevision ?? 0)) latest.set(row.id, row);
}

/**
 * The newest of some rows that this window has made itself. What another has made of them is not taken as a base, though
 * a list may show it already: what was thought of before must not put it away unsaid.
 */
function newestOf(queries: QueryClient, presets: readonly PresetRow[]): readonly PresetRow[] {
  const own = latestIn(queries);
  return presets.map((preset) => {
    const made = own.get(preset.id);
    return made && made.cardRevision > preset.cardRevision ? made : preset;
  });
}

/** Fetches the lists after this window's own undo or redo: as they are then, they are as it has made them. */
export async function refetchWalked(queries: QueryClient, changed: readonly PresetRow[]): Promise<void> {
  // Also what no list shows now is known as it was left.
  for (const row of changed) keepLatest(queries, row);
  await refetchLibrary(queries);
  for (const [, page] of queries.getQueriesData<{ readonly items?: readonly PresetRow[] }>({ queryKey: KEYS.presets }))
    for (const row of page?.items ?? []) keepLatest(queries, row);
}

interface Patch {
  readonly own: readonly PresetRow[];
  readonly cardOf: CardOf;
  readonly rest: Omit<CardChanges, "changes">;
}

/** Sends changes of cards; where others were quicker, see overtaken.ts. */
async function patch(queries: QueryClient, { own, cardOf, rest }: Patch): Promise<void> {
  const send = async (rows: readonly PresetRow[]) => {
    const changes = rows.map((p) => ({ id: p.id, baseCard: p.cardRevision, card: cardOf(p) }));
    const { cards } = await api.patchCards({ changes, ...rest });
    const before = new Map(rows.map((row) => [row.id, row]));
    for (const card of cards) {
      const row = before.get(card.id);
      if (row) keepLatest(queries, { ...row, ...card });
    }
  };
  const seen = newestOf(queries, own);
  try {
    await send(seen);
  } catch (error) {
    if (!(error instanceof api.ApiFailure) || error.error.code !== "stale") throw error;
    const { rowsByNow } = await import("./overtaken");
    await send(await rowsByNow(seen, cardOf));
  }
}

/** Puts sounds into the bin as this window has left them by then: what stands before it in the line may change these, too. */
export const binInLine = (queries: QueryClient, presets: readonly PresetRow[], label: string): Promise<unknown> =>
  aloneInLine(() =>
    withProgress(label, () =>
      api.patchCards({
        changes: newestOf(queries, presets).map((p) => ({ id: p.id, baseCard: p.cardRevision, binned: true })),
        label,
      }),
    ),
  );

/** Changes cards; says what was done, with the way back. Rejects where it was refused. */
export function useFiling() {
  const queries = useQueryClient();
  const undo = async (n: number) => {
    try {
      const walked = await inFilingLine(async () => {
        const answer = await withProgress("Undo", () => api.walkFiling("undo", n));
        await refetchWalked(queries, answer.presets);
        return answer.walked;
      });
      say(wordsOfWalk("undo", walked));
    } catch (error) {
      sayError(errorText(error));
    }
  };
  /** Says what was done. The way back is to that change, whatever has been done since. */
  const done = async (words: string, canUndo = true) => {
    touch("library");
    await refetchLibrary(queries);
    const { standing } = canUndo ? await api.libraryHistory() : { standing: [] };
    const made = standing.find(({ label }) => label === words) ?? standing[0];
    say(words, made ? { action: { label: "Undo", onClick: () => void undo(made.n) } } : {});
  };
  const change = async (
    presets: readonly PresetRow[],
    cardOf: CardOf,
    doing: string | { readonly verb: string; readonly behind: string },
    newFolder?: string,
  ): Promise<void> => {
    const { verb, behind } = typeof doing === "string" ? { verb: doing, behind: "" } : doing;
    const { own, words } = ownOf(
      presets,
      (some) => `${verb} ${countSounds(some)} ${behind}`.trim(),
      (p) => newFolder !== undefined || Object.keys(besideOf(cardOf(p))).length > 0,
    );
    const rest = { label: words, ...(newFolder === undefined ? {} : { newFolder }) };
    const allowed: CardOf = (p) => (p.pack === null ? cardOf(p) : besideOf(cardOf(p)));
    await underWay(async () => {
      await aloneInLine(() => withProgress(words, () => patch(queries, { own, cardOf: allowed, rest })));
      await done(words);
    });
  };
  const bin = async (presets: readonly PresetRow[]): Promise<void> => {
    const { own, words } = ownOf(presets, (some) => `Put ${countSounds(some)} into the bin`);
    await underWay(async () => {
      await binInLine(queries, own, words);
      await done(words);
    });
  };
  return { change, bin, done };
}

/** A sound beside the one that it was made from. */
export async function compareWithOriginal(preset: PresetRow): Promise<void> {
  const { from } = preset.card.origin;
  if (!from) return;
  const original = (await api.getPreset(from.preset)).preset;
  openSheet({
    sheet: "compare",
    left: { preset: original, version: from.version, strip: from.strip },
    right: { preset, version: preset.version },
  });
}
