"use client";

import { useEffect, useRef, useState } from "react";
import type { PresetRow } from "@/contracts/records";
import { orSay } from "../kit/say";
import { hearPreset } from "../listening/hear-preset";
import { hear } from "../listening/listening";
import type { Listing } from "./use-listing";

export type Choose = "only" | "also" | "upTo";

/** As many as can be filed in one go. */
const MOST_CHOSEN = 5000;

/** The chosen line, and what else is chosen beside it. */
export interface Selection {
  readonly chosen: PresetRow | null;
  /** The line that the hand has chosen; null while it is the first because none was. */
  readonly picked: string | null;
  /** Does something with what is chosen in the list that was asked for, once that has come: words are typed faster. */
  readonly withChosen: (act: (preset: PresetRow) => void) => void;
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

type Act = (presets: readonly PresetRow[]) => void;

/**
 * Chooses a stretch from one place of the list to another, and fetches what of it is not here yet; what is to be done with it
 * waits until it has come.
 */
function useStretch({ at, hold, load }: Listing, take: Act) {
  const coming = useRef<Promise<readonly PresetRow[]> | null>(null);
  const [isWaiting, setWaiting] = useState(false);
  const fetchAll = (low: number, high: number) => {
    const fetched = load(low, high);
    coming.current = fetched;
    const isAwaited = () => coming.current === fetched;
    const taken = fetched.then((rows) => {
      if (isAwaited()) take(rows);
    });
    orSay(
      taken.finally(() => {
        if (isAwaited()) coming.current = null;
      }),
    );
  };
  return {
    isWaiting,
    choose: (from: number, to: number) => {
      const [low, high] = from < to ? [from, to] : [to, from];
      const rows = Array.from({ length: high - low + 1 }, (_, n) => at(low + n));
      hold(placesOnEachPage(low, high));
      coming.current = null;
      if (rows.every((row) => row !== undefined)) take(rows);
      else fetchAll(low, high);
    },
    /** Something else was chosen: that is not put away by what comes late. */
    forget: () => {
      coming.current = null;
    },
    /** False where none is on its way: then nothing is done here. */
    withThose: (act: Act): boolean => {
      if (!coming.current) return false;
      setWaiting(true);
      orSay(coming.current.then(act).finally(() => setWaiting(false)));
      return true;
    },
  };
}

export function useSelection(listing: Listing): Selection {
  const [id, setId] = useState<string | null>(null);
  const [others, setOthers] = useState<ReadonlySet<string>>(new Set());
  /** From where a stretch of the list is chosen. */
  const [anchor, setAnchor] = useState<string | null>(null);
  const stretch = useStretch(listing, (rows) => setOthers(new Set(rows.map((row) => row.id))));
  const { here, total, at, placeOf, hold, load } = listing;
  const chosen = chosenOf(listing, id);
  const isChosen = (some: string): boolean => some === chosen?.id || others.has(some);
  const all = here.filter((row) => isChosen(row.id));
  const leave = (gone: string) => {
    const kept = [...others, chosen?.id ?? gone].filter((one) => one !== gone);
    setOthers(new Set(kept));
    setId(kept[0] ?? gone);
  };
  const goTo = (next: string, beside: readonly string[] = []) => {
    stretch.forget();
    setId(next);
    setAnchor(next);
    setOthers(new Set(beside));
  };
  const choose: Selection["choose"] = (next, how = "only") => {
    if (how === "also" && isChosen(next) && others.size > 0) return leave(next);
    const current = chosen?.id ?? next;
    if (how === "upTo") {
      setAnchor(anchor ?? current);
      stretch.choose(Math.max(0, placeOf(anchor ?? current)), Math.max(0, placeOf(next)));
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
    picked: id,
    withChosen: (act) => withMeant(listing, id, act),
    all,
    withAll: (act) => stretch.withThose(act) || act(all),
    isWaiting: stretch.isWaiting,
    isChosen,
    choose,
    move,
    chooseAll: () => total > 0 && stretch.choose(0, Math.min(total, MOST_CHOSEN) - 1),
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
