import equal from "fast-deep-equal";
import type { z } from "zod";
import { type ChainNode, nodeName } from "../../chains/chain";
import { differenceWords } from "../../chains/difference-words";
import { processorDifferences } from "../../chains/differences";
import { counted } from "../../names/count";
import { completeNode } from "../../chains/complete";
import { findMisplaced, findNode, fromsIn, mapNode } from "../../chains/tree";
import { fail, ok } from "../../result";
import { chainStepKind } from "./chain-step";
import type { SetNodeSchema } from "./schemas";

type SetNode = Readonly<z.infer<typeof SetNodeSchema>>;

/** Values that are said; of more only how many. */
const MOST_VALUES = 3;

/** The same plugin set otherwise, in words: "Catch: Threshold −14.0 dB → −16.0 dB"; null where it is another. */
function changedWords(from: ChainNode, to: ChainNode): string | null {
  if (from.type !== "processor" || to.type !== "processor" || from.model !== to.model) return null;
  const chain = { nodes: [to], macros: [] };
  const changes = processorDifferences(from, to).map((difference) => differenceWords(difference, chain));
  if (changes.length === 0) return `${nodeName(to)} goes by “${to.from?.name ?? nodeName(to)}”`;
  const said = changes.slice(0, MOST_VALUES).map(({ what, from: was, to: is }) => `${what} ${was} → ${is}`);
  const more = changes.length - said.length;
  return `${nodeName(to)}: ${said.join(", ")}${more > 0 ? ` and ${counted(more, "more value", "more values")}` : ""}`;
}

/** One node in the place of another of the same key. */
export const SET_NODE = chainStepKind<SetNode>({
  apply: (chain, { node, from, to }) => {
    const found = findNode(chain, node);
    if (!found || !equal(found.node, from)) return fail({ why: "changed", what: "the plugin" });
    const misplaced = findMisplaced(chain, to, found.place.within);
    return misplaced ? fail({ why: "misplaced", text: misplaced }) : ok(mapNode(chain, node, () => to));
  },
  words: ({ from, to }) => changedWords(from, to) ?? `replace ${nodeName(from)} by ${nodeName(to)}`,
  brings: ({ to }) => fromsIn([to]),
  complete: (given) => ({ ...given, to: completeNode(given.to) }),
});
