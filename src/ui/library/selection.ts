"use client";

import { useEffect, useState } from "react";
import type { PresetRow } from "@/contracts/records";
import { orSay } from "../kit/say";
import { hearPreset } from "../listening/hear-preset";
import type { Listing } from "./use-listing";

export type Choose = "only" | "also" | "upTo";

/** As many as can be filed in one go. */
const MOST_CHOSEN = 5000;

/** The chosen line, and what else is chosen beside it. */
export interface Selection {
  readonly chosen: PresetRow | null;
  /** Does something with what is chosen in the list that was asked for, once that has come: words are typed faster. */
  readonly withChosen: (act: (preset: PresetRow) => void) => void;
  /** What the next action is for, in the order of the list. */
  readonly all: readonly PresetRow[];
  readonly isChosen: (id: string) => boolean;
  readonly choose: (id: string, how?: Choose) => void;
  readonly move: (by: number, how?: "only" | "upTo") => void;
  readonly chooseAll: () => void;
  /** Back to the one line; false where there is no more than that. */
  readonly letGo: () => boolean;
}

/** Places of a stretch so close together that none of its pages is left out. */
const placesOnEachPage = (low: number, high: number): readonly number[] => [
  low,
  high,
  ...Array.from({ length: Math.ceil((high - low) / 30) }, (_, n) => Math.min(high, low + n * 30)),
];

const chosenOf = ({ at, placeOf }: Listing, id: string | null): PresetRow | null =>
  (id === null ? undefined : at(placeOf(id))) ?? at(0) ?? null;

/** Does something with what is chosen; where the list is still on its way, with what will be chosen in it. */
function withMeant(listing: Listing, id: string | null, act: (preset: PresetRow) => void): void {
  const chosen = chosenOf(listing, id);
  if (!listing.isOnItsWay) return chosen ? act(chosen) : undefined;
  orSay(
    listing.settle().then((rows) => {
      const [first] = rows;
      const meant = rows.find((row) => row.id === id) ?? first;
      if (meant) act(meant);
    }),
  );
}

export function useSelection(listing: Listing): Selection {
  const [id, setId] = useState<string | null>(null);
  const [others, setOthers] = useState<ReadonlySet<string>>(new Set());
  /** From where a stretch of the list is chosen. */
  const [anchor, setAnchor] = useState<string | null>(null);
  const { here, total, at, placeOf, hold, load } = listing;
  const chosen = chosenOf(listing, id);
  const isChosen = (some: string) => some === chosen?.id || others.has(some);
  const leave = (gone: string) => {
    const kept = [...others, chosen?.id ?? gone].filter((one) => one !== gone);
    setOthers(new Set(kept));
    setId(kept[0] ?? gone);
  };
  /** A stretch from one place to another, fetched where it is not here yet. */
  const stretch = (from: number, to: number) => {
    const [low, high] = from < to ? [from, to] : [to, from];
    const take = (rows: readonly PresetRow[]) => setOthers(new Set(rows.map((row) => row.id)));
    const rows = Array.from({ length: high - low + 1 }, (_, n) => at(low + n));
    hold(placesOnEachPage(low, high));
    if (rows.every((row) => row !== undefined)) take(rows);
    else orSay(load(low, high).then(take));
  };
  const goTo = (next: string, beside: readonly string[] = []) => {
    setId(next);
    setAnchor(next);
    setOthers(new Set(beside));
  };
  const choose: Selection["choose"] = (next, how = "only") => {
    if (how === "also" && isChosen(next) && others.size > 0) return leave(next);
    const current = chosen?.id ?? next;
    if (how === "upTo") {
      stretch(Math.max(0, placeOf(anchor ?? current)), Math.max(0, placeOf(next)));
      return setId(next);
    }
    const beside = how === "also" ? [...others, current] : [];
    goTo(next, beside);
    hold([...beside, next].map(placeOf).filter((place) => place >= 0));
  };
  const move: Selection["move"] = (by, how = "only") => {
    if (total === 0) return;
    const place = Math.min(total - 1, Math.max(0, (chosen ? placeOf(chosen.id) : 0) + by));
    const next = at(place);
    if (next) return choose(next.id, how);
    hold([place]);
    orSay(load(place, place).then(([row]) => row && goTo(row.id)));
  };
  return {
    chosen,
    withChosen: (act) => withMeant(listing, id, act),
    all: here.filter((row) => isChosen(row.id)),
    isChosen,
    choose,
    move,
    chooseAll: () => total > 0 && stretch(0, Math.min(total, MOST_CHOSEN) - 1),
    letGo: () => {
      const had = others.size > 1;
      setOthers(new Set());
      setAnchor(null);
      return had;
    },
  };
}

/** The chosen line is what side A plays. */
export function useHearChosen(chosen: PresetRow | null, tempo: number): void {
  const content = chosen?.content;
  const name = chosen?.card.name;
  useEffect(() => {
    if (content && name !== undefined) return hearPreset("a", content, { name, tempo });
  }, [content, name, tempo]);
}
