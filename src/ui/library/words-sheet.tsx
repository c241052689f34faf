"use client";

import { keepPreviousData, useQueries } from "@tanstack/react-query";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { MOST_NARROWING } from "@/core/documents/limits";
import { WORD_LISTS, WORD_LIST_NAMES, type WordList, longestWord } from "@/core/library/word-lists";
import { counted, formatCount } from "@/core/names/count";
import { inNameOrder } from "@/core/names/order";
import { Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { INPUT } from "../kit/field";
import { Scroll } from "../kit/scroll";
import { Segments } from "../kit/segments";
import { Sheet } from "../kit/sheet";
import { Tick } from "../kit/tick";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, useFiling } from "./filing";

type Order = "count" | "name";

interface Word {
  readonly value: string;
  readonly n: number;
}

/** Words that come in one go; more are found by how they begin. */
const MOST = 2000;

/** The words of a list with how often each is said; one that stands in several fields counts for all of them. */
function useWordList(list: WordList, begun: string, order: Order) {
  const pages = useQueries({
    queries: WORD_LISTS[list].fields.map((field) => {
      const asked = { field, order, limit: MOST, ...(begun === "" ? {} : { begun }) };
      return {
        queryKey: [...KEYS.presets, "values", asked],
        queryFn: () => api.listValues(asked),
        placeholderData: keepPreviousData,
      };
    }),
  });
  const counts = new Map<string, number>();
  for (const { data } of pages)
    for (const { value, n } of data?.values ?? []) counts.set(value, (counts.get(value) ?? 0) + n);
  const words = [...counts].map(([value, n]): Word => ({ value, n }));
  const byName = (a: Word, b: Word) => inNameOrder(a.value, b.value);
  return {
    words: words.toSorted((a, b) => (order === "count" ? b.n - a.n : 0) || byName(a, b)),
    hasMore: pages.some(({ data }) => data?.more === true),
    isPending: pages.some(({ isPending }) => isPending),
  };
}

/** The words that cards are filed by, list by list: renamed, merged and taken away on every card at once, with one undo. */
export function WordsSheet() {
  const [list, setList] = useState<WordList>("tags");
  const [begun, setBegun] = useState("");
  const [order, setOrder] = useState<Order>("count");
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const { words, hasMore, isPending } = useWordList(list, begun, order);
  const chosen = [...ticked];
  const show = (next: WordList) => {
    setList(next);
    setTicked(new Set());
    setBegun("");
  };
  const tick = (word: string, on: boolean) =>
    setTicked(new Set(on ? [...ticked, word] : chosen.filter((one) => one !== word)));
  return (
    <Sheet open onClose={closeSheet} title="Words in order" className="w-[620px]">
      <Segments
        label="Which words"
        value={list}
        onChange={show}
        options={WORD_LIST_NAMES.map((name) => ({ value: name, label: WORD_LISTS[name].title }))}
      />
      <div className="flex items-center gap-2">
        <input
          autoFocus
          aria-label={`Find among ${WORD_LISTS[list].title.toLowerCase()}`}
          placeholder="How it begins"
          maxLength={MOST_NARROWING}
          value={begun}
          onChange={(event) => setBegun(event.target.value)}
          className={`${INPUT} min-w-0 flex-1`}
        />
        <Segments
          small
          label="Order"
          value={order}
          onChange={setOrder}
          options={[
            { value: "count", label: "Count" },
            { value: "name", label: "Name" },
          ]}
        />
      </div>
      <Scroll label={WORD_LISTS[list].title} className="max-h-[360px] min-h-[120px] border-edge border-y">
        {isPending && <Loading what="Counting" />}
        <ul>
          {words.map(({ value, n }) => (
            <li key={value} className="flex min-h-[28px] items-center gap-2 border-rule border-b">
              <Tick label={value} on={ticked.has(value)} onChange={(on) => tick(value, on)} />
              <span className="min-w-0 flex-1 truncate">{value}</span>
              <span className="num-small text-soft">{formatCount(n)}</span>
            </li>
          ))}
        </ul>
        {!isPending && words.length === 0 && (
          <p className="py-3 text-soft">{begun === "" ? "No card says any." : "None begins so."}</p>
        )}
        {hasMore && <p className="py-1 text-small text-soft">There are more: type how it begins.</p>}
      </Scroll>
      <Change key={`${list} ${chosen.join("\n")}`} list={list} chosen={chosen} onDone={() => setTicked(new Set())} />
    </Sheet>
  );
}

interface ChangeProps {
  readonly list: WordList;
  readonly chosen: readonly string[];
  readonly onDone: () => void;
}

/** What becomes of the words that are ticked. */
function Change({ list, chosen, onDone }: ChangeProps) {
  const { done } = useFiling();
  const { refusal, attempt } = useAttempt();
  const [name, setName] = useState(chosen[0] ?? "");
  const [busy, setBusy] = useState(false);
  const { one } = WORD_LISTS[list];
  const to = name.trim();
  const isMerge = chosen.length > 1;
  const canCall = to !== "" && (isMerge || to !== chosen[0]);
  const change = (next: string | null) =>
    attempt(async () => {
      setBusy(true);
      try {
        const { changed, ofPacks } = await api.changeWords({ list, from: [...chosen], to: next });
        const left = ofPacks === 0 ? "" : `; ${formatCount(ofPacks)} of packs left as they are`;
        await done(`${counted(changed, "card")} changed${left}`);
        onDone();
      } finally {
        setBusy(false);
      }
    });
  return (
    <form
      className="grid gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (canCall && !busy) void change(to);
      }}
    >
      {chosen.length > 0 && (
        <div className="flex items-center gap-2">
          <label className="flex min-w-0 flex-1 items-center gap-2">
            <span className="flex-none text-soft">{isMerge ? `Merge ${chosen.length} into` : "Call it"}</span>
            <input
              aria-label={isMerge ? "Merge into" : `New name of the ${one}`}
              value={name}
              maxLength={longestWord(list)}
              onChange={(event) => setName(event.target.value)}
              className={`${INPUT} min-w-0 flex-1`}
            />
          </label>
          <Button type="submit" disabled={!canCall || busy}>
            {isMerge ? "Merge" : "Rename"}
          </Button>
          <Button disabled={busy} onClick={() => void change(null)}>
            Take away
          </Button>
        </div>
      )}
      {refusal}
      <div className="flex items-center gap-2">
        <p className="text-small text-soft">
          {chosen.length === 0
            ? `Tick a ${one} to rename it or take it away; several to merge them.`
            : `${chosen.length} ticked`}
        </p>
        <Button main className="ml-auto" onClick={closeSheet}>
          Close
        </Button>
      </div>
    </form>
  );
}
