import equal from "fast-deep-equal";
import type { z } from "zod";
import { nodeName } from "../../chains/chain";
import { completeNode } from "../../chains/complete";
import { findMisplaced, findNode, fromsIn, mapNode } from "../../chains/tree";
import { fail, ok } from "../../result";
import { chainStepKind } from "./chain-step";
import type { SetNodeSchema } from "./schemas";

type SetNode = Readonly<z.infer<typeof SetNodeSchema>>;

/** One node in the place of another of the same key. */
export const SET_NODE = chainStepKind<SetNode>({
  apply: (chain, { node, from, to }) => {
    const found = findNode(chain, node);
    if (!found || !equal(found.node, from)) return fail({ why: "changed", what: "the plugin" });
    const misplaced = findMisplaced(chain, to, found.place.within);
    return misplaced ? fail({ why: "misplaced", text: misplaced }) : ok(mapNode(chain, node, () => to));
  },
  words: ({ from, to }) => `replace ${nodeName(from)} by ${nodeName(to)}`,
  brings: ({ to }) => fromsIn([to]),
  complete: (given) => ({ ...given, to: completeNode(given.to) }),
});
