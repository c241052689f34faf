import type { StereoSound } from "../dsp/render";
import { drumWithCello } from "./drum-with-cello";
import { narrator } from "./narrator";

/** Sound to judge a setting by: a loop made by our own code, the same samples each time. */
export interface Material {
  readonly id: string;
  readonly name: string;
  readonly seconds: number;
  readonly make: (sampleRate: number) => StereoSound;
}

export const MATERIALS: readonly Material[] = [
  { id: "drum-with-cello", name: "Frame drum with cello", seconds: 8, make: drumWithCello },
  { id: "narrator", name: "Narrator, dry booth", seconds: 8, make: narrator },
];

export function getMaterial(id: string): Material {
  const material = MATERIALS.find((m) => m.id === id);
  if (!material) throw new Error(`No material is called ${id}`);
  return material;
}
