import equal from "fast-deep-equal";
import type { z } from "zod";
import { fail, ok } from "../../result";
import { chainStepKind, setOrDrop } from "./chain-step";
import type { SetFromSchema } from "./schemas";

type SetFrom = Readonly<z.infer<typeof SetFromSchema>>;

/** Which preset a chain goes by; null for none. */
export const SET_FROM = chainStepKind<SetFrom>({
  apply: (chain, { from, to }) =>
    equal(chain.from ?? null, from) ? ok(setOrDrop(chain, "from", to)) : fail({ why: "changed", what: "the origin" }),
  words: ({ to }) => (to ? `now follows ${to.name}, version ${to.version}` : "follows no preset any more"),
});
