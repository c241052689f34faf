import { EFFECTS } from "../../src/core/processors/models";
import { changesOf, faultsOf, pairsOf } from "../../src/core/sound/audition/testing";
import type { Figure } from "./figure";

/** What the tests hold at 48 kHz, at the other rates: the worst of all models and all that is done with them. */
export function audit(): readonly Figure[] {
  return [44_100, 96_000].flatMap((sampleRate): readonly Figure[] => {
    const faults = pairsOf(EFFECTS).flatMap(([model, next]) =>
      changesOf(model, next).map((change) => faultsOf(change, sampleRate)),
    );
    const runs = faults.length;
    const step = Math.max(...faults.map((fault) => fault.step));
    const hole = Math.min(...faults.map((fault) => fault.hole));
    return [
      { name: `audit-step-${sampleRate}`, value: step, op: "<=", goal: 1.5, unit: "times the sound's own", runs },
      { name: `audit-hole-${sampleRate}`, value: hole, op: ">=", goal: -1, unit: "dB", runs },
    ];
  });
}
