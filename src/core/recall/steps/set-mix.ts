import { MOST_MIXES } from "../../documents/limits";
import { type Mix, mixesOf, withMix } from "../../projects/mixes";
import { settingOne } from "./kept-step";
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

const set = settingOne<Mix>({ one: "the kept mix", all: "mixes", most: MOST_MIXES, of: mixesOf, set: withMix });

/** A moment of the project that is kept under a name: kept, called otherwise, or let go. It changes nothing that is heard. */
export const SET_MIX = stepKind<SetMix>({
  cell: () => ({ strip: null, part: null }),
  apply: (project, step) => set(project, step.mix, step),
  words: ({ from, to }) => wordsOf(from, to),
  isOneValue: () => true,
});
