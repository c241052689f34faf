import { type Remote, wrap } from "comlink";
import { type FromWorklet, type ToWorklet, WORKLET_NAME } from "@/contracts/audition";
import { type HeardChain, isSplit } from "@/core/chains/heard-chain";
import type { Meters, Voice } from "@/core/dsp/audition";
import type { HeardSound } from "@/core/dsp/heard-sound";
import type { Measurement } from "@/core/dsp/measure/measure";
import type { SoundService } from "@/workers/sound.worker";

/** The application's rate; projects at other rates are heard as they would be at this one. */
export const ENGINE_RATE = 48_000;

export interface SoundEngine {
  /** Makes the sound run; needs a gesture of the person the first time. Rejects where the browser gives no sound. */
  start(): Promise<void>;
  setMaterial(material: string): Promise<readonly number[]>;
  setSound(side: "a" | "b", sound: HeardSound | null): void;
  select(voice: Voice): void;
  play(playing: boolean): void;
  setGains(gains: Readonly<Record<Voice, number>>): void;
  /** Keys of the instrument that is heard; velocity 1 to 127. */
  noteOn(note: number, velocity: number): Promise<void>;
  noteOff(note: number): void;
  allNotesOff(): void;
  measure(material: string, sound: HeardSound | null): Promise<Measurement>;
  /** Milliseconds for each second of each sound. */
  costOf(material: string, sounds: readonly HeardSound[]): Promise<readonly number[]>;
  /** A sound as the WAV file that is kept. */
  encode(left: Float32Array, right: Float32Array, sampleRate: number): Promise<Uint8Array<ArrayBuffer>>;
  /** Levels in dB of the spectrum of what is heard now, evenly spaced from 0 Hz up; null while nothing sounds. */
  readSpectrum(): Float32Array<ArrayBuffer> | null;
  /** Called when the device that plays goes away or stops by itself. */
  onLost(lost: () => void): void;
  onMeters(hear: (meters: Meters) => void): () => void;
}

/** What was asked for before there was a node to tell it to. */
interface Wish {
  material: string | null;
  sounds: Record<"a" | "b", HeardSound | null>;
  voice: Voice;
  playing: boolean;
  gains: Readonly<Record<Voice, number>>;
}

/** The worklet's node, once there is one. */
interface Line {
  context: AudioContext | null;
  node: AudioWorkletNode | null;
  analyser: AnalyserNode | null;
}

/** Points of the spectrum: 23 Hz apart at 48 kHz. */
const SPECTRUM = 2048;

/** The materials that key something in a chain. */
const keysIn = (chain: HeardChain): readonly string[] =>
  chain.flatMap((node): readonly string[] =>
    isSplit(node) ? node.lanes.flatMap((lane) => keysIn(lane.nodes)) : node.keyedBy ? [node.keyedBy] : [],
  );

async function openLine(line: Line, hear: (meters: Meters) => void): Promise<void> {
  const context = new AudioContext({ latencyHint: "interactive", sampleRate: ENGINE_RATE });
  await context.audioWorklet.addModule("/worklets/audition.js");
  const node = new AudioWorkletNode(context, WORKLET_NAME, { numberOfInputs: 0, outputChannelCount: [2] });
  node.port.onmessage = ({ data }: MessageEvent<FromWorklet>) => {
    if (data.kind === "meters") hear(data.meters);
  };
  const analyser = new AnalyserNode(context, { fftSize: SPECTRUM, smoothingTimeConstant: 0.75 });
  node.connect(analyser);
  node.connect(context.destination);
  Object.assign(line, { context, node, analyser });
}

