import { z } from "zod";
import { onNode, step } from "./base";
import { chainStepKind, nameIn, onChain } from "./chain-step";
import { PlaceSchema, putNode, takeNode } from "./place";

export const MoveNodeSchema = z.strictObject({ ...step("moveNode", PlaceSchema), ...onChain, ...onNode });
type MoveNode = Readonly<z.infer<typeof MoveNodeSchema>>;

/** A node from one place of its chain to another. */
export const MOVE_NODE = chainStepKind<MoveNode>({
  apply: (chain, { node: key, from, to }) => {
    const taken = takeNode(chain, key, from);
    return taken.ok ? putNode(taken.value.rest, taken.value.node, to) : taken;
  },
  words: ({ node }, chain) => `move ${nameIn(chain, node)}`,
});
