import { EFFECTS } from "../../src/core/processors/models";
import { changesOf, faultsOf, pairsOf } from "../../src/core/sound/audition/testing";
import type { Figure } from "./figure";

/** What the tests hold at 48 kHz, at the other rates: the worst of all models and all that is done with them. */
export function audit(): readonly Figure[] {
  return [44_100, 96_000].flatMap((sampleRate): readonly Figure[] => {
    const faults = pairsOf(EFFECTS).flatMap(([model, next]) =>
      changesOf(model, next).map((change) => ({
        what: `${model.id}: ${change.what}`,
        ...faultsOf(change, sampleRate),
      })),
    );
    const runs = faults.length;
    const step = faults.reduce((a, b) => (b.step > a.step ? b : a));
    const hole = faults.reduce((a, b) => (b.hole < a.hole ? b : a));
    const unit = "times the sound's own";
    return [
      { name: `audit-step-${sampleRate}`, value: step.step, op: "<=", goal: 1.5, unit, runs, note: step.what },
      { name: `audit-hole-${sampleRate}`, value: hole.hole, op: ">=", goal: -1, unit: "dB", runs, note: hole.what },
    ];
  });
}
