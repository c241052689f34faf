"use client";

import { type RefObject, Suspense, lazy } from "react";
import type { PresetQuery } from "@/contracts/library";
import { Key } from "../kit/bits";
import { counted, formatCount } from "@/core/names/count";
import type { Recall } from "../plan/recall";
import type { Column } from "./columns";
import { ListHead } from "./list-head";
import { NothingFound, NothingOwn, Said } from "./nothing";
import { useOpenSound } from "./open-sound";
import { PresetList } from "./preset-list";
import type { Selection } from "./selection";
import type { useFilters } from "./use-library";
import type { Listing } from "./use-listing";

// Not there at first, and fetched when it is.
const Narrowed = lazy(() => import("./narrowed").then((m) => ({ default: m.Narrowed })));

const StripsFound = lazy(() => import("./strips-found").then((m) => ({ default: m.StripsFound })));

interface Props {
  readonly query: PresetQuery;
  readonly columns: readonly Column[];
  readonly listing: Listing;
  readonly selection: Selection;
  readonly tempo: number;
  readonly recall: Recall;
  readonly listRef: RefObject<HTMLDivElement | null>;
  readonly onSet: ReturnType<typeof useFilters>["set"];
  readonly onWords: (words: string) => void;
}

/** "12 of 5,200 sounds": where the list stands, and how many it has. */
const standsAt = (place: number, total: number): string =>
  place < 0 || total < 2 ? counted(total, "sound") : `${formatCount(place + 1)} of ${counted(total, "sound")}`;

/** The list with its headings, what is to be said of it, and how many there are. */
export function ListPane({ query, columns, listing, selection, tempo, recall, listRef, onSet, onWords }: Props) {
  const { total, first } = listing;
  const { chosen } = selection;
  const filtered = Boolean(query.folder) || Boolean(query.only);
  const narrowed = Boolean(query.q) || filtered;
  const open = useOpenSound();
  return (
    <section aria-label="Library" className="flex h-full min-w-0 flex-col">
      <h1 className="sr-only">Library</h1>
      <ListHead query={query} order={first?.order} columns={columns} onSet={onSet} />
      <Suspense>{filtered && <Narrowed query={query} onSet={onSet} />}</Suspense>
      <Said page={first} />
      <NothingOwn page={first} narrowed={narrowed} />
      {total > 0 ? (
        <PresetList
          listing={listing}
          chosen={chosen?.id ?? null}
          isChosen={selection.isChosen}
          columns={columns}
          folder={query.folder}
          tempo={tempo}
          onChoose={selection.choose}
          onOpen={open}
          listRef={listRef}
        />
      ) : (
        <NothingFound
          loading={listing.isPending}
          failed={listing.error?.message}
          narrowed={narrowed}
          onAll={() => {
            onWords("");
            onSet({ folder: undefined, only: undefined });
          }}
        />
      )}
      <Suspense>{query.q && !filtered && <StripsFound words={query.q} recall={recall} />}</Suspense>
      <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
        {selection.count > 1
          ? `${formatCount(selection.count)} of ${formatCount(total)} chosen`
          : standsAt(listing.placeOf(chosen?.id ?? ""), total)}{" "}
        · <Key>Space</Key> listen <Key>Enter</Key> apply {recall.targetWords ?? ""} <Key>B</Key> bench <Key>/</Key> find
      </p>
    </section>
  );
}
