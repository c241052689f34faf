"use client";

import { usePathname, useRouter } from "next/navigation";
import { Suspense, lazy, useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { OWN } from "@/core/packs/pack";
import type { PresetPage, PresetQuery } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { completionsOf } from "@/core/search/complete";
import { cutQuery } from "@/core/search/query";
import { orSay, say } from "../kit/say";
import { useActions } from "../actions/actions";
import { useFinder } from "../actions/finder";
import { Empty, Key, Loading, Opening } from "../kit/bits";
import { Button } from "../kit/button";
import { formatCount } from "../kit/count";
import { Panels } from "../kit/panels";
import { useRecall } from "../plan/recall";
import { CardPane } from "./card-pane";
import { Filters } from "./filters";
import { useFiling, useLibrarySheet } from "./filing";
import { useFilingActions } from "./use-filing-actions";
import { rememberList } from "./last-list";
import { PresetList } from "./preset-list";
import { useHearChosen, useSelection } from "./selection";
import { type Filter, useFilters } from "./use-library";
import { useListing } from "./use-listing";
import { useTempo } from "./use-tempo";

// Not there at first, and fetched when they are.
const LibrarySheets = lazy(() => import("./sheets").then((m) => ({ default: m.LibrarySheets })));
const Narrowed = lazy(() => import("./narrowed").then((m) => ({ default: m.Narrowed })));

const countOf = (total: number): string => `${formatCount(total)} sound${total === 1 ? "" : "s"}`;

const isFiltered = ({ folder, only }: PresetQuery): boolean => Boolean(folder) || Boolean(only);

export function Library() {
  const router = useRouter();
  const { query: addressed, set } = useFilters();
  const { words, type } = useWords(addressed.q ?? "", set);
  const query = { ...addressed, q: words === "" ? undefined : words };
  const listing = useListing(query);
  const { total, first } = listing;
  useEffect(() => rememberList(addressed.sort), [addressed.sort]);
  const tempo = useTempo();
  const selection = useSelection(listing);
  const { chosen, choose, move, withChosen } = selection;
  const sheet = useLibrarySheet((l) => l.open);
  useHearChosen(chosen, tempo);
  const recall = useRecall();
  const { change } = useFiling();
  const list = useRef<HTMLDivElement>(null);
  useLibraryFinder({ words, onWords: type, facets: first?.facets, onLeave: () => list.current?.focus() });
  const open = (preset: PresetRow) => router.push(`/bench?preset=${preset.id}`);
  const group = "Library";
  const has = chosen !== null || listing.isOnItsWay;
  useActions(useFilingActions(selection));
  useActions([
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
      run: selection.chooseAll,
    },
    { id: "let-go", title: "Choose only one", group, keys: ["Escape"], keyOnly: true, run: selection.letGo },
    { id: "first", title: "First sound", group, keys: ["Home"], keyOnly: true, run: () => move(-total) },
    { id: "last", title: "Last sound", group, keys: ["End"], keyOnly: true, run: () => move(total) },
    {
      id: "apply",
      title: `Apply ${recall.targetWords ?? "to a project"}`,
      group,
      keys: ["Enter"],
      enabled: has,
      run: () => withChosen(recall.apply),
    },
    {
      id: "plan",
      title: "Show the plan before applying",
      group,
      keys: ["Shift+Enter"],
      enabled: has && recall.targetWords !== null,
      run: () => withChosen(recall.plan),
    },
    { id: "open", title: "Open on the bench", group, keys: ["B"], enabled: has, run: () => withChosen(open) },
  ]);
  const filtered = isFiltered(query);
  const narrowed = Boolean(query.q) || filtered;
  return (
    <>
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
                onMove={(folder) => orSay(change(selection.all, () => ({ folder }), "Move"))}
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
              <section aria-label="Library" className="flex h-full min-w-0 flex-col">
                <h1 className="sr-only">Library</h1>
                <ListHead query={query} onSort={(sort) => set({ sort })} />
                <Suspense>{filtered && <Narrowed query={query} onSet={set} />}</Suspense>
                <Said page={first} />
                <NothingOwn page={first} narrowed={narrowed} />
                {total > 0 ? (
                  <PresetList
                    listing={listing}
                    chosen={chosen?.id ?? null}
                    isChosen={selection.isChosen}
                    tempo={tempo}
                    onChoose={choose}
                    onOpen={open}
                    listRef={list}
                  />
                ) : (
                  <NothingFound
                    loading={listing.isPending}
                    failed={listing.error?.message}
                    narrowed={narrowed}
                    onAll={() => {
                      type("");
                      set({ folder: undefined, only: undefined });
                    }}
                  />
                )}
                <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
                  {selection.all.length > 1
                    ? `${formatCount(selection.all.length)} of ${formatCount(total)} chosen`
                    : countOf(total)}{" "}
                  · <Key>Space</Key> listen <Key>Enter</Key> apply {recall.targetWords ?? ""} <Key>B</Key> bench{" "}
                  <Key>/</Key> find
                </p>
              </section>
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

/**
 * The words that are looked for: at once as they are typed, and in the address with them. What a screen is told of its
 * address is slower than a hand that types; where it changes, the window's own address is read, which is not.
 */
function useWords(
  inAddress: string,
  set: (changes: Partial<Record<Filter, string | undefined>>, remember?: boolean) => void,
) {
  const [words, setWords] = useState(inAddress);
  const [home] = useState(usePathname());
  useEffect(() => {
    // On the way to another screen the list stays as it is.
    if (window.location.pathname !== home) return;
    // Not before now: the window's address changes after a screen is drawn for it.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setWords(new URLSearchParams(window.location.search).get("q") ?? "");
  }, [inAddress, home]);
  const type = useCallback(
    (typed: string) => {
      const next = cutQuery(typed);
      if (next !== typed) say(`Only the first ${formatCount(next.length)} letters are looked for.`);
      setWords(next);
      set({ q: next === "" ? undefined : next }, false);
    },
    [set],
  );
  return { words, type };
}

interface LentField {
  readonly words: string;
  readonly onWords: (words: string) => void;
  readonly facets: PresetPage["facets"] | undefined;
  readonly onLeave: () => void;
}

/** Lends the field on top to the list: what is typed there filters as one types. */
function useLibraryFinder({ words, onWords, facets, onLeave }: LentField) {
  const leave = useRef(onLeave);
  useEffect(() => {
    leave.current = onLeave;
  });
  useLayoutEffect(() => {
    useFinder.setState({
      finder: {
        words,
        onWords,
        onLeave: () => leave.current(),
        hint: "Find by name, tag, artist:, has:, rating:",
        completions: completionsOf(words, facets ?? {}),
      },
    });
  }, [words, onWords, facets]);
  useEffect(() => () => useFinder.setState({ finder: null }), []);
}

interface HeadProps {
  readonly query: PresetQuery;
  readonly onSort: (sort: string | undefined) => void;
}

/** The headings of the list; the last says in which order it stands. */
function ListHead({ query, onSort }: HeadProps) {
  return (
    <div className="grid h-[30px] flex-none grid-cols-[18px_minmax(0,1fr)_214px_80px] items-center gap-[10px] border-edge border-b px-[14px] text-small text-soft">
      <span />
      <span>Name</span>
      <span>Shape</span>
      <select
        aria-label="Order of the list"
        value={!query.q && query.sort === "used" ? "" : (query.sort ?? "")}
        onChange={({ target }) => onSort(target.value || undefined)}
        className="-mr-1 justify-self-end rounded-card bg-transparent text-right hover:text-ink"
      >
        <option value="">{query.q ? "Best" : "Used"}</option>
        {query.q && <option value="used">Used</option>}
        <option value="saved">Saved</option>
        <option value="name">Name</option>
      </select>
    </div>
  );
}

/** Where all that is listed came with a pack, what to do first. */
function NothingOwn({ page, narrowed }: { readonly page: PresetPage | undefined; readonly narrowed: boolean }) {
  const router = useRouter();
  if (narrowed || !page || page.total === 0 || page.facets.pack?.some(({ value }) => value === OWN)) return null;
  return (
    <div role="status" className="flex flex-none items-center gap-3 border-edge border-b px-[14px] py-2">
      <p className="flex-1">
        Nothing of your own yet. What is listed comes with Diathesis: use it, or build a sound and save it.
      </p>
      <Button main onClick={() => router.push("/bench?new=1")}>
        Start a new sound
      </Button>
    </div>
  );
}

/** What of the search was read otherwise, or not at all. */
function Said({ page }: { readonly page: PresetPage | undefined }) {
  const lines = [
    ...(page?.unclear ?? []),
    ...(page?.corrected ?? []).map(({ typed, read }) => `Nothing begins with “${typed}”; read as “${read}”.`),
  ];
  if (lines.length === 0) return null;
  return (
    <ul role="status" className="flex-none border-edit border-l-[3px] bg-edit-tint px-3 py-1 text-small">
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}

interface NothingProps {
  readonly loading: boolean;
  readonly failed: string | undefined;
  readonly narrowed: boolean;
  readonly onAll: () => void;
}

function NothingFound({ loading, failed, narrowed, onAll }: NothingProps) {
  const router = useRouter();
  if (loading)
    return (
      <div className="flex-1">
        <Loading what="Opening the library" />
      </div>
    );
  if (failed)
    return (
      <Empty title="The library could not be read" className="flex-1">
        <p role="alert">{failed}</p>
      </Empty>
    );
  if (narrowed)
    return (
      <Empty title="No sound matches" className="flex-1">
        <p>
          Every word must begin a word of the name, a tag, the purpose, a plugin inside or the origin. A field narrows
          it: artist:heron, tag:warm, rating:4+.
        </p>
        <Button onClick={onAll}>Show all sounds</Button>
      </Empty>
    );
  return (
    <Empty title="No sounds yet" className="flex-1">
      <p>Build one on the bench and save it; it is then found here, by name or by shape.</p>
      <Button main onClick={() => router.push("/bench?new=1")}>
        Start a new sound
      </Button>
    </Empty>
  );
}
