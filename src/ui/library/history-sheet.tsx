"use client";

import { useInfiniteQuery, useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useDeferredValue, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { LogPage } from "@/contracts/library";
import { MOST_NARROWING } from "@/core/documents/limits";
import { counted } from "@/core/names/count";
import { quoteValue } from "@/core/search/written";
import { Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { formatTime } from "../kit/dates";
import { INPUT } from "../kit/field";
import { say } from "../kit/say";
import { Scroll } from "../kit/scroll";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { dayWords, daysOf, windowWords } from "../projects/done-when";
import { closeSheet, inFilingLine, refetchWalked, wordsOfWalk } from "./filing";
import { withProgress } from "./long-work";

type Entry = LogPage["items"][number];

/** Entries that come in one go. */
const PAGE = 60;

/** All that was done, page by page as it is asked for. */
function useLog(q: string) {
  const asked = useInfiniteQuery({
    queryKey: [...KEYS.libraryHistory, "log", q],
    queryFn: ({ pageParam }) =>
      api.listLog({ limit: PAGE, ...(q === "" ? {} : { q }), ...(pageParam === null ? {} : { before: pageParam }) }),
    initialPageParam: null as number | null,
    getNextPageParam: ({ items, more }) => (more ? (items.at(-1)?.n ?? null) : null),
    placeholderData: (before) => before,
  });
  return { ...asked, entries: asked.data?.pages.flatMap(({ items }) => items) ?? [] };
}

/** Everything that was done to the library: when, in which window, to what; each taken back where nothing later stands on it. */
export function HistorySheet() {
  const queries = useQueryClient();
  const [typed, setTyped] = useState("");
  const q = useDeferredValue(typed.trim());
  const { entries, isPending, hasNextPage, isFetchingNextPage, fetchNextPage } = useLog(q);
  const { refusal, busy, attempt } = useAttempt();
  const walk = (direction: "undo" | "redo", n: number) =>
    attempt(async () => {
      const { walked, presets } = await inFilingLine(() =>
        withProgress(direction === "undo" ? "Undo" : "Redo", () => api.walkFiling(direction, n)),
      );
      await refetchWalked(queries, presets);
      say(wordsOfWalk(direction, walked));
    });
  return (
    <Sheet open onClose={closeSheet} title="History of the library" className="w-[860px]">
      <input
        autoFocus
        aria-label="Find in the history"
        placeholder="What was done, or the name of what it concerned"
        value={typed}
        maxLength={MOST_NARROWING}
        onChange={(event) => setTyped(event.target.value)}
        className={INPUT}
      />
      <Scroll label="What was done" className="h-[400px] max-h-[calc(100vh-330px)] border-edge border-y">
        {isPending && <Loading what="Looking back" />}
        {!isPending && entries.length === 0 && (
          <p className="py-3 text-soft">
            {q === "" ? "Nothing was filed, renamed or thrown away yet." : "Nothing that was done says this."}
          </p>
        )}
        {daysOf(entries).map(({ day, entries: some }) => (
          <section key={some[0]?.n} aria-label={dayWords(day)}>
            <h3 className="h2 sticky top-0 bg-card py-1">{dayWords(day)}</h3>
            <ul>
              {some.map((entry) => (
                <Line key={entry.n} entry={entry} busy={busy} onWalk={(way) => void walk(way, entry.n)} />
              ))}
            </ul>
          </section>
        ))}
        {hasNextPage && (
          <Button small className="my-2" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
            Earlier
          </Button>
        )}
      </Scroll>
      {refusal}
      <div className="flex items-center gap-2">
        <p className="text-small text-soft">
          What is taken back here stands in the history, too, and can be done again.
        </p>
        <Button main className="ml-auto" onClick={closeSheet}>
          Close
        </Button>
      </div>
    </Sheet>
  );
}

interface LineProps {
  readonly entry: Entry;
  readonly busy: boolean;
  readonly onWalk: (direction: "undo" | "redo") => void;
}

function Line({ entry, busy, onWalk }: LineProps) {
  const { at, label, window, of, standing } = entry;
  const isStanding = standing === "done" || standing === "doneForGood";
  return (
    <li className="flex min-h-[32px] items-center gap-3 border-rule border-b">
      <span className="num-small w-[42px] flex-none text-soft">{formatTime(at)}</span>
      <span className="grid min-w-0 flex-1">
        <span className={`truncate ${isStanding ? "" : "text-soft"}`} title={label}>
          {label}
        </span>
        <Concerned entry={entry} />
      </span>
      <span className="w-[190px] flex-none truncate text-small text-soft">{windowWords(window)}</span>
      <span className="flex w-[150px] flex-none items-center justify-end gap-2 text-small text-soft">
        {standing === "done" && (
          <Button small disabled={busy} aria-label={`Take back: ${label}`} onClick={() => onWalk("undo")}>
            Take back
          </Button>
        )}
        {standing === "undone" && (
          <>
            taken back
            <Button small disabled={busy} aria-label={`Do again: ${label}`} onClick={() => onWalk("redo")}>
              Do again
            </Button>
          </>
        )}
        {standing === "undoneForGood" && "taken back"}
        {standing === "doneForGood" && "stays for good"}
        {of !== null && <span className="sr-only">of an earlier entry</span>}
      </span>
    </li>
  );
}

/** The things that a change concerned, where its words do not name the only one; a sound leads to itself. */
function Concerned({ entry: { label, count, some } }: { readonly entry: Entry }) {
  const router = useRouter();
  const [only] = some;
  if (only === undefined || (count === 1 && label.includes(only.name))) return null;
  const left = count - some.length;
  return (
    <span className="flex min-w-0 gap-1 text-small text-soft">
      {some.map(({ kind, id, name }, at) => (
        <span key={`${kind} ${id}`} className="min-w-0 truncate">
          {kind === "preset" ? (
            <button
              type="button"
              className="hover:text-live"
              onClick={() => {
                closeSheet();
                router.push(`/library?q=${encodeURIComponent(`name:${quoteValue(name)}`)}`);
              }}
            >
              {name}
            </button>
          ) : (
            name
          )}
          {at < some.length - 1 && ","}
        </span>
      ))}
      {left > 0 && <span className="flex-none">and {counted(left, "other")}</span>}
    </span>
  );
}
