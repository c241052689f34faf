import { BAR_MODES, BELL_RATIO, malletShare, pianoIndex } from "../../processors/instrument/designs";
import { envelopeOf } from "../../processors/instrument/instrument-design";
import type { HeardValues } from "../../processors/model";
import { seededRandom } from "../../random";
import { GRID } from "../grid";
import { panGains } from "../pan";
import { EnvelopeGenerator, Fading, type Sample, type Voice, pitchOf, polyBlep } from "./voice";

const TURN = 2 * Math.PI;

/** A sine whose phase another of the same pitch bends, and a tine above it; hit harder it is brighter. */
export class PianoVoice implements Voice {
  private readonly body: Fading;
  private readonly tine: Fading;
  private readonly damper: Fading;
  private values: HeardValues = {};
  private phase = 0;
  private step = 0;
  private index = 0;
  private gainLeft = 1;
  private gainRight = 1;
  private damped = false;

  constructor(private readonly sampleRate: number) {
    this.body = new Fading(sampleRate);
    this.tine = new Fading(sampleRate);
    this.damper = new Fading(sampleRate);
  }

  set(values: HeardValues): void {
    this.values = values;
  }

  get sounds(): boolean {
    return this.body.level > 0;
  }

  start(note: number, velocity: number): void {
    const { ring = 4, touch = 60, spread = 40 } = this.values;
    const { body, bell } = pianoIndex(this.values);
    const hit = 1 - (touch / 100) * (1 - velocity);
    this.phase = 0;
    this.step = pitchOf(note) / this.sampleRate;
    this.index = body * hit * hit;
    this.damped = false;
    // High notes fade sooner, as short tines do.
    this.body.strike(0.35 * hit, (ring / 3) * 2 ** ((60 - note) / 36));
    this.tine.strike(bell * hit * hit, 0.12);
    this.damper.level = 1;
    const { left, right } = panGains(((note - 60) / 36) * spread);
    this.gainLeft = left * Math.SQRT2;
    this.gainRight = right * Math.SQRT2;
  }

  release(): void {
    this.damped = true;
    this.damper.fallIn((this.values.release ?? 120) / 1000);
  }

  stop(): void {
    this.body.level = 0;
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    for (let i = from; i < to; i++) {
      const level = this.body.next() * (this.damped ? this.damper.next() : 1);
      const bend = this.index * (level / 0.35) * Math.sin(TURN * this.phase);
      const x =
        level * Math.sin(TURN * this.phase + bend) +
        this.tine.next() * level * Math.sin(TURN * BELL_RATIO * this.phase);
      left[i]! += this.gainLeft * x;
      right[i]! += this.gainRight * x;
      this.phase += this.step;
      if (this.phase >= 1) this.phase -= 1;
    }
    if (this.damped && this.damper.level === 0) this.stop();
  }
}

/**
 * A low pass of the second order that stays itself while it is swept: the trapezoidal state-variable filter after
 * V. Zavalishin, "The art of VA filter design" (2012).
 */
class SweptFilter {
  private one = 0;
  private two = 0;
  private g = 0;
  private k = 1;
  private a = 1;

  constructor(private readonly sampleRate: number) {}

  aim(cutoff: number, resonance: number): void {
    this.g = Math.tan((Math.PI * Math.min(cutoff, this.sampleRate * 0.45)) / this.sampleRate);
    this.k = 2 - 1.95 * resonance;
    this.a = 1 / (1 + this.g * (this.g + this.k));
  }

  next(x: number): number {
    const band = this.a * (this.g * (x - this.two) + this.one);
    const low = this.two + this.g * band;
    this.one = 2 * band - this.one;
    this.two = 2 * low - this.two;
    return low;
  }

  clear(): void {
    this.one = this.two = 0;
  }
}

/** A saw or a pulse with its octave below, through a filter that the envelope opens. */
export class BassVoice implements Voice {
  private readonly envelope: EnvelopeGenerator;
  private readonly first: SweptFilter;
  private readonly second: SweptFilter;
  private values: HeardValues = {};
  private phase = 0;
  private under = 0;
  private step = 0;
  private velocity = 0;
  private counted = 0;

  constructor(private readonly sampleRate: number) {
    this.envelope = new EnvelopeGenerator(sampleRate);
    this.first = new SweptFilter(sampleRate);
    this.second = new SweptFilter(sampleRate);
  }

  set(values: HeardValues): void {
    this.values = values;
    this.envelope.set(envelopeOf(values));
  }

  get sounds(): boolean {
    return this.envelope.sounds;
  }

  start(note: number, velocity: number): void {
    this.step = pitchOf(note) / this.sampleRate;
    this.velocity = 0.3 + 0.7 * velocity;
    this.phase = this.under = this.counted = 0;
    this.first.clear();
    this.second.clear();
    this.envelope.start();
  }

