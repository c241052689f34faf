import type { StereoSound } from "../dsp/render";
import { drumWithCello } from "./drum-with-cello";
import { narrator } from "./narrator";
import { choir, harmonium, modularBass, vibraphone } from "./played";

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
  { id: "vibraphone", name: "Vibraphone, motor on", seconds: 8, make: vibraphone },
  { id: "modular-bass", name: "Modular bass line", seconds: 8, make: modularBass },
  { id: "choir", name: "Choir in the nave", seconds: 8, make: choir },
  { id: "harmonium", name: "Harmonium, close", seconds: 8, make: harmonium },
];

export const findMaterial = (id: string): Material | null => MATERIALS.find((m) => m.id === id) ?? null;

export function getMaterial(id: string): Material {
  const material = findMaterial(id);
  if (!material) throw new Error(`No material is called ${id}`);
  return material;
}
