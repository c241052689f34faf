import type { HeardInstrument, HeardLayer, Phrase } from "../../chains/heard-instrument";
import { type ChainRuntime, createChainRuntime } from "../chain/chain-runtime";
import type { ProcessorState } from "../chain/unit";
import { GRID } from "../../dsp/grid";
import type { Sample, Voice } from "./voice";
import { BassVoice } from "./voices/bass-voice";
import { DrumVoice, drumOutput } from "./voices/drum-voice";
import { MalletVoice } from "./voices/mallet-voice";
import { PadVoice } from "./voices/pad-voice";
import { PianoVoice } from "./voices/piano-voice";
import { SampleVoice } from "./voices/sample-voice";

/** Notes that sound at once in one layer; the oldest makes room for the next. */
const POLYPHONY = 12;

export type Samples = ReadonlyMap<string, Sample>;

type VoiceFactory = (sampleRate: number, sample: () => Sample | null) => Voice;

const VOICES: Readonly<Record<string, VoiceFactory>> = {
  "electric-piano": (rate) => new PianoVoice(rate),
  "bass-synth": (rate) => new BassVoice(rate),
  "pad-synth": (rate) => new PadVoice(rate),
  mallets: (rate) => new MalletVoice(rate),
  "drum-kit": (rate) => new DrumVoice(rate),
  sampler: (rate, sample) => new SampleVoice(rate, sample),
};

interface Playing {
  readonly voice: Voice;
  note: number;
  /** Counts up: the least is the oldest. */
  since: number;
  held: boolean;
}

/** One layer: its voices, its level, and its own effects. */
class LayerRuntime {
  private readonly voices: readonly Playing[];
  private readonly effects: ChainRuntime;
  private readonly left = new Float32Array(GRID);
  private readonly right = new Float32Array(GRID);
  private gain = 1;
  private goal = 1;
  private count = 0;

  constructor(
    private layer: HeardLayer,
    samples: Samples,
    private readonly output: number | null,
    sampleRate: number,
  ) {
    const make = VOICES[layer.model];
    if (!make) throw new Error(`${layer.model} cannot be played`);
    const sample = () => (this.layer.sample === null ? null : (samples.get(this.layer.sample) ?? null));
    this.voices = Array.from({ length: POLYPHONY }, () => ({
      voice: make(sampleRate, sample),
      note: -1,
      since: 0,
      held: false,
    }));
    this.effects = createChainRuntime(layer.effects, sampleRate);
    this.take(layer);
    this.gain = this.goal;
  }

  fits({ key, model, sample }: HeardLayer): boolean {
    return key === this.layer.key && model === this.layer.model && sample === this.layer.sample;
  }

  /** False where its effects came, went or moved. */
  take(layer: HeardLayer): boolean {
    if (layer.effects !== this.layer.effects && !this.effects.update(layer.effects)) return false;
    this.layer = layer;
    this.goal = layer.enabled ? 10 ** ((layer.values.level ?? 0) / 20) : 0;
    for (const { voice } of this.voices) voice.set(layer.values);
    return true;
  }

  noteOn(note: number, velocity: number): void {
    const { keys, velocities, model } = this.layer;
    if (note < keys.low || note > keys.high || velocity < velocities.low || velocity > velocities.high) return;
    if (this.output !== null && model === "drum-kit" && drumOutput(note) !== this.output) return;
    const free = this.voices.find((v) => !v.voice.sounds);
    const chosen = free ?? this.voices.reduce((a, b) => (b.since < a.since ? b : a));
    if (!free) chosen.voice.stop();
    chosen.note = note;
    chosen.held = true;
    chosen.since = ++this.count;
    chosen.voice.start(note, velocity / 127);
  }

  noteOff(note: number): void {
    for (const playing of this.voices) {
      if (!playing.held || playing.note !== note) continue;
      playing.held = false;
      playing.voice.release();
    }
  }

  allOff(): void {
    for (const playing of this.voices) {
      if (playing.held) playing.voice.release();
      playing.held = false;
    }
  }