  release(): void {
    this.envelope.release();
  }

  stop(): void {
    this.envelope.stop();
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { wave = 0, sub = 40, cutoff = 420, resonance = 25, sweep = 24 } = this.values;
    const below = sub / 100;
    for (let i = from; i < to; i++) {
      const level = this.envelope.next();
      if (this.counted % 16 === 0) {
        // In semitones: a sweep of 24 opens it by two octaves at the envelope's top.
        const open = cutoff * 2 ** ((sweep / 12) * level * this.velocity);
        this.first.aim(open, resonance / 100);
        this.second.aim(open, 0.3);
      }
      this.counted += 1;
      const saw = 2 * this.phase - 1 - polyBlep(this.phase, this.step);
      const x = (wave === 1 ? this.pulse() : saw) * 0.3 + below * 0.3 * Math.sin(TURN * this.under);
      const y = level * this.velocity * this.second.next(this.first.next(x));
      left[i]! += y;
      right[i]! += y;
      this.phase = (this.phase + this.step) % 1;
      this.under = (this.under + this.step / 2) % 1;
    }
  }

  private pulse(): number {
    const half = (this.phase + 0.5) % 1;
    return (this.phase < 0.5 ? 1 : -1) + polyBlep(this.phase, this.step) - polyBlep(half, this.step);
  }
}

const PAD_VOICES = 3;

/** Three saws, one in the middle and one to each side, a little apart in pitch, through a filter that drifts. */
export class PadVoice implements Voice {
  private readonly envelope: EnvelopeGenerator;
  private readonly filters: readonly [SweptFilter, SweptFilter];
  private readonly phases = new Float64Array(PAD_VOICES);
  private readonly steps = new Float64Array(PAD_VOICES);
  private values: HeardValues = {};
  private velocity = 0;
  private turn = 0;
  private counted = 0;

  constructor(private readonly sampleRate: number) {
    this.envelope = new EnvelopeGenerator(sampleRate);
    this.filters = [new SweptFilter(sampleRate), new SweptFilter(sampleRate)];
  }

  set(values: HeardValues): void {
    this.values = values;
    this.envelope.set(envelopeOf(values));
  }

  get sounds(): boolean {
    return this.envelope.sounds;
  }

  start(note: number, velocity: number): void {
    const cents = ((this.values.detune ?? 35) / 100) * 30;
    for (let v = 0; v < PAD_VOICES; v++) {
      this.steps[v] = (pitchOf(note) * 2 ** (((v - 1) * cents) / 1200)) / this.sampleRate;
      // Unlike beginnings, always the same: three equal saws would begin as one.
      this.phases[v] = (0.37 * (v + 1) + note * 0.11) % 1;
    }
    this.velocity = 0.4 + 0.6 * velocity;
    this.turn = (note * 0.07) % 1;
    this.counted = 0;
    for (const filter of this.filters) filter.clear();
    this.envelope.start();
  }

  release(): void {
    this.envelope.release();
  }

  stop(): void {
    this.envelope.stop();
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { width = 70, cutoff = 1800, motion = 30 } = this.values;
    const side = width / 100;
    const [filterLeft, filterRight] = this.filters;
    for (let i = from; i < to; i++) {
      if (this.counted % GRID === 0) {
        const drift = (motion / 100) * 1.5 * Math.sin(TURN * this.turn);
        filterLeft.aim(cutoff * 2 ** drift, 0.15);
        filterRight.aim(cutoff * 2 ** -drift, 0.15);
        this.turn = (this.turn + (0.21 * GRID) / this.sampleRate) % 1;
      }
      this.counted += 1;
      const low = this.saw(0);
      const middle = this.saw(1);
      const high = this.saw(2);
      const level = 0.16 * this.velocity * this.envelope.next();
      left[i]! += level * filterLeft.next(middle + low + (1 - side) * high);
      right[i]! += level * filterRight.next(middle + high + (1 - side) * low);
    }
  }

  private saw(v: number): number {
    const phase = this.phases[v]!;
    const step = this.steps[v]!;
    this.phases[v] = phase + step >= 1 ? phase + step - 1 : phase + step;
    return 2 * phase - 1 - polyBlep(phase, step);
  }
}

const MODES = 4;

/** A bar that rings in a few modes; the motor of a vibraphone turns its resonators open and shut. */
export class MalletVoice implements Voice {
  private readonly modes: readonly Fading[];
  private readonly damper: Fading;
  private readonly phases = new Float64Array(MODES);
  private readonly steps = new Float64Array(MODES);
  private values: HeardValues = {};
  private damped = false;
  private motor = 0;

  constructor(private readonly sampleRate: number) {
    this.modes = Array.from({ length: MODES }, () => new Fading(sampleRate));
    this.damper = new Fading(sampleRate);
  }

