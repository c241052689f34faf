import type { StereoSound } from "../dsp/stereo-sound";
import { drumWithCello } from "./drum-with-cello";

/** Those that our own instruments play come when they are first asked for. */
const playedBy =
  (piece: "choir" | "harmonium" | "modularBass" | "vibraphone") =>
  async (sampleRate: number): Promise<StereoSound> =>
    (await import("./played"))[piece](sampleRate);

/** Sound to judge a setting by: a loop made by our own code, the same samples each time. */
export interface Material {
  readonly id: string;
  readonly name: string;
  readonly seconds: number;
  readonly make: (sampleRate: number) => Promise<StereoSound>;
}

export const MATERIALS: readonly Material[] = [
  {
    id: "drum-with-cello",
    name: "Frame drum with cello",
    seconds: 8,
    make: (rate) => Promise.resolve(drumWithCello(rate)),
  },
  {
    id: "narrator",
    name: "Narrator, dry booth",
    seconds: 8,
    make: async (rate) => (await import("./narrator")).narrator(rate),
  },
  { id: "vibraphone", name: "Vibraphone, motor on", seconds: 8, make: playedBy("vibraphone") },
  { id: "modular-bass", name: "Modular bass line", seconds: 8, make: playedBy("modularBass") },
  { id: "choir", name: "Choir in the nave", seconds: 8, make: playedBy("choir") },
  { id: "harmonium", name: "Harmonium, close", seconds: 8, make: playedBy("harmonium") },
];

export const findMaterial = (id: string): Material | null => MATERIALS.find((m) => m.id === id) ?? null;

export function getMaterial(id: string): Material {
  const material = findMaterial(id);
  if (!material) throw new Error(`No material is called ${id}`);
  return material;
}
