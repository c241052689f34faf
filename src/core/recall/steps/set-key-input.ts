import equal from "fast-deep-equal";
import { z } from "zod";
import { KeyInputSchema } from "../../chains/schema";
import { findProcessor, mapProcessor } from "../../chains/tree";
import { fail, ok } from "../../result";
import { onNode, step } from "./base";
import { chainStepKind, nameIn, onChain, setOrDrop } from "./chain-step";

export const SetKeyInputSchema = z.strictObject({
  ...step("setKeyInput", KeyInputSchema.nullable()),
  ...onChain,
  ...onNode,
});
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
