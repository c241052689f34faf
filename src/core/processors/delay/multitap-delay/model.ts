import type { NoteLength } from "../../../units/note-length";
import { dryAndWet, effect, frequencySpec, levelSpec, panSpec, percentSpec, switchSpec, timeSpec } from "../../specs";
import { repeatsOf } from "../delay-design";
import { levelGain, loopTime, tapsOf } from "./design";
import { TAPS, type TapNumber, tapParam } from "./taps";

/** The longest tap, which sizes the line. In ms. */
export const LONGEST = 4000;

const STARTS: Record<TapNumber, NoteLength> = {
  1: { note: "1/8", feel: "straight" },
  2: { note: "3/16", feel: "straight" },
  3: { note: "1/4", feel: "straight" },
  4: { note: "3/8", feel: "straight" },
};

function tapSpecs<T extends TapNumber>(tap: T) {
  const group = `Tap ${tap}`;
  return [
    switchSpec(tapParam(tap, "on"), `${group} on`, tap === 1 ? 1 : 0, { group }),
    timeSpec(tapParam(tap, "time"), `${group} time`, [1, LONGEST, STARTS[tap]], {
      mayFollowTempo: true,
      group,
      meaning: `time${tap}.ms`,
    }),
    levelSpec(tapParam(tap, "level"), `${group} level`, -3 * (tap - 1), { group }),
    panSpec(tapParam(tap, "pan"), `${group} pan`, [-100, 100, 0], { group }),
  ] as const;
}

export const MULTITAP_DELAY = effect("delay", "multitap-delay", "Multi-tap delay", {
  params: [
    ...TAPS.flatMap(tapSpecs),
    percentSpec("feedback", "Feedback", [0, 95, 20], { meaning: "feedback.pct" }),
    frequencySpec("damping", "Damping", [200, 20_000, 6000], { meaning: "damping.hz" }),
    ...dryAndWet(0, -12),
  ],
  widens: true,
  lead: "wet",
  design: {
    returns(values) {
      const used = tapsOf(values).filter((t) => t.on && t.level > Number.NEGATIVE_INFINITY);
      const reach = loopTime(used);
      const taps = used.map(({ time, level, pan }) => ({ ms: time, gain: levelGain(level), pan }));
      return { taps, repeats: taps.flatMap((tap) => repeatsOf(tap, reach, values.feedback / 100)), reach };
    },
  },
});
