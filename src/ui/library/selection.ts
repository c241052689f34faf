"use client";

import { useEffect, useMemo, useState } from "react";
import type { PresetRow } from "@/contracts/records";
import { MOST_AT_ONCE } from "@/core/documents/limits";
import { orSay } from "../kit/say";
import { hearPreset } from "../listening/hear-preset";
import { hear } from "../listening/listening";
import { type Act, rowsChosen, useStretch } from "./stretch";
import type { Listing } from "./use-listing";

export type Choose = "only" | "also" | "upTo";

/** The chosen line, and what else is chosen beside it. */
export interface Selection {
  readonly chosen: PresetRow | null;
  /** The line that the hand has chosen; null while it is the first because none was. */
  readonly picked: string | null;
  /** Does something with what is chosen in the list that was asked for, once that has come: words are typed faster. */
  readonly withChosen: (act: (preset: PresetRow) => void) => void;
  /** How many are chosen, also while some of them are on their way. */
  readonly count: number;
  /** What the next action is for, in the order of the list. */
  readonly all: readonly PresetRow[];
  /** Does something with all that is chosen; where a stretch is on its way, with all of that, once it has come. */
  readonly withAll: (act: Act) => void;
  /** Something is to be done with a stretch that is on its way: what is typed is for that. */
  readonly isWaiting: boolean;
  readonly isChosen: (id: string) => boolean;
  readonly choose: (id: string, how?: Choose) => void;
  readonly move: (by: number, how?: "only" | "upTo") => void;
  readonly chooseAll: () => void;
  /** Back to the one line; false where there is no more than that. */
  readonly letGo: () => boolean;
}

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

/** All that is chosen: which, how many, and what is done with them. */
function useAll(
  listing: Listing,
  { coming, kept, withThose, renewed }: ReturnType<typeof useStretch>,
  { id, others }: { readonly id: string | null; readonly others: ReadonlySet<string> },
): Pick<Selection, "all" | "count" | "isChosen" | "withAll"> {
  const { placeOf, updatedAt } = listing;
  const all = useMemo(
    () => rowsChosen(listing, kept, (some) => some === id || others.has(some)),
    [listing, kept, id, others],
  );
  const isComing = (place: number): boolean => coming !== null && place >= coming.low && place <= coming.high;
  /** What of it is not in the list as it is here may be older by now. */
  const isOld = kept !== null && kept.at !== updatedAt && all.some((row) => placeOf(row.id) < 0);
  return {
    all,
    count: coming ? coming.high - coming.low + 1 : all.length,
    isChosen: (some) => some === id || others.has(some) || isComing(placeOf(some)),
    withAll: (act) => {
      if (withThose(act)) return;
      if (isOld) renewed(all, act);
      else act(all);
    },
  };
}

export function useSelection(listing: Listing): Selection {
  const [id, setId] = useState<string | null>(null);
  const [others, setOthers] = useState<ReadonlySet<string>>(new Set());
  /** From where a stretch of the list is chosen. */
  const [anchor, setAnchor] = useState<string | null>(null);
  const stretch = useStretch(listing, (rows) => setOthers(new Set(rows.map((row) => row.id))));
  const { total, at, placeOf, hold, load } = listing;
  const chosen = chosenOf(listing, id);
  const chosenId = chosen?.id ?? null;
  const several = useAll(listing, stretch, { id: chosenId, others });
  const leave = (gone: string) => {
    const kept = [...others, chosen?.id ?? gone].filter((one) => one !== gone);
    setOthers(new Set(kept));
    setId(kept[0] ?? gone);
  };
  const goTo = (next: string) => {
    stretch.forget();
    setId(next);
    setAnchor(next);
    setOthers(new Set());
  };
  const stretchTo = (next: string, place: number) => {
    const from = anchor ?? chosenId ?? next;
    setAnchor(from);
    stretch.choose(Math.max(0, placeOf(from)), Math.max(0, place));
    setId(next);
  };
  const choose: Selection["choose"] = (next, how = "only") => {
    if (how === "also" && several.isChosen(next) && others.size > 0) return leave(next);
    if (how === "upTo") return stretchTo(next, placeOf(next));
    const beside = how === "also" ? [...others, chosenId ?? next] : [];
    goTo(next);
    setOthers(new Set(beside));
    hold([...beside, next].map(placeOf).filter((place) => place >= 0));
  };
  const move: Selection["move"] = (by, how = "only") => {
    if (total === 0) return;
    const place = Math.min(total - 1, Math.max(0, (chosen ? placeOf(chosen.id) : 0) + by));
    const next = at(place);
    if (next) return choose(next.id, how);
    hold([place]);
    orSay(load(place, place).then(([row]) => row && (how === "upTo" ? stretchTo : goTo)(row.id, place)));
  };
  return {
    chosen,
    picked: id,
    withChosen: (act) => withMeant(listing, id, act),
    ...several,
    isWaiting: stretch.isWaiting,
    choose,
    move,
    chooseAll: () => total > 0 && stretch.choose(0, Math.min(total, MOST_AT_ONCE) - 1),
    letGo: () => {
      const had = others.size > 1;
      stretch.forget();
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
    if (content && name !== undefined) return hearPreset(hear, content, { name, tempo });
  }, [content, name, tempo]);
}
