"use client";

import type { PresetRow } from "@/contracts/records";
import { isStrips } from "@/core/presets/preset";
import { orSay } from "../kit/say";
import type { Action } from "../actions/actions";
import { useCopies } from "./use-copies";
import { type LibrarySheet, compareWithOriginal, openSheet, useFiling } from "./filing";
import { useOpenSound } from "./open-sound";
import type { Selection } from "./selection";
import { useLibraryHistory } from "./use-library-history";

const GROUP = "Filing";

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

const canCompare = (all: readonly PresetRow[]): boolean =>
  all.length === 2 || (all.length === 1 && (all[0]!.version > 1 || all[0]!.card.origin.from !== undefined));

const opens = (id: string, title: string, sheet: LibrarySheet, keys: readonly string[] = []): Action => ({
  id,
  title,
  group: GROUP,
  keys,
  run: () => openSheet(sheet),
});

/** What concerns the library as a whole. */
const TIDYING: readonly Action[] = [
  opens("naming", "Mend names", { sheet: "naming" }, ["Ctrl+Alt+R"]),
  opens("words", "Put words in order", { sheet: "words" }),
  opens("library-history", "History of the library", { sheet: "history" }),
  opens("open-bin", "Open the bin", { sheet: "bin" }),
  opens("new-folder", "New folder", { sheet: "folder", folder: null }),
];

/** Near copies, among those that are chosen where they are several. */
const findsCopies = ({ withAll, chosen }: Selection): Action => ({
  id: "near-copies",
  title: "Find near copies",
  group: GROUP,
  keys: ["Ctrl+Alt+C"],
  run: () => {
    const open = (all: readonly PresetRow[]) => openSheet({ sheet: "nearCopies", chosen: all.length > 1 ? all : [] });
    if (chosen) withAll(open);
    else open([]);
  },
});

/** What changes the cards of the chosen sounds. */
function useCardActions({ withAll, chosen }: Selection): readonly Action[] {
  const { change, bin } = useFiling();
  const shared = { group: GROUP, enabled: chosen !== null };
  const quick = (sheet: "move" | "tag") => () => withAll((all) => openSheet({ sheet, presets: all }));
  const edit = () => withAll((all) => openSheet({ sheet: "edit", presets: all, begin: "name" }));
  const rate = (rating: number): Action => ({
    ...shared,
    id: `rate-${rating}`,
    title: rating === 0 ? "Take the rating off" : `Rate ${rating} of 5`,
    keys: [String(rating)],
    keyOnly: true,
    run: () => withAll((all) => orSay(change(all, () => ({ rating }), "Rate"))),
  });
  const rename = () => withAll((all) => openSheet({ sheet: "rename", presets: all }));
  return [
    { ...shared, id: "edit-card", title: "Change the card", keys: ["E"], run: edit },
    { ...shared, id: "move-to-folder", title: "Move into a folder", keys: ["F"], run: quick("move") },
    { ...shared, id: "tag", title: "Tag", keys: ["T"], run: quick("tag") },
    { ...shared, id: "rename", title: "Rename by a pattern", keys: ["R"], run: rename },
    ...(["artist", "client"] as const).map((by) => ({
      ...shared,
      id: `file-by-${by}`,
      title: `File into a folder for the ${by}`,
      run: () => withAll((all) => openSheet({ sheet: "fileBy", presets: all, by })),
    })),
    { ...shared, id: "bin", title: "Put into the bin", keys: ["Delete"], run: () => withAll((all) => orSay(bin(all))) },
    ...[0, 1, 2, 3, 4, 5].map(rate),
  ];
}

/** What sets the chosen sounds beside others, or makes new ones of them. */
function useCopyActions({ all, withAll, chosen }: Selection): readonly Action[] {
  const open = useOpenSound();
  const { duplicate, vary } = useCopies();
  const shared = { group: GROUP, enabled: chosen !== null };
  const variation = async (preset: PresetRow) => {
    const made = await vary(preset);
    // Several strips have no place on the bench: what was made of them is in the list.
    if (!isStrips(made.content)) open(made);
  };
  return [
    {
      id: "compare",
      title: compareTitle(all),
      group: GROUP,
      keys: ["C"],
      enabled: canCompare(all),
      run: () => openCompare(all),
    },
    { ...shared, id: "duplicate", title: "Duplicate", keys: ["U"], run: () => withAll((all) => orSay(duplicate(all))) },
    {
      ...shared,
      id: "variation",
      title: "Make a variation",
      keys: ["V"],
      run: () => chosen && orSay(variation(chosen)),
    },
  ];
}

/** All that can be done to how the chosen sounds are filed. */
export function useFilingActions(selection: Selection): readonly Action[] {
  return [
    ...useLibraryHistory(),
    ...useCardActions(selection),
    ...useCopyActions(selection),
    findsCopies(selection),
    ...TIDYING,
  ];
}
