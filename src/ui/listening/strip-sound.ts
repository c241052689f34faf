import { type Chain, EMPTY_CHAIN } from "@/core/chains/chain";
import { hearInstrument } from "@/core/strips/hear-instrument";
import { asStrip } from "@/core/presets/as-strip";
import { type Content, chainOf } from "@/core/presets/preset";
import type { Strip } from "@/core/strips/strip";
import { beatsPerMinute } from "@/core/units/quantities";
import type { Sound } from "./state";

interface Around {
  readonly name: string;
  readonly tempo: number;
  readonly strip: Pick<Strip, "source"> | null;
  /** The layer of the strip's instrument that the chain stands in; null for the strip's inserts. */
  readonly layer?: string | null;
}

/** A chain as it is heard where it stands: behind the strip's source, or within a layer of its instrument. */
export function soundAt(chain: Chain, { name, tempo, strip, layer = null }: Around): Sound {
  const source = strip?.source;
  if (source?.type !== "layers" || source.layers.length === 0) return { name, tempo, chain };
  const playing = (layers: typeof source.layers) => hearInstrument({ ...source, layers }, beatsPerMinute(tempo));
  if (layer === null) return { name, tempo, chain, instrument: playing(source.layers) };
  const layers = source.layers.map((l) => (l.key === layer ? { ...l, effects: chain } : l));
  return { name, tempo, chain: EMPTY_CHAIN, instrument: playing(layers) };
}

/** A strip as it stands: its instrument, where it has one, through its inserts. */
export const soundOfStrip = (strip: Strip, tempo: number, name: string = strip.look.name): Sound =>
  soundAt(strip.inserts, { name, tempo, strip });

/** A preset by itself: an instrument plays its phrase, effects are heard on the material. */
export function soundOfContent(content: Content, tempo: number, name: string): Sound {
  const { source, inserts = EMPTY_CHAIN } = asStrip(content) ?? { inserts: chainOf(content) };
  return soundAt(inserts, { name, tempo, strip: source ? { source } : null });
}
