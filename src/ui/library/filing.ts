"use client";

import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { create } from "zustand";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetRow } from "@/contracts/records";
import { LONGEST_NAME, withoutClashes } from "@/core/names/pattern";
import type { Card } from "@/core/presets/preset";
import { wordsOf } from "@/core/search/words";
import type { Action } from "../actions/actions";
import { touch, useLastTouched } from "../actions/last-touched";
import { say, sayError } from "../kit/say";
import type { Compared } from "./compare-sheet";
import type { Selection } from "./selection";

/** A sheet of the library that is open, and what it is for. */
export type LibrarySheet =
  | { readonly sheet: "edit"; readonly presets: readonly PresetRow[]; readonly begin: "name" | "folder" | "tags" }
  | { readonly sheet: "rename"; readonly presets: readonly PresetRow[] }
  | { readonly sheet: "folder"; readonly folder: string | null }
  | { readonly sheet: "compare"; readonly left: Compared; readonly right: Compared }
  | { readonly sheet: "nearCopies" }
  | { readonly sheet: "naming" }
  | { readonly sheet: "bin" };

export const useLibrarySheet = create<{ readonly open: LibrarySheet | null }>(() => ({ open: null }));
export const openSheet = (open: LibrarySheet): void => useLibrarySheet.setState({ open });
export const closeSheet = (): void => useLibrarySheet.setState({ open: null });

export async function refetchLibrary(queries: QueryClient): Promise<void> {
  const keys = [KEYS.presets, KEYS.folders, KEYS.bin, KEYS.libraryHistory];
  await Promise.all(keys.map((queryKey) => queries.invalidateQueries({ queryKey })));
}

/** "“Rim and air”", "3 sounds". */
export const countSounds = (presets: readonly PresetRow[]): string =>
  presets.length === 1 ? `“${presets[0]?.card.name ?? ""}”` : `${presets.length} sounds`;

/** What comes with a pack stays as it is: the others, and the words for what is done to them. */
function ownOf(presets: readonly PresetRow[], wordsFor: (some: readonly PresetRow[]) => string) {
  const own = presets.filter((p) => p.pack === null);
  if (own.length === 0)
    throw new Error("What comes with a pack stays as it is. Make a copy (U); that is yours to change.");
  const left = presets.length - own.length;
  return { own, words: left === 0 ? wordsFor(own) : `${wordsFor(own)}; ${left} of a pack left as they are` };
}

/** What stands behind the name of a copy that is to become something of its own, and of one that is to be turned. */
const COPY = ", copy";
const VARIATION = ", variation";

/** Changes cards; says what was done, with the way back. Rejects where it was refused. */
export function useFiling() {
  const queries = useQueryClient();
  const undo = async () => {
    try {
      await api.walkLibrary("undo");
      await refetchLibrary(queries);
    } catch (error) {
      sayError(error instanceof Error ? error.message : String(error));
    }
  };
  const done = async (words: string, canUndo = true) => {
    touch("library");
    await refetchLibrary(queries);
    say(words, canUndo ? { action: { label: "Undo", onClick: () => void undo() } } : {});
  };
  const change = async (
    presets: readonly PresetRow[],
    cardOf: (preset: PresetRow, at: number) => Partial<Card>,
    verb: string,
  ): Promise<void> => {
    const { own, words } = ownOf(presets, (some) => `${verb} ${countSounds(some)}`);
    await api.patchCards(
      own.map((p, at) => ({ id: p.id, baseCard: p.cardRevision, card: cardOf(p, at) })),
      words,
    );
    await done(words);
  };
  const bin = async (presets: readonly PresetRow[]): Promise<void> => {
    const { own, words } = ownOf(presets, (some) => `Put ${countSounds(some)} into the bin`);
    await api.patchCards(
      own.map((p) => ({ id: p.id, baseCard: p.cardRevision, binned: true })),
      words,
    );
    await done(words);
  };
  /** Into folders that are called as their artists or clients are. */
  const fileBy = async (presets: readonly PresetRow[], by: "artist" | "client"): Promise<void> => {
    const { own, words } = ownOf(presets, (some) => `File ${countSounds(some)} by ${by}`);
    await api.fileBy(
      by,
      own.map((p) => p.id),
    );
    await done(words);
  };
  /** A copy under a free name, one's own whatever it was copied from; it knows its original. */
  const copy = async ({ id, kind, content, card, version }: PresetRow, behind: string): Promise<PresetRow> => {
    const wished = `${card.name.slice(0, LONGEST_NAME - behind.length)}${behind}`;
    const alike = await api.listPresets({ q: wordsOf(wished).join(" "), limit: 500 });
    const [name = wished] = withoutClashes(
      [wished],
      alike.items.map((p) => p.card.name),
    );
    const origin = { ...card.origin, from: { preset: id, version, name: card.name } };
    return (await api.savePreset({ kind, content, card: { ...card, name, origin } })).preset;
  };
  /** Copies to be changed, beside what they were copied from. */
  const duplicate = async (presets: readonly PresetRow[]): Promise<void> => {
    for (const preset of presets) await copy(preset, COPY);
    await refetchLibrary(queries);
    say(presets.length === 1 ? `Made a copy of ${countSounds(presets)}` : `Made copies of ${countSounds(presets)}`);
  };
  /** One to be turned on the bench; the original stays as it is. */
  const vary = async (preset: PresetRow): Promise<PresetRow> => {
    const made = await copy(preset, VARIATION);
    await refetchLibrary(queries);
    say(`Made “${made.card.name}”`);
    return made;
  };
  return { change, bin, fileBy, done, duplicate, vary };
}

