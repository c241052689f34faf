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
  words: ({ from, to }) => {
    if (!to) return "follows no preset any more";
    const own = `now follows ${to.name}, version ${to.version}`;
    if (!to.along || equal(to.along, from?.along)) return own;
    const set = `${to.along.name}, version ${to.along.version}`;
    const isAsBefore = from?.preset === to.preset && from.version === to.version;
    return isAsBefore ? `now is as in ${set}` : `${own}, as in ${set}`;
  },
});
