"use client";

import { useEffect, useEffectEvent } from "react";
import type { Chain } from "@/core/chains/chain";
import type { Strip } from "@/core/strips/strip";
import { hear, hearAll, offerB } from "../listening/listening";
import type { Sound } from "../listening/state";
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

/** A is what stands on the bench; B, where nothing else is, what it was saved as. */
export function useHearing({ base, saved, savedName, ...around }: Heard): void {
  const { name, tempo, strip, place } = around;
  const { project, layer } = place;
  const source = strip?.source;
  const sound = useEffectEvent((chain: Chain, called: string) => soundOf(chain, { ...around, name: called }));
  useEffect(() => {
    hear(sound(base, name));
  }, [base, name, tempo, source, layer]);
  const savedChain = saved?.chain ?? null;
  useEffect(() => {
    offerB(savedChain && sound(savedChain, savedName));
  }, [savedChain, savedName, tempo, source, layer]);
  // What was compared with and what was heard alone belonged to this bench.
  useEffect(
    () => () => {
      offerB(null);
      hearAll();
    },
    [project, place.strip, layer],
  );
}
