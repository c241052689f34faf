import type { PresetRef } from "../../chains/chain";
import { type Content, type Strips, isStrips, originIn } from "../../presets/preset";
import type { Strip } from "../../strips/strip";
import type { Step } from "../steps";
import { follow } from "./whole";

/** What something was kept as. */
export interface Kept {
  readonly from: PresetRef;
  readonly mint: () => string;
}

/**
 * After saving several strips as one, each of them is a strip of that; one that has an origin of its own came along. `kept`: what was
 * saved, in the same order, under the keys that it has there.
 */
export const followSet = (
  { strips: given }: Strips,
  kept: Content,
  strips: readonly Strip[],
  { from, mint }: Kept,
): readonly Step[] =>
  strips.flatMap((strip) => {
    const at = given.findIndex(({ id }) => id === strip.id);
    const saved = isStrips(kept) ? kept.strips[at] : undefined;
    if (!saved?.inserts) return [];
    return follow({ strip, mint }, originIn(strip.inserts, { ...from, strip: saved.id }));
  });
