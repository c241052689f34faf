"use client";

import { keepPreviousData, useInfiniteQuery } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useMemo, useRef, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PresetQuery } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { foundTags } from "@/core/library/found-tags";
import { type Sought, nearestFirst } from "@/core/library/nearest";
import { saveChain } from "@/core/presets/save";
import * as gestures from "@/core/recall/gestures";
import { orSay } from "../../kit/say";
import { useLastList } from "../../library/last-list";
import type { Bench } from "../use-bench";

export type FittingSort = "nearest" | NonNullable<PresetQuery["sort"]>;

/** So many are put in the order of their nearness; of more the first in the order of the library. */
const PAGE = 200;

/** The words and the order of the panel; both stay while one goes from plugin to plugin. */
export function useFittingWords() {
  const { sort: last } = useLastList();
  const [words, setWords] = useState("");
  const [sort, setSort] = useState<FittingSort>(last ?? "nearest");
  return { words, setWords, sort, setSort };
}

/** The chain that a slot is in, and the strip that this is on. */
type Around = Pick<Bench, "strip" | "chain">;

function soughtOf(bench: Around, slot: gestures.Slot): Sought {
  const content = gestures.contentOfSlot(slot, bench.chain) ?? saveChain(bench.chain);
  return { place: bench.strip?.look.name ?? "", content, measured: foundTags(content) };
}

/** The presets that fit a slot. In what order they came they stay, whatever is loaded, until other words or another order are asked for. */
export function useFitting(bench: Around, slot: gestures.Slot, { words, sort }: ReturnType<typeof useFittingWords>) {
  const plugin = gestures.pluginOf(slot);
  const query: PresetQuery = {
    ...(plugin ? { kind: "plugin", model: plugin.model } : { kind: "chain" }),
    ...(words.trim() === "" ? {} : { q: words.trim() }),
    ...(sort === "nearest" ? {} : { sort }),
  };
  const pages = useInfiniteQuery({
    queryKey: [...KEYS.presets, "fitting", query],
    queryFn: ({ pageParam }) => api.listPresets({ ...query, limit: PAGE, ...(pageParam ? { after: pageParam } : {}) }),
    initialPageParam: null as string | null,
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
  const asked = JSON.stringify([query, sort]);
  const order = useRef<{ readonly asked: string; readonly ids: Map<string, number> }>({ asked: "", ids: new Map() });
  const arrange = useEffectEvent((some: readonly PresetRow[]) =>
    sort === "nearest" ? nearestFirst(some, soughtOf(bench, slot)) : some,
  );
  const fits = plugin?.model ?? "";
  const [found, setFound] = useState<{ readonly fits: string; readonly rows: readonly PresetRow[] }>({
    fits,
    rows: [],
  });
  const { data, isPlaceholderData } = pages;
  useEffect(() => {
    if (!data || isPlaceholderData) return;
    const listed = data.pages.flatMap((page) => page.items);
    if (order.current.asked !== asked) order.current = { asked, ids: new Map() };
    const { ids } = order.current;
    for (const { id } of arrange(listed.filter((row) => !ids.has(row.id)))) ids.set(id, ids.size);
    setFound({ fits, rows: listed.toSorted((a, b) => (ids.get(a.id) ?? 0) - (ids.get(b.id) ?? 0)) });
  }, [data, isPlaceholderData, asked, fits]);
  // Those of the slot before fit no other: nothing of them may be loaded while the next are on their way.
  return { pages, rows: found.fits === fits ? found.rows : [] };
}

/** In milliseconds: who stays so long with a sound is not passing by. */
const KEPT_AFTER = 8000;

/** Counts as used what one stays with, or stops at; not what one only passes by. */
export function usePassing(counts: boolean) {
  const passing = useRef<{ readonly preset: string; readonly timer: ReturnType<typeof setTimeout> } | null>(null);
  const keep = () => {
    const { current } = passing;
    if (!current) return;
    clearTimeout(current.timer);
    passing.current = null;
    orSay(api.keepUse(current.preset));
  };
  useEffect(() => () => keep(), []);
  return useMemo(
    () => (preset: string) => {
      if (passing.current) clearTimeout(passing.current.timer);
      passing.current = counts ? { preset, timer: setTimeout(keep, KEPT_AFTER) } : null;
    },
    [counts],
  );
}
