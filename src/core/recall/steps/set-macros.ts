import equal from "fast-deep-equal";
import type { z } from "zod";
import { fail, ok } from "../../result";
import { chainStepKind } from "./chain-step";
import type { SetMacrosSchema } from "./schemas";

type SetMacros = Readonly<z.infer<typeof SetMacrosSchema>>;

/** All macros of a chain. */
export const SET_MACROS = chainStepKind<SetMacros>({
  apply: (chain, { from, to }) =>
    equal(chain.macros, from)
      ? ok({ ...chain, macros: to })
      : fail({ why: "changed", what: "the setting of the macros" }),
  words: ({ from, to }) => {
    if (to.length > from.length) return `add macro ${to.at(-1)?.name ?? ""}`;
    return to.length < from.length ? "take out a macro" : "macros change";
  },
});
