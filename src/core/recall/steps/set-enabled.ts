import type { z } from "zod";
import { findLane, findNode, mapLane, mapNode } from "../../chains/tree";
import { fail, ok } from "../../result";
import { chainStepKind, nameIn } from "./chain-step";
import type { SetEnabledSchema } from "./schemas";

type SetEnabled = Readonly<z.infer<typeof SetEnabledSchema>>;

/** Switches a plugin, a section or a lane on or off. */
export const SET_ENABLED = chainStepKind<SetEnabled>({
  apply: (chain, { node: key, from, to }) => {
    const found = findNode(chain, key)?.node ?? findLane(chain, key);
    if (!found || !("enabled" in found)) return fail({ why: "missing", what: "switch", key });
    if (found.enabled !== from) return fail({ why: "changed", what: "the value" });
    return ok(
      "type" in found
        ? mapNode(chain, key, (node) => ("enabled" in node ? { ...node, enabled: to } : node))
        : mapLane(chain, key, (lane) => ({ ...lane, enabled: to })),
    );
  },
  words: ({ node, to }, chain) => `switch ${nameIn(chain, node)} ${to ? "on" : "off"}`,
  isOneValue: () => true,
});
