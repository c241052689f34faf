import type { z } from "zod";
import { chainStepKind, nameIn } from "./chain-step";
import { putNode, takeNode } from "./place";
import type { MoveNodeSchema } from "./schemas";

type MoveNode = Readonly<z.infer<typeof MoveNodeSchema>>;

/** A node from one place of its chain to another. */
export const MOVE_NODE = chainStepKind<MoveNode>({
  apply: (chain, { node: key, from, to }) => {
    const taken = takeNode(chain, key, from);
    return taken.ok ? putNode(taken.value.rest, taken.value.node, to) : taken;
  },
  words: ({ node }, chain) => `move ${nameIn(chain, node)}`,
});
