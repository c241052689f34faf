"use client";

import { useEffect, useEffectEvent } from "react";
import type { Chain } from "@/core/chains/chain";
import type { Strip } from "@/core/strips/strip";
import { type Sound, hear, setDifference, setSolo } from "../listening/listening";
import { soundAt } from "../listening/strip-sound";
import type { Place } from "./use-place";

interface Around {
  readonly name: string;
  readonly tempo: number;
  readonly strip: Strip | null;
  readonly place: Place;
}

/** A chain of this bench, as it is heard. */
export const soundOf = (chain: Chain, { place: { layer }, ...around }: Around): Sound =>
  soundAt(chain, { ...around, layer });

interface Heard extends Around {
  readonly base: Chain;
  readonly saved: { readonly chain: Chain } | null;
  readonly savedName: string;
}

/** A is what stands on the bench, B what it was saved as. */
export function useHearing({ base, saved, savedName, ...around }: Heard): void {
  const { name, tempo, strip, place } = around;
  const { layer } = place;
  const source = strip?.source;
  const put = useEffectEvent((side: "a" | "b", chain: Chain, called: string) =>
    hear(side, soundOf(chain, { ...around, name: called })),
  );
  useEffect(() => {
    put("a", base, name);
  }, [base, name, tempo, source, layer]);
  const savedChain = saved?.chain ?? null;
  useEffect(() => {
    if (savedChain) put("b", savedChain, savedName);
  }, [savedChain, savedName, tempo, source, layer]);
  // What was heard alone belonged to this bench.
  useEffect(
    () => () => {
      setSolo(null);
      setDifference(null);
    },
    [],
  );
}
