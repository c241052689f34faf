"use client";

import { useSearchParams } from "next/navigation";
import { type RefObject, useEffect, useEffectEvent, useRef, useState } from "react";
import * as api from "@/clients/api";
import type { PresetQuery } from "@/contracts/library";
import { addressed, writeAddress } from "./in-address";
import type { Selection } from "./selection";
import type { Listing } from "./use-listing";

interface Sought {
  readonly query: PresetQuery;
  /** Whether the screen was told last only what was written here: that names what is chosen, or was then. */
  readonly isOwn: RefObject<boolean>;
}

/**
 * Keeps the chosen sound in the address, and finds the one that the address names in the list, wherever that is. True while it
 * is on its way: nothing is chosen then, so that nothing else is heard.
 */
export function useSought(
  { hold, load }: Listing,
  { query, isOwn }: Sought,
  { chosen, picked, choose }: Selection,
): boolean {
  const wanted = useSearchParams().get("sound");
  const list = JSON.stringify(query);
  /** What was looked for, found or not. */
  const [settled, setSettled] = useState<string | null>(null);
  const [seeking, setSeeking] = useState<string | null>(null);
  /** The sound of the address that is dealt with: the hand has gone on from it, or it was looked for. */
  const dealt = useRef<string | null>(null);
  /** Counts what the hand has chosen: what is looked for is not put in its place later. */
  const turn = useRef(0);
  const isChosen = picked !== null && chosen?.id === picked;
  useEffect(() => {
    turn.current += 1;
    if (picked !== null) dealt.current = addressed("sound");
  }, [picked]);
  useEffect(() => {
    const said = addressed("sound");
    // What an address that was gone back to names comes before what was chosen in the list before it.
    if (!isChosen || (said !== null && said !== dealt.current)) return;
    dealt.current = picked;
    writeAddress({ sound: picked });
  }, [isChosen, picked]);
  const seek = useEffectEvent(async (id: string, isAwaited: () => boolean) => {
    const { q, only, folder, sort } = query;
    const { place } = await api.placeOf({ id, q, only, folder, sort });
    const [row] = place === null ? [] : await load(place, place);
    if (!isAwaited() || place === null || row?.id !== id) return;
    choose(id);
    hold([place]);
  });
  const isMeant = useEffectEvent((id: string) => addressed("sound") === id && chosen?.id !== id);
  useEffect(() => {
    const isSought = !isOwn.current && wanted !== null && isMeant(wanted);
    // Also where the hand has gone on meanwhile: what was looked for before is not awaited any more.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setSeeking(isSought ? wanted : null);
    if (!isSought) return;
    let isHere = true;
    const mine = turn.current;
    void seek(wanted, () => isHere && turn.current === mine)
      .catch(() => undefined)
      .finally(() => {
        if (!isHere) return;
        dealt.current = wanted;
        setSettled(wanted);
        setSeeking(null);
      });
    return () => {
      isHere = false;
    };
    // The words of the field follow the address one drawing later: it is looked for in each list that is asked for.
  }, [wanted, list, isOwn]);
  return seeking !== null || (picked === null && wanted !== null && settled !== wanted);
}
