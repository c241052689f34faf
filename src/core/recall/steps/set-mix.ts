import equal from "fast-deep-equal";
import { MOST_MIXES } from "../../documents/limits";
import { type Mix, findMix, mixesOf, withMix } from "../../projects/mixes";
import { fail, ok } from "../../result";
import { type AnyStep, stepKind } from "./step-kind";

export interface SetMix extends AnyStep {
  readonly kind: "setMix";
  /** The key of the mix. */
  readonly mix: string;
  readonly from: Mix | null;
  readonly to: Mix | null;
}

function wordsOf(from: Mix | null, to: Mix | null): string {
  if (!to) return from ? `remove the kept mix “${from.name}”` : "no kept mix";
  if (!from) return `keep the mix “${to.name}”`;
  if (from.name !== to.name) return `the kept mix “${from.name}” → “${to.name}”`;
  return from.take === to.take
    ? `the note of the kept mix “${to.name}”`
    : `the take of the kept mix “${to.name}” ${from.take || "none"} → ${to.take || "none"}`;
}

/** A moment of the project that is kept under a name: kept, called otherwise, or let go. It changes nothing that is heard. */
export const SET_MIX = stepKind<SetMix>({
  cell: () => ({ strip: null, part: null }),
  apply: (project, { mix, from, to }) => {
    if (!equal(findMix(project, mix), from)) return fail({ why: "changed", what: "the kept mix" });
    if (to && to.id !== mix) return fail({ why: "mismatch", key: mix, brings: to.id });
    if (!from && to && mixesOf(project).length >= MOST_MIXES) return fail({ why: "tooMany", what: "mixes" });
    return ok(withMix(project, mix, to));
  },
  words: ({ from, to }) => wordsOf(from, to),
  isOneValue: () => true,
});
