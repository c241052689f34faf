import { choiceSpec, effect } from "../specs";
import { depthSpec, rateSpec, spreadSpec } from "./chorus";
import { type ModulationDesign, TURN } from "./modulation-design";

/** A pulse with its edges rounded, or each would click. */
const PULSE_EDGE = 6;

const WAVES: readonly ((turns: number) => number)[] = [
  (turns) => Math.sin(TURN * turns),
  (turns) => {
    const share = turns - Math.floor(turns);
    return 1 - 4 * Math.abs(((share + 0.25) % 1) - 0.5);
  },
  (turns) => {
    const x = PULSE_EDGE * Math.sin(TURN * turns);
    return x / Math.sqrt(1 + x * x);
  },
];

/** −1 to 1 at a place of the turn. */
export const tremoloWave = (wave: number, turns: number): number => (WAVES[wave] ?? WAVES[0]!)(turns);

/** Gain at a place of the wave: 1 at its top, 1 − depth at its bottom. */
export const tremoloGain = (wave: number, depth: number): number => 1 - depth * (0.5 - 0.5 * wave);

type Design = ModulationDesign<"rate" | "depth" | "wave" | "spread">;

const motion =
  (ahead: (spread: number) => number): Design["left"] =>
  ({ rate, depth, wave, spread }) =>
  (t) =>
    (depth / 100) * tremoloWave(wave, rate * t + ahead(spread));

const TREMOLO_DESIGN: Design = {
  rate: ({ rate }) => rate,
  left: motion(() => 0),
  right: motion((spread) => spread / 200),
};

export const TREMOLO = effect("modulation", "tremolo", "Tremolo", {
  structural: ["wave"],
  params: [
    rateSpec(0.1, 20, 5),
    depthSpec(50),
    choiceSpec("wave", "Wave", ["Sine", "Triangle", "Pulse"]),
    spreadSpec(0),
  ],
  lead: "depth",
  design: TREMOLO_DESIGN,
});
