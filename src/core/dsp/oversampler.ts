import { AllPassHalfBand, halfBandCoefficients } from "./all-pass-half-band";
import { GRID } from "./grid";
import { Doubler, Halver } from "./linear-half-band";
import { type Doublings, WAITS, createTaps, liftAt } from "./oversampling";

/** Between twice and four times the rate the slope has an octave to itself, and above that two, and three. */
const UPPER = [halfBandCoefficients(2, 0.35), halfBandCoefficients(2, 0.4), halfBandCoefficients(2, 0.44)];

/** Waits a few samples. */
class Wait {
  private line: Float64Array;
  private next: Float64Array;

  constructor(private readonly samples: number) {
    this.line = new Float64Array(samples);
    this.next = new Float64Array(samples);
  }

  /** No fewer at a time than it waits. */
  pass(samples: Float64Array, count: number): void {
    const { line, next, samples: wait } = this;
    for (let i = 0; i < wait; i++) next[i] = samples[count - wait + i]!;
    samples.copyWithin(wait, 0, count - wait);
    samples.set(line);
    this.line = next;
    this.next = line;
  }

  clear(): void {
    this.line.fill(0);
  }
}

/** Lifts the top by taking off each sample a share of its neighbours; late by one. */
class Lift {
  private before = 0;
  private now = 0;

  constructor(private readonly share: number) {}

  pass(samples: Float64Array, count: number): void {
    const { share } = this;
    let { before, now } = this;
    for (let i = 0; i < count; i++) {
      const next = samples[i]!;
      samples[i] = now + share * (2 * now - before - next);
      before = now;
      now = next;
    }
    this.before = before;
    this.now = now;
  }

  clear(): void {
    this.before = this.now = 0;
  }
}

/** One channel at four or eight times its rate and back, a segment of the grid at a time. */
export class Oversampler {
  /** How many samples come for each one. */
  readonly factor: number;
  /** The samples at the highest rate, to be shaped in place between `up` and `down`. */
  readonly high: Float64Array;
  private readonly doubler: Doubler;
  private readonly halver: Halver;
  private readonly wait: Wait;
  private readonly lift: Lift;
  private readonly ups: readonly AllPassHalfBand[];
  private readonly downs: readonly AllPassHalfBand[];
  /** At twice, four times, eight times the rate. */
  private readonly levels: readonly Float64Array[];

  constructor(sampleRate: number, doublings: Doublings) {
    const taps = createTaps(sampleRate);
    const upper = UPPER.slice(0, doublings - 1);
    this.factor = 2 ** doublings;
    this.doubler = new Doubler(taps, GRID);
    this.halver = new Halver(taps, GRID);
    this.ups = upper.map((coefficients) => new AllPassHalfBand(coefficients));
    this.downs = upper.map((coefficients) => new AllPassHalfBand(coefficients));
    this.wait = new Wait(WAITS[doublings]);
    this.lift = new Lift(liftAt(sampleRate, doublings));
    this.levels = Array.from({ length: doublings }, (_, at) => new Float64Array(GRID * 2 ** (at + 1)));
    this.high = this.levels[doublings - 1]!;
  }

  up(samples: Float64Array, count: number): void {
    const { levels, ups } = this;
    this.doubler.pass(samples, count, levels[0]!);
    for (let s = 0; s < ups.length; s++) ups[s]!.up(levels[s]!, count << (s + 1), levels[s + 1]!);
    this.wait.pass(this.high, count * this.factor);
  }

  down(samples: Float64Array, count: number): void {
    const { levels, downs } = this;
    for (let s = downs.length - 1; s >= 0; s--) downs[s]!.down(levels[s + 1]!, count << (s + 1), levels[s]!);
    this.lift.pass(levels[0]!, 2 * count);
    this.halver.pass(levels[0]!, count, samples);
  }

  clear(): void {
    this.doubler.clear();
    this.halver.clear();
    this.wait.clear();
    this.lift.clear();
    for (const stage of [...this.ups, ...this.downs]) stage.clear();
  }
}