/** One engine for the whole application. Everything that makes sound runs on the audio thread or in the worker. */
export function createSoundEngine(): SoundEngine {
  const worker: Remote<SoundService> = wrap(
    new Worker(new URL("../workers/sound.worker.ts", import.meta.url), { type: "module" }),
  );
  const wish: Wish = {
    material: null,
    sounds: { a: null, b: null },
    voice: "dry",
    playing: false,
    gains: { dry: 1, a: 1, b: 1 },
  };
  const listeners = new Set<(meters: Meters) => void>();
  const line: Line = { context: null, node: null, analyser: null };
  let lost: () => void = () => undefined;
  const sent = new Set<string>();
  let starting: Promise<void> | null = null;

  const tell = (message: ToWorklet, transfer: Transferable[] = []) => line.node?.port.postMessage(message, transfer);
  const sendLoop = async (material: string): Promise<readonly number[]> => {
    const { left, right, peaks } = await worker.makeLoop(material, ENGINE_RATE);
    if (wish.material === material) tell({ kind: "loop", left, right }, [left.buffer, right.buffer]);
    return peaks;
  };
  /** What a sound needs beside itself goes ahead of it, once; what is missing is silence. */
  const sendAround = ({ chain, instrument }: HeardSound): void => {
    for (const material of keysIn(chain)) {
      if (sent.has(material)) continue;
      sent.add(material);
      void worker
        .makeLoop(material, ENGINE_RATE)
        .then(({ left, right }) => tell({ kind: "key", material, left, right }, [left.buffer, right.buffer]))
        .catch(() => sent.delete(material));
    }
    for (const { sample } of instrument?.layers ?? []) {
      if (sample === null || sent.has(sample)) continue;
      sent.add(sample);
      void worker
        .makeSample(sample)
        .then(({ left, right, sampleRate }) =>
          tell({ kind: "sample", hash: sample, left, right, sampleRate }, [left.buffer, right.buffer]),
        )
        .catch(() => sent.delete(sample));
    }
  };
  const sendSound = (side: "a" | "b"): void => {
    const sound = wish.sounds[side];
    if (sound && line.node) sendAround(sound);
    tell({ kind: "sound", side, sound });
  };
  const open = async (): Promise<void> => {
    await openLine(line, (meters) => {
      for (const hear of listeners) hear(meters);
    });
    if (wish.material) await sendLoop(wish.material);
    sent.clear();
    for (const side of ["a", "b"] as const) sendSound(side);
    line.context?.addEventListener("statechange", () => {
      if (line.context?.state === "interrupted" || line.context?.state === "closed") lost();
    });
    tell({ kind: "select", voice: wish.voice });
    tell({ kind: "gains", gains: wish.gains });
    tell({ kind: "play", playing: wish.playing });
  };
  /** Remembers what is wished for, and tells it where there is someone to tell. */
  const want = (change: Partial<Wish>, message: ToWorklet): void => {
    Object.assign(wish, change);
    tell(message);
  };

  const start = async (): Promise<void> => {
    starting ??= open().catch((error: unknown) => {
      starting = null;
      throw error;
    });
    await starting;
    await line.context?.resume();
  };
  const spectrum = new Float32Array(SPECTRUM / 2);

  return {
    start,
    setMaterial(material) {
      wish.material = material;
      return sendLoop(material);
    },
    setSound(side, sound) {
      wish.sounds = { ...wish.sounds, [side]: sound };
      sendSound(side);
    },
    select: (voice) => want({ voice }, { kind: "select", voice }),
    play: (playing) => want({ playing }, { kind: "play", playing }),
    setGains: (gains) => want({ gains }, { kind: "gains", gains }),
    async noteOn(note, velocity) {
      await start();
      tell({ kind: "noteOn", note, velocity });
    },
    noteOff: (note) => tell({ kind: "noteOff", note }),
    allNotesOff: () => tell({ kind: "allNotesOff" }),
    measure: (material, sound) => worker.measureLoop(material, ENGINE_RATE, sound),
    costOf: (material, sounds) => worker.costOf(material, ENGINE_RATE, sounds),
    encode: (left, right, sampleRate) => worker.encode(left, right, sampleRate),
    readSpectrum() {
      const { analyser, context } = line;
      if (!analyser || context?.state !== "running") return null;
      analyser.getFloatFrequencyData(spectrum);
      return spectrum;
    },
    onLost(call) {
      lost = call;
    },
    onMeters(hear) {
      listeners.add(hear);
      return () => listeners.delete(hear);
    },
  };
}
