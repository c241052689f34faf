"use client";

import { type Action, useActions } from "../actions/actions";
import { printSheet } from "../keeping/print-sheet";
import { archiveSound, saveSound } from "../keeping/keep-sound";
import type { Recall } from "../plan/recall";
import { recallActions } from "../plan/recall-actions";
import { useOpenSound } from "./open-sound";
import type { Selection } from "./selection";
import { useFilingActions } from "./use-filing-actions";
import type { Listing } from "./use-listing";

const group = "Library";

/** To go through the list and to choose in it: by keys only. */
function choosing({ total }: Listing, { move, chooseAll, letGo }: Selection): readonly Action[] {
  return [
    { id: "down", title: "Next sound", group, keys: ["ArrowDown"], keyOnly: true, run: () => move(1) },
    { id: "up", title: "Previous sound", group, keys: ["ArrowUp"], keyOnly: true, run: () => move(-1) },
    { id: "page-down", title: "A page down", group, keys: ["PageDown"], keyOnly: true, run: () => move(10) },
    { id: "page-up", title: "A page up", group, keys: ["PageUp"], keyOnly: true, run: () => move(-10) },
    {
      id: "extend-down",
      title: "Choose the next sound too",
      group,
      keys: ["Shift+ArrowDown"],
      keyOnly: true,
      run: () => move(1, "upTo"),
    },
    {
      id: "extend-up",
      title: "Choose the previous sound too",
      group,
      keys: ["Shift+ArrowUp"],
      keyOnly: true,
      run: () => move(-1, "upTo"),
    },
    {
      id: "all",
      title: "Choose all that are listed",
      group,
      keys: ["Ctrl+A"],
      keyOnly: true,
      run: chooseAll,
    },
    { id: "let-go", title: "Choose only one", group, keys: ["Escape"], keyOnly: true, run: letGo },
    { id: "first", title: "First sound", group, keys: ["Home"], keyOnly: true, run: () => move(-total) },
    { id: "last", title: "Last sound", group, keys: ["End"], keyOnly: true, run: () => move(total) },
  ];
}

/** All that keys and the field do in the library. */
export function useLibraryActions(listing: Listing, selection: Selection, recall: Recall, tempo: number): void {
  const open = useOpenSound();
  const { chosen, withChosen } = selection;
  const has = chosen !== null || listing.isOnItsWay;
  useActions(useFilingActions(selection));
  useActions([
    ...choosing(listing, selection),
    ...recallActions(recall, { group, has, withChosen }),
    {
      id: "open",
      title: "Open on the bench",
      group,
      keys: ["B"],
      enabled: has,
      run: () => withChosen(open),
    },
    {
      id: "save-file",
      title: "Save the sound as a file",
      group,
      enabled: has,
      run: () => withChosen(saveSound),
    },
    { id: "archive-sound", title: "Archive the sound", group, enabled: has, run: () => withChosen(archiveSound) },
    {
      id: "recall-sheet",
      title: "Recall sheet of the sound, as PDF",
      group,
      enabled: has,
      run: () => withChosen(({ id, card }) => printSheet({ preset: id, tempo }, card.name)),
    },
  ]);
}
