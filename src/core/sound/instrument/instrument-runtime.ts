import type { HeardInstrument, HeardLayer, Phrase } from "../../chains/heard-instrument";
import { type ChainRuntime, createChainRuntime } from "../chain/chain-runtime";
import type { ProcessorState } from "../chain/unit";
import { GRID } from "../../dsp/grid";
import type {
  BASS_SYNTH,
  DRUM_KIT,
  ELECTRIC_PIANO,
  MALLETS,
  PAD_SYNTH,
  SAMPLER,
} from "../../processors/instrument/models";
import { type Model, type ValuesOf, heardAt } from "../../processors/model";
import type { HeardValues } from "../../units/param-spec";
import type { Sample, Voice } from "./voice";
import { BassVoice } from "./voices/bass-voice";
import { DrumVoice, drumChoke, drumOutput } from "./voices/drum-voice";
import { MalletVoice } from "./voices/mallet-voice";
import { PadVoice } from "./voices/pad-voice";
import { PianoVoice } from "./voices/piano-voice";
import { SampleVoice } from "./voices/sample-voice";

/** Notes that sound at once in one layer; the oldest makes room for the next. */
const POLYPHONY = 12;
/** Voices beyond those, in which what makes room fades out. */
const LEAVING = 6;
/** In seconds: how long that takes, and how long a drum takes that another silences. */
const LEAVES_IN = 0.005;
const CHOKED_IN = 0.03;

export type Samples = ReadonlyMap<string, Sample>;

type VoiceFactory<Values extends HeardValues = HeardValues> = (
  sampleRate: number,
  values: Values,
  sample: () => Sample | null,
) => Voice<Values>;

interface Played {
  readonly make: VoiceFactory;
  /** Which output a key goes to, of instruments with several; 0 for a key that plays nothing. */
  readonly outputOf?: (note: number) => number;
  /** Keys of the same group silence each other; 0 for none. */
  readonly chokeOf?: (note: number) => number;
}

/** How a model is played; the values are those of that model: what comes in was completed by it. */
const played = <M extends Model>(make: VoiceFactory<ValuesOf<M>>, more: Omit<Played, "make"> = {}): Played => ({
  make: make,
  ...more,
});

const PLAYED: Readonly<Record<string, Played>> = {
  "electric-piano": played<typeof ELECTRIC_PIANO>((rate, values) => new PianoVoice(rate, values)),
  "bass-synth": played<typeof BASS_SYNTH>((rate, values) => new BassVoice(rate, values)),
  "pad-synth": played<typeof PAD_SYNTH>((rate, values) => new PadVoice(rate, values)),
  mallets: played<typeof MALLETS>((rate, values) => new MalletVoice(rate, values)),
  "drum-kit": played<typeof DRUM_KIT>((rate, values) => new DrumVoice(rate, values), {
    outputOf: drumOutput,
    chokeOf: drumChoke,
  }),
  sampler: played<typeof SAMPLER>((rate, values, sample) => new SampleVoice(rate, values, sample)),
};

interface Playing {
  readonly voice: Voice;
  note: number;
  /** Counts up: the least is the oldest. */
  since: number;
  held: boolean;
  /** How much of it is heard, and by how much less with each sample. */
  share: number;
  fall: number;
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

  private readonly model: Played;
  private readonly voiceLeft = new Float32Array(GRID);
  private readonly voiceRight = new Float32Array(GRID);

  constructor(
    private layer: HeardLayer,
    samples: Samples,
    private readonly output: number | null,
    private readonly sampleRate: number,
  ) {
    const model = PLAYED[layer.model];
    if (!model) throw new Error(`${layer.model} cannot be played`);
    this.model = model;
    const sample = () => (this.layer.sample === null ? null : (samples.get(this.layer.sample) ?? null));
    this.voices = Array.from({ length: POLYPHONY + LEAVING }, () => ({
      voice: model.make(sampleRate, layer.values, sample),
      note: -1,
      since: 0,
      held: false,
      share: 1,
      fall: 0,
    }));
    this.effects = createChainRuntime(layer.effects, sampleRate);
    this.take(layer);
    this.gain = this.goal;
  }

  /** Whether `take` can take it: it is the same layer, with the same effects in the same places. */
  fits({ key, model, sample, effects }: HeardLayer): boolean {
    return (
      key === this.layer.key && model === this.layer.model && sample === this.layer.sample && this.effects.fits(effects)
    );
  }

  take(layer: HeardLayer): void {
    if (layer.effects !== this.layer.effects) this.effects.update(layer.effects);
    this.layer = layer;
    this.goal = layer.enabled ? 10 ** (heardAt(layer.values, "level") / 20) : 0;
    for (const { voice } of this.voices) voice.set(layer.values);
  }

  noteOn(note: number, velocity: number): void {
    const { keys, velocities } = this.layer;
    if (note < keys.low || note > keys.high || velocity < velocities.low || velocity > velocities.high) return;
    const { outputOf, chokeOf } = this.model;
    if (this.output !== null && outputOf && outputOf(note) !== this.output) return;
    const group = chokeOf?.(note) ?? 0;
    if (group > 0) this.choke(group);
    const chosen = this.choose();
    chosen.voice.stop();
    chosen.note = note;
    chosen.held = true;
    chosen.since = ++this.count;
    chosen.share = 1;
    chosen.fall = 0;
    chosen.voice.start(note, velocity / 127);
  }

  private choke(group: number): void {
    const { chokeOf } = this.model;
    for (const playing of this.voices)
      if (playing.voice.sounds && playing.fall === 0 && chokeOf?.(playing.note) === group)
        this.leave(playing, CHOKED_IN);
  }