  reset(): void {
    for (const playing of this.voices) {
      playing.voice.stop();
      playing.held = false;
    }
    this.effects.reset();
  }

  /** Adds a stretch of at most `GRID` samples. */
  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const count = to - from;
    const own = this.left.subarray(0, count);
    const other = this.right.subarray(0, count);
    own.fill(0);
    other.fill(0);
    for (const { voice } of this.voices) if (voice.sounds) voice.addTo(own, other, 0, count);
    for (let i = 0; i < count; i++) {
      // A level that jumps is walked to; what is left after a hundredth of a second is not heard.
      this.gain += 0.004 * (this.goal - this.gain);
      own[i]! *= this.gain;
      other[i]! *= this.gain;
    }
    this.effects.process(own, other, count);
    for (let i = 0; i < count; i++) {
      left[from + i]! += own[i]!;
      right[from + i]! += other[i]!;
    }
  }

  states(): readonly ProcessorState[] {
    return this.effects.states();
  }
}

/** An instrument at work: its layers, the phrase that it plays over and over, and keys that are pressed meanwhile. */
export class InstrumentRuntime {
  private readonly layers: readonly LayerRuntime[];
  private phrase: Phrase;
  private played = 0;
  /** Counted in samples from the beginning of the phrase. */
  private at = 0;
  private plays = true;

  constructor(
    instrument: HeardInstrument,
    samples: Samples,
    private readonly sampleRate: number,
  ) {
    this.phrase = instrument.phrase;
    this.layers = instrument.layers.map((layer) => new LayerRuntime(layer, samples, instrument.output, sampleRate));
  }

  /** Takes changed values; false where a layer came, went, or is another model. */
  update({ layers, phrase }: HeardInstrument): boolean {
    if (layers.length !== this.layers.length || !layers.every((layer, at) => this.layers[at]!.fits(layer)))
      return false;
    const taken = layers.every((layer, at) => this.layers[at]!.take(layer));
    if (taken) this.phrase = phrase;
    return taken;
  }

  get length(): number {
    return Math.round(this.phrase.seconds * this.sampleRate);
  }

  get progress(): number {
    return this.length > 0 ? (this.at % this.length) / this.length : 0;
  }

  /** `progress` 0 to 1 of the phrase. */
  seek(progress: number): void {
    this.at = Math.round((progress * this.length) / GRID) * GRID;
  }

  noteOn(note: number, velocity: number): void {
    for (const layer of this.layers) layer.noteOn(note, velocity);
  }

  noteOff(note: number): void {
    for (const layer of this.layers) layer.noteOff(note);
  }

  allOff(): void {
    for (const layer of this.layers) layer.allOff();
  }

  /** Whether the phrase goes on; keys sound without it too. */
  playPhrase(plays: boolean): void {
    if (this.plays && !plays) this.allOff();
    this.plays = plays;
  }

  reset(): void {
    for (const layer of this.layers) layer.reset();
    this.at = this.played = 0;
  }

  /** Adds its sound over both channels. */
  addTo(left: Float32Array, right: Float32Array, count: number): void {
    let from = 0;
    while (from < count) {
      const to = Math.min(count, from + GRID - (this.played % GRID));
      if (this.played % GRID === 0 && this.plays) this.strike();
      for (const layer of this.layers) layer.addTo(left, right, from, to);
      this.played += to - from;
      if (this.plays) this.at += to - from;
      from = to;
    }
  }

  states(): readonly ProcessorState[] {
    return this.layers.flatMap((layer) => layer.states());
  }

  /** Notes begin and end on points of the grid: 0.7 ms is below what is heard as late. */
  private strike(): void {
    const { length, sampleRate } = this;
    if (length === 0) return;
    const at = this.at % length;
    const isNow = (seconds: number) => {
      const sample = Math.round(seconds * sampleRate) % length;
      return sample >= at && sample < at + GRID;
    };
    for (const { at: begin, seconds, note } of this.phrase.notes) if (isNow(begin + seconds)) this.noteOff(note);
    for (const { at: begin, note, velocity } of this.phrase.notes) if (isNow(begin)) this.noteOn(note, velocity);
  }
}
