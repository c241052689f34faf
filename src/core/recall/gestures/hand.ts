import { type Chain, EMPTY_CHAIN } from "../../chains/chain";
import { type Strip, chainAt } from "../../strips/strip";

/** One movement of the hand on a chain of a strip, as steps. `mint` makes ids of steps and keys of nodes. */
export interface Hand {
  readonly strip: Strip;
  readonly mint: () => string;
  /** The layer of an instrument whose effects are in hand; the strip's inserts where there is none. */
  readonly layer?: string | undefined;
}

export const chainOf = ({ strip, layer }: Hand): Chain => chainAt(strip, layer) ?? EMPTY_CHAIN;

/** What every step on the chain in hand has. */
export const base = ({ strip, mint, layer }: Hand) => ({
  id: mint(),
  strip: strip.id,
  ...(layer === undefined ? {} : { layer }),
});
