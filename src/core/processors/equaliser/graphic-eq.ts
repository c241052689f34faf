import { IDENTITY, bell } from "../../dsp/biquad";
import { decibels, hertz } from "../../units/quantities";
import { OUTPUT, effect, gainSpec } from "../specs";
import type { EqDesign } from "./eq-design";
import { wantedAt } from "./fit-points";

/** An octave apart; the nominal centres of ISO 266. */
export const GRAPHIC_CENTRES = [31.5, 63, 125, 250, 500, 1000, 2000, 4000, 8000, 16_000] as const;

/** A bell whose half-gain points lie an octave apart. */
const OCTAVE_Q = Math.SQRT2;

const nameOf = (hz: number): string => (hz >= 1000 ? `${hz / 1000} kHz` : `${hz} Hz`);

type Centre = (typeof GRAPHIC_CENTRES)[number];
type Id = `gain${Centre}` | "output";

const idOf = <C extends Centre>(hz: C) => `gain${hz}` as const;

export const GRAPHIC_EQ_DESIGN: EqDesign<Id> = {
  bands: (values, sampleRate) =>
    GRAPHIC_CENTRES.map((freq) => {
      const gain = values[idOf(freq)];
      return {
        key: idOf(freq),
        name: nameOf(freq),
        mark: freq >= 1000 ? `${freq / 1000}k` : String(Math.round(freq)),
        on: true,
        freq,
        gain,
        params: { gain: idOf(freq) },
        sections: [gain === 0 ? IDENTITY : bell({ freq: hertz(freq), q: OCTAVE_Q, sampleRate }, decibels(gain))],
      };
    }),
  starts: (wanted) => [{ values: Object.fromEntries(GRAPHIC_CENTRES.map((hz) => [idOf(hz), wantedAt(wanted, hz)])) }],
};

export const GRAPHIC_EQ = effect("equaliser", "graphic-eq", "Graphic EQ", {
  params: [
    ...GRAPHIC_CENTRES.map((hz) =>
      gainSpec(idOf(hz), nameOf(hz), [-12, 12, 0], { group: hz < 1000 ? "Lower bands" : "Upper bands" }),
    ),
    OUTPUT,
  ],
  lead: "output",
  design: GRAPHIC_EQ_DESIGN,
});