  private leave(playing: Playing, seconds: number): void {
    playing.held = false;
    playing.fall = 1 / (seconds * this.sampleRate);
  }

  /** One that is silent; where as many sound as may, the oldest begins to leave. With no voice left, the one that has faded furthest. */
  private choose(): Playing {
    let sounding = 0;
    let silent: Playing | null = null;
    let oldest: Playing | null = null;
    let faintest = this.voices[0]!;
    for (const playing of this.voices) {
      if (!playing.voice.sounds) silent ??= playing;
      else if (playing.fall === 0) {
        sounding += 1;
        if (oldest === null || playing.since < oldest.since) oldest = playing;
      }
      if (playing.share < faintest.share) faintest = playing;
    }
    if (oldest && sounding >= POLYPHONY) this.leave(oldest, LEAVES_IN);
    return silent ?? faintest;
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
    const { left: own, right: other, voices } = this;
    own.fill(0, 0, count);
    other.fill(0, 0, count);
    for (let v = 0; v < voices.length; v++) {
      const playing = voices[v]!;
      if (!playing.voice.sounds) continue;
      if (playing.fall === 0) playing.voice.addTo(own, other, 0, count);
      else this.addLeaving(playing, count);
    }
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

  private addLeaving(playing: Playing, count: number): void {
    const { left, right, voiceLeft, voiceRight } = this;
    voiceLeft.fill(0, 0, count);
    voiceRight.fill(0, 0, count);
    playing.voice.addTo(voiceLeft, voiceRight, 0, count);
    for (let i = 0; i < count; i++) {
      playing.share = Math.max(0, playing.share - playing.fall);
      left[i]! += playing.share * voiceLeft[i]!;
      right[i]! += playing.share * voiceRight[i]!;
    }
    if (playing.share === 0) playing.voice.stop();
  }

  states(): readonly ProcessorState[] {
    return this.effects.states();
  }
}

/** A phrase in samples, so that playing it works out and allocates nothing. */
interface Score {
  readonly phrase: Phrase;
  readonly length: number;
  readonly begins: Int32Array;
  readonly ends: Int32Array;
}

function scoreOf(phrase: Phrase, sampleRate: number): Score {
  const length = Math.round(phrase.seconds * sampleRate);
  const place = (seconds: number): number => (length === 0 ? 0 : Math.round(seconds * sampleRate) % length);
  return {
    phrase,
    length,
    begins: Int32Array.from(phrase.notes, ({ at }) => place(at)),
    ends: Int32Array.from(phrase.notes, ({ at, seconds }) => place(at + seconds)),
  };
}

/** An instrument at work: its layers, the phrase that it plays over and over, and keys that are pressed meanwhile. */
export class InstrumentRuntime {
  private readonly layers: readonly LayerRuntime[];
  private score: Score;
  /** Samples since the last point of the grid. */
  private within = 0;
  /** Counted in samples from the beginning of the phrase. */
  private at = 0;
  private plays = true;

  constructor(
    instrument: HeardInstrument,
    samples: Samples,
    private readonly sampleRate: number,
  ) {
    this.score = scoreOf(instrument.phrase, sampleRate);
    this.layers = instrument.layers.map((layer) => new LayerRuntime(layer, samples, instrument.output, sampleRate));
  }

  /** Whether `update` can take it: no layer, and no effect of one, came, went or moved. */
  fits({ layers }: HeardInstrument): boolean {
    return layers.length === this.layers.length && layers.every((layer, at) => this.layers[at]!.fits(layer));
  }

  /** Takes changed values; false, and nothing is taken, where it does not fit. */
  update(instrument: HeardInstrument): boolean {
    if (!this.fits(instrument)) return false;
    const { layers, phrase } = instrument;
    layers.forEach((layer, at) => this.layers[at]!.take(layer));
    if (phrase !== this.score.phrase) this.score = scoreOf(phrase, this.sampleRate);
    return true;
  }

  get length(): number {
    return this.score.length;
  }

  get progress(): number {
    return this.length > 0 ? this.at / this.length : 0;
  }

  /** `progress` 0 to 1 of the phrase. */
  seek(progress: number): void {
    this.at = this.length > 0 ? (Math.round((progress * this.length) / GRID) * GRID) % this.length : 0;
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
    this.at = this.within = 0;
  }

  /** Adds its sound over both channels. */
  addTo(left: Float32Array, right: Float32Array, count: number): void {
    let from = 0;
    while (from < count) {
      const to = Math.min(count, from + GRID - this.within);
      if (this.within === 0 && this.plays) this.strike();
      for (const layer of this.layers) layer.addTo(left, right, from, to);
      this.within = (this.within + to - from) % GRID;
      if (this.plays) this.at = this.length > 0 ? (this.at + to - from) % this.length : 0;
      from = to;
    }
  }

  states(): readonly ProcessorState[] {
    return this.layers.flatMap((layer) => layer.states());
  }

  /** Notes begin and end on points of the grid: 0.7 ms is below what is heard as late. */
  private strike(): void {
    const { phrase, length, begins, ends } = this.score;
    if (length === 0) return;
    // Another phrase may be shorter than the one before it.
    const now = this.at % length;
    const { notes } = phrase;
    for (let n = 0; n < notes.length; n++) if (isWithin(ends[n]!, now, length)) this.noteOff(notes[n]!.note);
    for (let n = 0; n < notes.length; n++)
      if (isWithin(begins[n]!, now, length)) this.noteOn(notes[n]!.note, notes[n]!.velocity);
  }
}

/** Whether a sample of a phrase that goes round lies between this point of the grid and the next: also where it begins anew between them. */
const isWithin = (sample: number, now: number, length: number): boolean => (sample - now + length) % length < GRID;
