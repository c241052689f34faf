import type { Processor } from "../chains/chain";
import { processorsOf } from "../chains/tree";
import { layersOf } from "../strips/layers";
import { type Content, chainOf, isStrips } from "./preset";

/** The plugins by whose shapes a preset is known in a list: all of its own, of several strips the first of each. */
export function shapesOf(content: Content): readonly Processor[] {
  if (!isStrips(content)) return processorsOf(chainOf(content));
  return content.strips.flatMap(({ id, source, inserts }) => {
    const [first] = [
      ...(source ? layersOf({ source }).map(({ instrument }) => instrument) : []),
      ...(inserts ? processorsOf(inserts) : []),
    ];
    // Keys are told apart within one strip only.
    return first ? [{ ...first, key: `${id} ${first.key}` }] : [];
  });
}
