import type { Remote } from "comlink";
import { type FromWorklet, type ToWorklet, WORKLET_NAME } from "@/contracts/audition";
import { keyMaterials } from "@/core/chains/heard-chain";
import type { Meters, Side } from "@/core/sound/audition/audition";
import type { HeardSound } from "@/core/sound/heard-sound";
import type { Peaks } from "@/core/sound/peaks";
import type { Measurement } from "@/core/dsp/measure/measure";
import type { LoopPicture } from "@/core/materials/outline";
import type { Stretch } from "@/core/materials/stretch";
import type { SoundService } from "@/workers/sound.worker";

/** What of the sound the interface knows: its words, not how it is made. */
export type { HeardSound, LoopPicture, Measurement, Meters, Peaks, Side, Stretch };

/** The application's rate; projects at other rates are heard as they would be at this one. */
export const ENGINE_RATE = 48_000;

export interface SoundEngine {
  /** Makes the sound run; needs a gesture of the person the first time. Rejects where the browser gives no sound. */
  start(): Promise<void>;
  /** Plays it from its start, all of it. */
  setMaterial(material: string): Promise<void>;
  /** A loop as it is drawn, or the phrase of the instrument of a sound. Rejects where there is none. */
  picture(material: string, sound: HeardSound | null): Promise<LoopPicture>;
  /** Goes on at a place of what is heard, 0 to 1. */
  seek(to: number): void;
  /** What of the loop goes round; null for all of it. */
  setStretch(stretch: Stretch | null): void;
  setSound(side: "a" | "b", sound: HeardSound | null): void;
  select(side: Side): void;
  play(playing: boolean): void;
  setGains(gains: Readonly<Record<Side, number>>): void;
  /** Keys of the instrument that is heard; velocity 1 to 127. */
  noteOn(note: number, velocity: number): Promise<void>;
  noteOff(note: number): void;
  allNotesOff(): void;
  /** What goes round, through a sound. */
  measure(material: string, stretch: Stretch | null, sound: HeardSound | null): Promise<Measurement>;
  /** What of what goes round reaches each plugin of a sound, and what leaves it. */
  peaksOf(material: string, stretch: Stretch | null, sound: HeardSound): Promise<Peaks>;
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

/** What a material of one's own is called: the hash of its sound behind this. */
export const OWN_MATERIAL = "own:";

const isOwn = (material: string): boolean => material.startsWith(OWN_MATERIAL);

/** What was asked for before there was a node to tell it to. */
interface Wish {
  material: string | null;
  stretch: Stretch | null;
  sounds: Record<"a" | "b", HeardSound | null>;
  side: Side;
  playing: boolean;
  gains: Readonly<Record<Side, number>>;
}

/** The worklet's node and what stands around it. */
interface Line {
  readonly context: AudioContext;
  readonly node: AudioWorkletNode;
  readonly analyser: AnalyserNode;
}

/** Points of the spectrum: 23 Hz apart at 48 kHz. */
const SPECTRUM = 2048;

async function openLine(hear: (meters: Meters) => void): Promise<Line> {
  const context = new AudioContext({ latencyHint: "interactive", sampleRate: ENGINE_RATE });
  await context.audioWorklet.addModule("/worklets/audition.js");
  const node = new AudioWorkletNode(context, WORKLET_NAME, { numberOfInputs: 0, outputChannelCount: [2] });
  node.port.onmessage = ({ data }: MessageEvent<FromWorklet>) => {
    if (data.kind === "meters") hear(data.meters);
  };
  const analyser = new AnalyserNode(context, { fftSize: SPECTRUM, smoothingTimeConstant: 0.75 });
  node.connect(analyser);
  node.connect(context.destination);
  return { context, node, analyser };
}

class BrowserSoundEngine implements SoundEngine {
  private readonly wish: Wish = {
    material: null,
    stretch: null,
    sounds: { a: null, b: null },
    side: "dry",
    playing: false,
    gains: { dry: 1, a: 1, b: 1 },
  };
  private readonly listeners = new Set<(meters: Meters) => void>();
  /** Keys and samples that the audio thread has. */
  private readonly sent = new Set<string>();
  private readonly spectrum = new Float32Array(SPECTRUM / 2);
  private line: Line | null = null;
  private starting: Promise<void> | null = null;
  private lost: () => void = () => undefined;

  /** Comes when something is to be made or measured: to look at the library none is needed. */
  private get worker(): Promise<Remote<SoundService>> {
    this.made ??= import("./sound-worker").then((m) => m.startSoundWorker());
    // A code that did not come is asked for again.
    this.made.catch(() => {
      this.made = null;
    });
    return this.made;
  }
  private made: Promise<Remote<SoundService>> | null = null;

  async start(): Promise<void> {
    this.starting ??= this.open().catch((error: unknown) => {
      this.starting = null;
      throw error;
    });
    await this.starting;
    await this.line?.context.resume();
  }

  async setMaterial(material: string): Promise<void> {
    Object.assign(this.wish, { material, stretch: null });
    if (this.line) await this.sendLoop(material);
  }

  async picture(material: string, sound: HeardSound | null): Promise<LoopPicture> {
    if (sound?.instrument || isOwn(material)) return (await this.worker).picture(material, ENGINE_RATE, sound);
    // Those that ship with the application were drawn when it was built.
    const response = await fetch(`/materials/${encodeURIComponent(material)}.json`);
    if (!response.ok) throw new Error("This material is not here.");
    return (await response.json()) as LoopPicture;
  }