  set(values: HeardValues): void {
    this.values = values;
  }

  get sounds(): boolean {
    return this.modes[0]!.level > 0;
  }

  start(note: number, velocity: number): void {
    const { bar = 0, hardness = 45, ring = 3 } = this.values;
    const modes = BAR_MODES[bar] ?? BAR_MODES[0]!;
    const pitch = pitchOf(note);
    const hit = Math.min(100, hardness * (0.5 + 0.6 * velocity));
    this.damped = false;
    this.damper.level = 1;
    for (let m = 0; m < MODES; m++) {
      const [ratio, share, length] = modes[m] ?? [1, 0, 1];
      const heard = pitch * ratio < this.sampleRate * 0.45;
      this.phases[m] = 0;
      this.steps[m] = (pitch * ratio) / this.sampleRate;
      const level = heard ? 0.4 * (0.2 + 0.8 * velocity) * share * malletShare(hit, ratio) : 0;
      this.modes[m]!.strike(level, (ring / 3) * length * 2 ** ((60 - note) / 30));
    }
  }

  release(): void {
    this.damped = true;
    this.damper.fallIn((this.values.release ?? 500) / 1000);
  }

  stop(): void {
    for (const mode of this.modes) mode.level = 0;
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { motor = 4.5, depth = 0 } = this.values;
    const swing = depth / 200;
    for (let i = from; i < to; i++) {
      let x = 0;
      for (let m = 0; m < MODES; m++) {
        const level = this.modes[m]!.next();
        if (level === 0) continue;
        const phase = this.phases[m]!;
        x += level * Math.sin(TURN * phase);
        this.phases[m] = phase + this.steps[m]! >= 1 ? phase + this.steps[m]! - 1 : phase + this.steps[m]!;
      }
      if (this.damped) x *= this.damper.next();
      const tremolo = 1 - swing + swing * Math.sin(TURN * this.motor);
      this.motor = (this.motor + motor / this.sampleRate) % 1;
      left[i]! += tremolo * x;
      right[i]! += tremolo * x;
    }
    if (this.damped && this.damper.level === 0) this.stop();
  }
}

type Drum = "kick" | "snare" | "closed" | "open" | "tom" | "cymbal";

/** The keys of the General MIDI percussion map. */
const DRUMS: Readonly<Record<number, readonly [drum: Drum, pitch: number]>> = {
  35: ["kick", 1],
  36: ["kick", 1],
  37: ["snare", 1.3],
  38: ["snare", 1],
  40: ["snare", 1.06],
  41: ["tom", 0.75],
  42: ["closed", 1],
  43: ["tom", 0.85],
  44: ["closed", 0.8],
  45: ["tom", 1],
  46: ["open", 1],
  47: ["tom", 1.2],
  48: ["tom", 1.4],
  49: ["cymbal", 1],
  50: ["tom", 1.6],
  51: ["cymbal", 1.2],
  57: ["cymbal", 0.9],
};

const OUTPUT_OF: Record<Drum, number> = { kick: 1, snare: 2, closed: 3, open: 3, tom: 4, cymbal: 4 };

/** Which output a key of the drum kit goes to; 0 for a key that plays nothing. */
export const drumOutput = (note: number): number => (DRUMS[note] ? OUTPUT_OF[DRUMS[note]![0]] : 0);

/** One drum: a tone that sinks as it fades, and noise through a filter. */
export class DrumVoice implements Voice {
  private readonly tone: Fading;
  private readonly noise: Fading;
  private readonly filter: SweptFilter;
  private readonly random = seededRandom(23);
  private values: HeardValues = {};
  private phase = 0;
  private pitch = 0;
  private sink = 0;
  private sinkBy = 0;
  private highPassed = false;
  private before = 0;
  private pan = { left: 1, right: 1 };

  constructor(private readonly sampleRate: number) {
    this.tone = new Fading(sampleRate);
    this.noise = new Fading(sampleRate);
    this.filter = new SweptFilter(sampleRate);
  }

  set(values: HeardValues): void {
    this.values = values;
  }

  get sounds(): boolean {
    return this.tone.level > 0 || this.noise.level > 0;
  }

  start(note: number, velocity: number): void {
    const [drum, pitch] = DRUMS[note] ?? [null, 1];
    this.stop();
    if (drum === null) return;
    this.phase = 0;
    this.strike(drum, pitch, 0.15 + 0.85 * velocity * velocity);
  }

  release(): void {}

  stop(): void {
    this.tone.level = this.noise.level = 0;
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    for (let i = from; i < to; i++) {
      const hz = this.pitch * (1 + this.sink);
      this.sink *= this.sinkBy;
      this.phase = (this.phase + hz / this.sampleRate) % 1;
      const white = this.filter.next(this.random() * 2 - 1);
      const rough = this.highPassed ? white - this.before : white;
      this.before = white;
      const x = this.tone.next() * Math.sin(TURN * this.phase) + this.noise.next() * rough;
      left[i]! += this.pan.left * x;
      right[i]! += this.pan.right * x;
    }
  }

