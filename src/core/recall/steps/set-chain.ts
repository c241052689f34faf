import equal from "fast-deep-equal";
import type { z } from "zod";
import { completeChain } from "../../chains/complete";
import { fromsOf } from "../../chains/tree";
import { fail, ok } from "../../result";
import { describeInserts } from "../../strips/parts/inserts";
import { chainStepKind } from "./chain-step";
import type { SetChainSchema } from "./schemas";

type SetChain = Readonly<z.infer<typeof SetChainSchema>>;

/** A chain as a whole. */
export const SET_CHAIN = chainStepKind<SetChain>({
  apply: (chain, { from, to }) =>
    equal(chain, from) ? ok(to) : fail({ why: "changed", what: "what is in the chain" }),
  words: ({ from, to }) => describeInserts(from, to),
  brings: ({ to }) => fromsOf(to),
  complete: (given) => ({ ...given, to: completeChain(given.to) }),
});
