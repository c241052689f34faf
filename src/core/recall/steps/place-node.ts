import equal from "fast-deep-equal";
import type { z } from "zod";
import { nodeName } from "../../chains/chain";
import { completeNode } from "../../chains/complete";
import { fromsIn } from "../../chains/tree";
import { fail, ok } from "../../result";
import { chainStepKind } from "./chain-step";
import { putNode, takeNode } from "./place";
import type { PlaceNodeSchema } from "./schemas";

type PlaceNode = Readonly<z.infer<typeof PlaceNodeSchema>>;

/** Puts a node in (from nowhere) or takes it out (to nowhere), with all that it holds. */
export const PLACE_NODE = chainStepKind<PlaceNode>({
  apply: (chain, { node: key, from, to }) => {
    let rest = chain;
    if (from) {
      const taken = takeNode(chain, key, from);
      if (!taken.ok) return taken;
      if (!equal(taken.value.node, from.node)) return fail({ why: "changed", what: "the plugin" });
      rest = taken.value.rest;
    }
    if (!to) return ok(rest);
    return to.node.key === key ? putNode(rest, to.node, to) : fail({ why: "mismatch", key, brings: to.node.key });
  },
  words: ({ from, to }) => {
    if (to) return `add ${nodeName(to.node)}`;
    return from ? `take out ${nodeName(from.node)}` : "nothing changes";
  },
  brings: ({ to }) => (to ? fromsIn([to.node]) : []),
  complete: (given) => (given.to ? { ...given, to: { ...given.to, node: completeNode(given.to.node) } } : given),
});
