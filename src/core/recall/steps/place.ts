import type { z } from "zod";
import type { Chain, ChainNode } from "../../chains/chain";
import {
  type Place,
  findList,
  findMisplaced,
  findNode,
  isTooLong,
  keysIn,
  withNode,
  withoutNode,
} from "../../chains/tree";
import equal from "fast-deep-equal";
import { fail, ok } from "../../result";
import type { PlaceSchema } from "./schemas";
import type { Change } from "./step-kind";

export type PlaceInStep = Readonly<z.infer<typeof PlaceSchema>>;

export const placeOf = ({ after, within }: PlaceInStep): Place => ({ after, within: within ?? null });
export const placeInStep = ({ after, within }: Place): PlaceInStep => ({
  after,
  ...(within === null ? {} : { within }),
});

/** A node out of its chain, where it stands where it is said to. */
export function takeNode(chain: Chain, key: string, from: PlaceInStep): Change<{ node: ChainNode; rest: Chain }> {
  const found = findNode(chain, key);
  if (!found) return fail({ why: "missing", what: "plugin", key });
  if (!equal(found.place, placeOf(from))) return fail({ why: "elsewhere", what: "plugin" });
  return ok({ node: found.node, rest: withoutNode(chain, key) });
}

/** A node into a chain, where it may stand there. */
export function putNode(chain: Chain, node: ChainNode, to: PlaceInStep): Change<Chain> {
  const at = placeOf(to);
  if (isTooLong([...chain.nodes, node])) return fail({ why: "tooMany", what: "plugins" });
  const used = new Set(chain.nodes.flatMap(keysIn));
  const twice = keysIn(node).find((key) => used.has(key));
  if (twice !== undefined) return fail({ why: "taken", what: "key", key: twice });
  const misplaced = findMisplaced(chain, node, at.within);
  if (misplaced) return fail({ why: "misplaced", text: misplaced });
  if (at.after !== null && !findList(chain, at.within)?.some((n) => n.key === at.after))
    return fail({ why: "missing", what: "plugin", key: at.after });
  return ok(withNode(chain, node, at));
}
