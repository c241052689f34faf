import type { LoopPicture, SoundEngine, Stretch } from "@/clients/sound-engine";
import type { Meters, Side } from "@/core/sound/audition/audition";
import type { HeardSound } from "@/core/sound/heard-sound";
import type { Measurement } from "@/core/dsp/measure/measure";

/*
 * What would make sound in a browser, in place of clients/sound-engine.ts:
 * `vi.mock("@/clients/sound-engine", () => import("@/app/testing/engine"))`. It remembers what it was asked for.
 */

export interface EngineState {
  material: string | null;
  readonly sounds: Record<"a" | "b", HeardSound | null>;
  side: Side;
  playing: boolean;
  gains: Readonly<Record<Side, number>>;
  readonly notes: number[];
  stretch: Stretch | null;
  readonly sought: number[];
}

const nothing = (): EngineState => ({
  material: null,
  sounds: { a: null, b: null },
  side: "dry",
  playing: false,
  gains: { dry: 1, a: 1, b: 1 },
  notes: [],
  stretch: null,
  sought: [],
});

/** What was asked of the engine last, since `quiet()`. */
export let engine: EngineState = nothing();

/** How loud a sound is held to be, in LUFS; what it throws, the engine throws. */
type Loudness = (sound: HeardSound | null) => number | Promise<number>;
let loudnessOf: Loudness = () => -23;
let willStart = true;
let lose: () => void = () => undefined;
const listeners = new Set<(meters: Meters) => void>();

/** As when the page is opened. */
export function quiet(how: { readonly loudness?: Loudness; readonly starts?: boolean } = {}): void {
  engine = nothing();
  loudnessOf = how.loudness ?? (() => -23);
  willStart = how.starts ?? true;
}

/** The output device goes away. */
export const loseDevice = (): void => lose();

export function sendMeters(meters: Partial<Meters>): void {
  for (const hear of listeners) hear({ peak: 0, progress: 0, correlation: 1, processors: [], ...meters });
}

/** A loop of three seconds; one that is called slow takes its time to come. */
const picture = (material: string) =>
  new Promise<LoopPicture>((done) => {
    const come = () =>
      done({ outline: { high: [0.5, 1, 0.5], low: [-0.5, -1, 0] }, seconds: material.includes("slow") ? 9 : 3 });
    if (material.includes("slow")) setTimeout(come, 100);
    else come();
  });

const measured = (integratedLufs: number): Measurement => ({
  integratedLufs,
  truePeakDb: integratedLufs + 20,
  loudnessRangeLu: 4,
  peakDb: integratedLufs + 19,
  rmsDb: integratedLufs,
  crestDb: 19,
  correlation: 1,
  seconds: 8,
});

export const OWN_MATERIAL = "own:";

export const createSoundEngine = (): SoundEngine => ({
  start: () => (willStart ? Promise.resolve() : Promise.reject(new Error("No device."))),
  setMaterial: (material) => {
    Object.assign(engine, { material, stretch: null });
    return Promise.resolve();
  },
  picture: (material, sound) => {
    if (sound?.instrument) return picture("slow phrase");
    return material.startsWith("own:gone") ? Promise.reject(new Error("No such material.")) : picture(material);
  },
  seek: (to) => void engine.sought.push(to),
  setStretch: (stretch) => void (engine.stretch = stretch),
  setSound: (side, sound) => void (engine.sounds[side] = sound),
  select: (side) => void (engine.side = side),
  play: (playing) => void (engine.playing = playing),
  setGains: (gains) => void (engine.gains = gains),
  noteOn: (note) => {
    engine.notes.push(note);
    return Promise.resolve();
  },
  noteOff: (note) => void engine.notes.splice(engine.notes.indexOf(note), 1),
  allNotesOff: () => void engine.notes.splice(0),
  measure: async (_, stretch, sound) => measured((await loudnessOf(sound)) - (stretch ? 10 : 0)),
  peaksOf: () => Promise.resolve({ inputs: {}, output: 0.5 }),
  costOf: (_, sounds) => Promise.resolve(sounds.map(({ chain }) => 1 + chain.length)),
  encode: () => Promise.resolve(new Uint8Array(44)),
  readSpectrum: () => null,
  onLost: (call) => void (lose = call),
  onMeters: (hear) => {
    listeners.add(hear);
    return () => listeners.delete(hear);
  },
});