  private strike(drum: Drum, pitch: number, hit: number): void {
    const v = this.values;
    const seconds = (id: string, start: number) => (v[id] ?? start) / 3000;
    switch (drum) {
      case "kick":
        this.tune((v.kickTune ?? 52) * pitch, 3, 0.03, 0);
        this.tone.strike(0.8 * hit, seconds("kickDecay", 320));
        return this.hiss((0.5 * hit * (v.kickClick ?? 40)) / 100, 0.004, 5000, false);
      case "snare":
        this.tune((v.snareTune ?? 185) * pitch, 0.5, 0.02, 0);
        this.tone.strike(0.4 * hit, seconds("snareDecay", 190) * 0.6);
        return this.hiss((0.5 * hit * (v.snareWires ?? 60)) / 100, seconds("snareDecay", 190), 9000, true);
      case "tom":
        this.tune((v.tomTune ?? 105) * pitch, 0.6, 0.08, (pitch - 1) * 60);
        this.tone.strike(0.6 * hit, 0.18);
        return this.hiss(0.05 * hit, 0.01, 4000, false);
      case "closed":
      case "open":
        this.tune(400, 0, 0.1, 25);
        return this.hiss(
          0.35 * hit,
          drum === "open" ? seconds("hatDecay", 60) * 6 : seconds("hatDecay", 60),
          14_000,
          true,
        );
      case "cymbal":
        this.tune(400, 0, 0.1, -25);
        return this.hiss(0.25 * hit, 0.6, 12_000 * pitch, true);
    }
  }

  // eslint-disable-next-line max-params -- four plain figures of one strike
  private tune(hz: number, above: number, seconds: number, pan: number): void {
    this.pitch = hz;
    this.sink = above;
    this.sinkBy = Math.exp(-1 / (seconds * this.sampleRate));
    const { left, right } = panGains(pan);
    this.pan = { left: left * Math.SQRT2, right: right * Math.SQRT2 };
  }

  // eslint-disable-next-line max-params -- four plain figures of one strike
  private hiss(level: number, seconds: number, cutoff: number, highPassed: boolean): void {
    this.filter.aim(cutoff, 0.2);
    this.highPassed = highPassed;
    this.noise.strike(level, seconds);
  }
}

/** Recorded sound at the pitch of the key, read between its samples by the cubic of Catmull and Rom. */
export class SampleVoice implements Voice {
  private readonly envelope: EnvelopeGenerator;
  private values: HeardValues = {};
  private at = 0;
  private step = 1;
  private velocity = 0;

  constructor(
    private readonly sampleRate: number,
    private readonly sample: () => Sample | null,
  ) {
    this.envelope = new EnvelopeGenerator(sampleRate);
  }

  set(values: HeardValues): void {
    this.values = values;
    this.envelope.set({ ...envelopeOf(values), decay: 10, sustain: 1 });
  }

  get sounds(): boolean {
    return this.envelope.sounds;
  }

  start(note: number, velocity: number): void {
    const sample = this.sample();
    if (!sample) return;
    const { root = 60, tune = 0, begin = 0, tracks = 1 } = this.values;
    const semitones = (tracks === 1 ? note - root : 0) + tune;
    this.step = (2 ** (semitones / 12) * sample.sampleRate) / this.sampleRate;
    this.at = 1 + (begin / 100) * Math.max(0, sample.left.length - 4);
    this.velocity = velocity;
    this.envelope.start();
  }

  release(): void {
    this.envelope.release();
  }

  stop(): void {
    this.envelope.stop();
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const sample = this.sample();
    if (!sample) return this.stop();
    const last = sample.left.length - 3;
    const loops = this.values.loop === 1;
    for (let i = from; i < to; i++) {
      if (this.at > last) {
        if (!loops) return this.stop();
        this.at = 1 + (this.at - last);
      }
      const level = this.velocity * this.envelope.next();
      left[i]! += level * between(sample.left, this.at);
      right[i]! += level * between(sample.right, this.at);
      this.at += this.step;
    }
  }
}

function between(samples: Float32Array, place: number): number {
  const whole = Math.floor(place);
  const share = place - whole;
  const before = samples[whole - 1]!;
  const near = samples[whole]!;
  const far = samples[whole + 1]!;
  const beyond = samples[whole + 2]!;
  const slope = (far - before) / 2;
  const bend = before - 2.5 * near + 2 * far - beyond / 2;
  const twist = (beyond - before) / 2 + 1.5 * (near - far);
  return near + share * (slope + share * (bend + share * twist));
}
