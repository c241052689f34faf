"use client";

import { useSearchParams } from "next/navigation";
import { Suspense, lazy, useEffect, useRef } from "react";
import { pathsOf } from "@/core/library/folders";
import { Opening } from "../kit/bits";
import { Panels } from "../kit/panels";
import { orSay } from "../kit/say";
import { useRecall } from "../plan/recall";
import { CardPane } from "./card-pane";
import { columnsIn } from "./columns";
import { HEARING, useFiling, useLibrarySheet, wordsInto } from "./filing";
import { Filters } from "./filters";
import { rememberList } from "./last-list";
import { ListPane } from "./list-pane";
import { useHearChosen, useSelection } from "./selection";
import { useAlsoIn } from "./use-also-in";
import { useFilters, useFolders } from "./use-library";
import { useLibraryActions } from "./use-library-actions";
import { useSought } from "./use-sought";
import { useListing } from "./use-listing";
import { useTold } from "./use-told";
import { useTempo } from "./use-tempo";
import { useLibraryFinder, useWords } from "./use-words";

// Not there at first, and fetched when they are.
const LibrarySheets = lazy(() => import("./sheets").then((m) => ({ default: m.LibrarySheets })));

/** Folders and filters, the list, the card of what is chosen. */
export function Library() {
  const isOwn = useTold();
  const { query: addressed, columns, set } = useFilters();
  const { words, type } = useWords(addressed.q ?? "", set);
  const query = { ...addressed, q: words === "" ? undefined : words };
  const listing = useListing(query);
  const { total, first } = listing;
  useEffect(() => rememberList({ sort: addressed.sort, columns }), [addressed.sort, columns]);
  const comparison = useSearchParams().get("compare");
  useEffect(() => {
    if (comparison !== null) orSay(import("./open-comparison").then((m) => m.openComparison(comparison)));
  }, [comparison]);
  const tempo = useTempo();
  const selection = useSelection(listing);
  const isSought = useSought(listing, { query, isOwn }, selection);
  const chosen = isSought ? null : selection.chosen;
  const sheet = useLibrarySheet((l) => l.open);
  // Sheets that are there to listen put others in its place, until they are closed.
  useHearChosen(sheet && HEARING.has(sheet.sheet) ? null : chosen, tempo);
  const recall = useRecall();
  const { change } = useFiling();
  const fileAlso = useAlsoIn();
  const folders = useFolders().data?.folders ?? [];
  const list = useRef<HTMLDivElement>(null);
  useLibraryFinder({ words, onWords: type, facets: first?.facets, onLeave: () => list.current?.focus() });
  useLibraryActions(listing, selection, recall, tempo);
  return (
    <>
      {selection.isWaiting && <Opening />}
      <Suspense fallback={<Opening />}>{sheet && <LibrarySheets />}</Suspense>
      <Panels
        id="library"
        panes={[
          {
            id: "filters",
            label: "folders",
            size: 180,
            min: 130,
            children: (
              <Filters
                query={query}
                total={first ? total : undefined}
                facets={first?.facets}
                onMove={(folder, also) => {
                  const path = folder === null ? null : (pathsOf(folders).get(folder) ?? "");
                  const behind = wordsInto(path);
                  if (also && folder !== null && path !== null)
                    return selection.withAll((all) => orSay(fileAlso(all, { id: folder, path })));
                  selection.withAll((all) => orSay(change(all, () => ({ folder }), { verb: "Move", behind })));
                }}
                onSet={set}
                onWords={type}
              />
            ),
          },
          {
            id: "list",
            label: "the list",
            min: 480,
            children: (
              <ListPane
                query={query}
                columns={columnsIn(columns, query.sort)}
                listing={listing}
                selection={selection}
                tempo={tempo}
                recall={recall}
                listRef={list}
                onSet={set}
                onWords={type}
              />
            ),
          },
          {
            id: "card",
            label: "the card",
            size: 336,
            min: 260,
            children: chosen ? (
              <CardPane
                key={chosen.id}
                preset={chosen}
                tempo={tempo}
                onFolder={(folder) => set({ folder: folder ?? undefined })}
              />
            ) : (
              <div className="h-full bg-card" />
            ),
          },
        ]}
      />
    </>
  );
}
