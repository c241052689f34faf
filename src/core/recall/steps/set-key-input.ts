import equal from "fast-deep-equal";
import type { z } from "zod";
import { findProcessor, mapProcessor } from "../../chains/tree";
import { fail, ok } from "../../result";
import { chainStepKind, nameIn, setOrDrop } from "./chain-step";
import type { SetKeyInputSchema } from "./schemas";

type SetKeyInput = Readonly<z.infer<typeof SetKeyInputSchema>>;

/** What opens or turns down a plugin in place of its own sound; null for that. */
export const SET_KEY_INPUT = chainStepKind<SetKeyInput>({
  apply: (chain, { node, from, to }) => {
    const processor = findProcessor(chain, node);
    if (!processor) return fail({ why: "missing", what: "plugin", key: node });
    if (!equal(processor.keyInput ?? null, from)) return fail({ why: "changed", what: "the value" });
    return ok(mapProcessor(chain, node, (p) => setOrDrop(p, "keyInput", to)));
  },
  words: ({ node, to }, chain) => {
    const name = nameIn(chain, node);
    return to ? `${name} is keyed from outside` : `${name} hears itself again`;
  },
});
