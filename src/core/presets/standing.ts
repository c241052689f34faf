import type { Chain, PresetRef, Processor } from "../chains/chain";
import { type Difference, differencesOf, processorDifferences } from "../chains/differences";
import { processorsOf } from "../chains/tree";
import { asStrip } from "./as-strip";
import type { Content } from "./preset";
import { layersOf } from "../strips/layers";
import type { Strip } from "../strips/strip";

/*
 * What a sound came from and how far it is from that: one truth, shown the same in the ledger, on the bench, on each tile and on
 * the card.
 */

type Sounding = Pick<Strip, "inserts" | "source">;

/** All that sounds in a strip as one chain: its instruments, each with what is inside it, and its inserts behind them. */
export function soundingChain({ inserts, source }: Sounding): Chain {
  const played = layersOf({ source }).flatMap(({ instrument, effects }) => [instrument, ...effects.nodes]);
  return played.length === 0 ? inserts : { ...inserts, nodes: [...played, ...inserts.nodes] };
}

/** What sounds in a preset, as one chain; what it does not hold is taken from the strip that it is compared with. */
function soundingIn(content: Content, { inserts, source }: Sounding): Chain | null {
  const saved = asStrip(content);
  if (!saved) return null;
  return soundingChain({ inserts: saved.inserts ?? inserts, source: saved.source ?? source });
}

/** The preset that all of a strip's sound came from: as a whole, or as the only plugin or instrument that there is. Null where none. */
export function referenceOf({ inserts, source }: Sounding): PresetRef | null {
  if (inserts.from) return inserts.from;
  const [only, ...others] = processorsOf(soundingChain({ inserts, source }));
  return others.length === 0 ? (only?.from ?? null) : null;
}

/** All that a strip's sound differs by from the preset that it came from, in the order of the signal. */
export function differencesFrom(strip: Sounding, content: Content): readonly Difference[] {
  const saved = soundingIn(content, strip);
  return saved ? differencesOf(saved, soundingChain(strip)) : [];
}

/** Whether a strip sounds, and its sound is saved nowhere: it came from no preset, or is not as in that. `saved`: what that holds. */
export function isUnsaved(strip: Sounding, saved: Content | null): boolean {
  if (processorsOf(soundingChain(strip)).length === 0) return false;
  return !saved || referenceOf(strip) === null || differencesFrom(strip, saved).length > 0;
}

/** What a plugin may be as it was saved: within the whole, and as a preset of its own. */
interface SavedAs {
  readonly partner: Processor | null;
  readonly own: Processor | null;
}

/**
 * In how many values a plugin differs from how it was saved, be that within the whole or by itself; 0 where it is as one of the two,
 * null where it is saved in neither.
 */
export function unsavedIn(now: Processor, { partner, own }: SavedAs): number | null {
  const counts = [partner, own]
    .filter((saved) => saved?.model === now.model)
    .map((saved) => (saved ? processorDifferences(saved, now).length : 0));
  return counts.length === 0 ? null : Math.min(...counts);
}
