import { type Biquad, IDENTITY, bell, highPass, highShelf, lowPass, lowShelf } from "../../dsp/biquad";
import { decibels, hertz } from "../../units/quantities";
import type { HeardValues } from "../../units/param-spec";
import { MIX, choiceSpec, effect, gainSpec } from "../specs";
import { softClip } from "./shaper";
import { SATURATION_MAKEUP, driveGains } from "./drive";
import { tubeCurve } from "./tube";

type Tone = "bass" | "middle" | "treble" | "presence";

/** A cabinet by its size, its own resonance in Hz, and where its cone gives up. */
export const CABINETS = [
  { label: "None", resonance: 0, top: 0 },
  { label: "One 10-inch", resonance: 160, top: 5600 },
  { label: "Two 12-inch", resonance: 110, top: 5000 },
  { label: "Four 12-inch", resonance: 90, top: 4600 },
  { label: "One 15-inch", resonance: 65, top: 3600 },
] as const;

const tone = <Id extends Tone>(id: Id, name: string) => gainSpec(id, name, [-12, 12, 0], { group: "Tone" });

export const AMPLIFIER = effect("saturation", "amplifier", "Amplifier and cabinet", {
  params: [
    gainSpec("drive", "Gain", [0, 48, 18], { meaning: "drive.dB", group: "Amplifier" }),
    gainSpec("master", "Power stage", [0, 24, 6], { group: "Amplifier" }),
    { ...SATURATION_MAKEUP, group: "Amplifier" },
    tone("bass", "Bass"),
    tone("middle", "Middle"),
    tone("treble", "Treble"),
    tone("presence", "Presence"),
    choiceSpec(
      "cabinet",
      "Cabinet",
      CABINETS.map((c) => c.label),
      { start: 2, group: "Cabinet" },
    ),
    gainSpec("output", "Output", [-24, 12, 0], { meaning: "output.dB", group: "Cabinet" }),
    { ...MIX, group: "Cabinet" },
  ],
  lead: "drive",
  hasCabinet: true,
  oversamples: true,
  design: {
    shape(values) {
      const preamp = preampCurve();
      const first = driveGains(values.drive, values.makeupMode, preamp);
      const power = driveGains(values.master, values.makeupMode, softClip);
      return (x) => power.after * softClip(power.before * first.after * preamp(first.before * x));
    },
  },
});

/** Where the working point of the first stage stands. */
export const PREAMP_OFFSET = 0.25;

export const preampCurve = (): ((x: number) => number) => tubeCurve(PREAMP_OFFSET);

/** The tone controls, before the stages that they drive. */
export function toneSections(values: HeardValues<Tone>, sampleRate: number): readonly Biquad[] {
  const gain = (id: Tone) => decibels(values[id]);
  const at = (freq: number, q = Math.SQRT1_2) => ({ freq: hertz(freq), q, sampleRate });
  return [
    highPass(at(45)),
    lowShelf(at(180), gain("bass")),
    bell(at(650, 0.8), gain("middle")),
    highShelf(at(2200), gain("treble")),
    bell(at(4200, 0.9), gain("presence")),
  ];
}

/** A speaker in its box: nothing below its resonance, a bump at it, a bark in the upper middle, a steep end. */
export function cabinetSections(values: HeardValues<"cabinet">, sampleRate: number): readonly Biquad[] {
  const { resonance, top } = CABINETS[values.cabinet] ?? CABINETS[0];
  if (top === 0) return [IDENTITY, IDENTITY, IDENTITY, IDENTITY, IDENTITY];
  const at = (freq: number, q: number) => ({ freq: hertz(freq), q, sampleRate });
  return [
    highPass(at(resonance * 0.75, 0.9)),
    bell(at(resonance * 1.1, 1.4), decibels(3)),
    bell(at(top * 0.5, 1.6), decibels(4)),
    lowPass(at(top, 0.54)),
    lowPass(at(top, 1.31)),
  ];
}