/** Says why something was refused. */
export const orSay = (work: Promise<unknown>): void =>
  void work.catch((error: unknown) => sayError(error instanceof Error ? error.message : String(error)));

function useLibraryHistory(): readonly Action[] {
  const queries = useQueryClient();
  const history = useQuery({ queryKey: KEYS.libraryHistory, queryFn: api.libraryHistory }).data?.history;
  const isLast = useLastTouched((t) => t.last) !== "project";
  const walk = async (direction: "undo" | "redo", words: string) => {
    await api.walkLibrary(direction);
    await refetchLibrary(queries);
    say(`${direction === "undo" ? "Taken back" : "Done again"}: ${words}`);
  };
  const actions: [direction: "undo" | "redo", word: string, keys: readonly string[]][] = [
    ["undo", "Undo", ["Ctrl+Z"]],
    ["redo", "Redo", ["Ctrl+Shift+Z", "Ctrl+Y"]],
  ];
  return actions.map(([direction, word, keys]) => {
    const words = history?.[direction] ?? null;
    return {
      id: `${direction}-filing`,
      title: words === null ? `${word} in the library` : `${word}: ${words}`,
      group: "Filing",
      // Where a project was touched last, the keys are for that.
      keys: isLast && words !== null ? keys : [],
      enabled: words !== null,
      run: () => words !== null && orSay(walk(direction, words)),
    };
  });
}

/** A sound beside the one that it was made from. */
export async function compareWithOriginal(preset: PresetRow): Promise<void> {
  const { from } = preset.card.origin;
  if (!from) return;
  const original = (await api.getPreset(from.preset)).preset;
  openSheet({
    sheet: "compare",
    left: { preset: original, version: from.version },
    right: { preset, version: preset.version },
  });
}

/** Two sounds, the newest version of one beside the one before, or beside what it was made from. */
function openCompare([first, second]: readonly PresetRow[]): void {
  if (!first) return;
  if (!second && first.version === 1) return orSay(compareWithOriginal(first));
  const right = second ?? first;
  const left = second ? { preset: first, version: first.version } : { preset: first, version: first.version - 1 };
  openSheet({ sheet: "compare", left, right: { preset: right, version: right.version } });
}

function compareTitle([first, second]: readonly PresetRow[]): string {
  if (second) return "Compare the two";
  return first?.version === 1 ? "Compare with what it was made from" : "Compare with the version before";
}

/** All that can be done to how the chosen sounds are filed. */
export function useFilingActions({ all, chosen }: Selection): readonly Action[] {
  const router = useRouter();
  const { change, bin, fileBy, duplicate, vary } = useFiling();
  const history = useLibraryHistory();
  const group = "Filing";
  const enabled = chosen !== null;
  const edit = (begin: "name" | "folder" | "tags") => () => openSheet({ sheet: "edit", presets: all, begin });
  const rate = (rating: number): Action => ({
    id: `rate-${rating}`,
    title: rating === 0 ? "Take the rating off" : `Rate ${rating} of 5`,
    group,
    keys: [String(rating)],
    keyOnly: true,
    enabled,
    run: () => orSay(change(all, () => ({ rating }), "Rate")),
  });
  return [
    ...history,
    { id: "edit-card", title: "Change the card", group, keys: ["E"], enabled, run: edit("name") },
    { id: "move-to-folder", title: "Move into a folder", group, keys: ["F"], enabled, run: edit("folder") },
    { id: "tag", title: "Tag", group, keys: ["T"], enabled, run: edit("tags") },
    {
      id: "rename",
      title: "Rename by a pattern",
      group,
      keys: ["R"],
      enabled,
      run: () => openSheet({ sheet: "rename", presets: all }),
    },
    ...(["artist", "client"] as const).map((by) => ({
      id: `file-by-${by}`,
      title: `File into a folder for the ${by}`,
      group,
      enabled,
      run: () => orSay(fileBy(all, by)),
    })),
    {
      id: "compare",
      title: compareTitle(all),
      group,
      keys: ["C"],
      enabled:
        all.length === 2 || (all.length === 1 && (all[0]!.version > 1 || all[0]!.card.origin.from !== undefined)),
      run: () => chosen && openCompare(all),
    },
    {
      id: "duplicate",
      title: "Duplicate",
      group,
      keys: ["U"],
      enabled,
      run: () => orSay(duplicate(all)),
    },
    {
      id: "variation",
      title: "Make a variation",
      group,
      keys: ["V"],
      enabled,
      run: () =>
        orSay(
          (async () => {
            if (chosen) router.push(`/bench?preset=${(await vary(chosen)).id}`);
          })(),
        ),
    },
    { id: "bin", title: "Put into the bin", group, keys: ["Delete"], enabled, run: () => orSay(bin(all)) },
    {
      id: "near-copies",
      title: "Find near copies",
      group,
      keys: ["Ctrl+Alt+C"],
      run: () => openSheet({ sheet: "nearCopies" }),
    },
    {
      id: "naming",
      title: "Mend names",
      group,
      keys: ["Ctrl+Alt+R"],
      run: () => openSheet({ sheet: "naming" }),
    },
    { id: "open-bin", title: "Open the bin", group, run: () => openSheet({ sheet: "bin" }) },
    { id: "new-folder", title: "New folder", group, run: () => openSheet({ sheet: "folder", folder: null }) },
    ...[0, 1, 2, 3, 4, 5].map(rate),
  ];
}