  seek(to: number): void {
    this.tell({ kind: "seek", to });
  }

  setStretch(stretch: Stretch | null): void {
    this.want({ stretch }, { kind: "stretch", stretch });
  }

  setSound(side: "a" | "b", sound: HeardSound | null): void {
    this.wish.sounds = { ...this.wish.sounds, [side]: sound };
    this.sendSound(side);
  }

  select(side: Side): void {
    this.want({ side }, { kind: "select", side });
  }

  play(playing: boolean): void {
    this.want({ playing }, { kind: "play", playing });
  }

  setGains(gains: Readonly<Record<Side, number>>): void {
    this.want({ gains }, { kind: "gains", gains });
  }

  async noteOn(note: number, velocity: number): Promise<void> {
    await this.start();
    this.tell({ kind: "noteOn", note, velocity });
  }

  noteOff(note: number): void {
    this.tell({ kind: "noteOff", note });
  }

  allNotesOff(): void {
    this.tell({ kind: "allNotesOff" });
  }

  async measure(material: string, stretch: Stretch | null, sound: HeardSound | null): Promise<Measurement> {
    return (await this.worker).measureLoop({ material, stretch, sampleRate: ENGINE_RATE }, sound);
  }

  async peaksOf(material: string, stretch: Stretch | null, sound: HeardSound): Promise<Peaks> {
    return (await this.worker).peaksOf({ material, stretch, sampleRate: ENGINE_RATE }, sound);
  }

  async costOf(material: string, sounds: readonly HeardSound[]): Promise<readonly number[]> {
    return (await this.worker).costOf(material, ENGINE_RATE, sounds);
  }

  async encode(left: Float32Array, right: Float32Array, sampleRate: number): Promise<Uint8Array<ArrayBuffer>> {
    return (await this.worker).encode(left, right, sampleRate);
  }

  readSpectrum(): Float32Array<ArrayBuffer> | null {
    if (this.line?.context.state !== "running") return null;
    this.line.analyser.getFloatFrequencyData(this.spectrum);
    return this.spectrum;
  }

  onLost(lost: () => void): void {
    this.lost = lost;
  }

  onMeters(hear: (meters: Meters) => void): () => void {
    this.listeners.add(hear);
    return () => this.listeners.delete(hear);
  }

  private async open(): Promise<void> {
    const line = await openLine((meters) => {
      for (const hear of this.listeners) hear(meters);
    });
    this.line = line;
    this.sent.clear();
    // A device that goes away stops the context by itself: the next start opens another.
    const lose = () => {
      if (this.line !== line) return;
      this.line = null;
      this.starting = null;
      void line.context.close().catch(() => undefined);
      this.lost();
    };
    line.context.addEventListener("error", lose);
    line.context.addEventListener("statechange", () => line.context.state === "closed" && lose());
    const { material, side, gains, playing } = this.wish;
    if (material) await this.sendLoop(material);
    for (const side of ["a", "b"] as const) this.sendSound(side);
    this.tell({ kind: "select", side });
    this.tell({ kind: "gains", gains });
    this.tell({ kind: "play", playing });
  }

  private tell(message: ToWorklet, transfer: Transferable[] = []): void {
    this.line?.node.port.postMessage(message, transfer);
  }

  /** Remembers what is wished for, and tells it where there is someone to tell. */
  private want(change: Partial<Wish>, message: ToWorklet): void {
    Object.assign(this.wish, change);
    this.tell(message);
  }

  private async sendLoop(material: string): Promise<void> {
    const { left, right } = await (await this.worker).makeLoop(material, ENGINE_RATE);
    const { wish } = this;
    // Another was chosen meanwhile.
    if (wish.material !== material) return;
    this.tell({ kind: "loop", left, right }, [left.buffer, right.buffer]);
    if (wish.stretch) this.tell({ kind: "stretch", stretch: wish.stretch });
  }

  private sendSound(side: "a" | "b"): void {
    const sound = this.wish.sounds[side];
    if (sound && this.line) this.sendAround(sound);
    this.tell({ kind: "sound", side, sound });
  }

  /** What a sound needs beside itself goes to the audio thread once; until it is there, and where it is gone, it is silence. */
  private sendAround({ chain, instrument }: HeardSound): void {
    for (const material of keyMaterials(chain))
      this.sendOnce(material, async () => {
        const { left, right } = await (await this.worker).makeLoop(material, ENGINE_RATE);
        this.tell({ kind: "key", material, left, right }, [left.buffer, right.buffer]);
      });
    for (const { sample } of instrument?.layers ?? [])
      if (sample !== null)
        this.sendOnce(sample, async () => {
          const { left, right, sampleRate } = await (await this.worker).makeSample(sample);
          this.tell({ kind: "sample", hash: sample, left, right, sampleRate }, [left.buffer, right.buffer]);
        });
  }

  private sendOnce(id: string, send: () => Promise<void>): void {
    if (this.sent.has(id)) return;
    this.sent.add(id);
    send().catch(() => this.sent.delete(id));
  }
}

/** One engine for the whole application. Everything that makes sound runs on the audio thread or in the worker. */
export const createSoundEngine = (): SoundEngine => new BrowserSoundEngine();
