import type { z } from "zod";
import type { ChainNode } from "../../chains/chain";
import { findNode, mapNode } from "../../chains/tree";
import { fail, ok } from "../../result";
import { chainStepKind, nameIn, setOrDrop } from "./chain-step";
import type { SetLabelSchema } from "./schemas";

type SetLabel = Readonly<z.infer<typeof SetLabelSchema>>;

/** The name that a node has of its own: a section always has one, a plugin may, a split (undefined) never. */
export function labelOf(node: ChainNode | undefined): string | null | undefined {
  if (!node || node.type === "split") return undefined;
  return node.type === "section" ? node.name : (node.label ?? null);
}

/** Names a plugin, whose model's name shows where it has none, or a section, which always has one. */
export const SET_LABEL = chainStepKind<SetLabel>({
  apply: (chain, { node: key, from, to }) => {
    const node = findNode(chain, key)?.node;
    const standing = labelOf(node);
    if (!node || standing === undefined) return fail({ why: "missing", what: "plugin", key });
    if (standing !== from) return fail({ why: "changed", what: "the value" });
    if (node.type === "processor") return ok(mapNode(chain, key, () => setOrDrop(node, "label", to)));
    return to === null || node.type === "split"
      ? fail({ why: "nameless" })
      : ok(mapNode(chain, key, () => ({ ...node, name: to })));
  },
  words: ({ node, to }, chain) => `name ${nameIn(chain, node)} “${to ?? "as its model"}”`,
  isOneValue: () => true,
});
