import type { Processor } from "../chains/chain";
import { processorsOf } from "../chains/tree";
import { layersOf } from "../strips/layers";
import type { SavedStrip } from "../strips/strip";
import { type Content, chainOf } from "./preset";

/** Every plugin that stands on a strip, with its instruments. */
export const processorsOn = ({ source, inserts }: SavedStrip): readonly Processor[] => [
  ...(source ? layersOf({ source }) : []).flatMap((l) => [l.instrument, ...processorsOf(l.effects)]),
  ...(inserts ? processorsOf(inserts) : []),
];

/** Every plugin of a preset, on whichever of its strips. */
export function processorsIn(content: Content): readonly Processor[] {
  if (content.kind === "plugin" || content.kind === "chain") return processorsOf(chainOf(content));
  return (content.kind === "strip" ? [content.strip] : content.strips).flatMap(processorsOn);
}
