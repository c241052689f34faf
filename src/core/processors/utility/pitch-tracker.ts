/** Every fourth sample is enough: of the highest notes a period is six of those. */
const DECIMATION = 4;
/** In Hz: from the lowest string of a bass to B6 and a little more. */
const LOWEST = 27;
const HIGHEST = 2100;
/** Below this, in the normalised difference, a lag is a period. */
const PERIODIC = 0.15;
/** How many lags are compared on each point of the grid: the work of one window is spread over many. */
const LAGS_A_TICK = 6;
/** Over so many periods a pitch is measured, where as many fit and the sound is still like itself. */
const MOST_PERIODS = 12;
/** Amplitude under which there is nothing to tune. */
const QUIET = 0.001;

/**
 * The pitch of a sound, after A. de Cheveigné and H. Kawahara, "YIN, a fundamental frequency estimator for speech and
 * music", JASA 111 (2002): the first lag at which the sound differs little from itself, refined by a parabola.
 */
export class PitchTracker {
  /** In Hz; 0 where there is none. */
  pitch = 0;
  private readonly rate: number;
  private readonly lags: number;
  private readonly ring: Float64Array;
  private readonly window: Float64Array;
  private readonly difference: Float64Array;
  private sum = 0;
  private counted = 0;
  private next = 0;
  private isFull = false;
  /** The next lag to compare; −1 while the ring fills. */
  private lag = -1;
  /** Samples of the ring since the last that is loud enough to be tuned, as many as the ring has at most. */
  private quiet = 0;

  constructor(sampleRate: number) {
    this.rate = sampleRate / DECIMATION;
    this.lags = Math.ceil(this.rate / LOWEST) + 2;
    const length = this.lags * 2;
    this.ring = new Float64Array(length);
    this.window = new Float64Array(length);
    this.difference = new Float64Array(this.lags + 1);
  }

  hear(sample: number): void {
    this.sum += sample;
    this.counted += 1;
    if (this.counted < DECIMATION) return;
    const heard = this.sum / DECIMATION;
    this.ring[this.next] = heard;
    if (Math.abs(heard) >= QUIET) this.quiet = 0;
    else if (this.quiet < this.ring.length) this.quiet += 1;
    this.next = (this.next + 1) % this.ring.length;
    if (this.next === 0) this.isFull = true;
    this.sum = this.counted = 0;
  }

  clear(): void {
    this.ring.fill(0);
    this.pitch = this.next = this.quiet = 0;
    this.isFull = false;
    this.lag = -1;
  }

  /** A share of the work; on each point of the grid. */
  work(): void {
    if (this.lag < 0) this.begin();
    else for (let n = 0; n < LAGS_A_TICK && this.lag <= this.lags; n++) this.compare(this.lag++);
    if (this.lag <= this.lags) return;
    this.pitch = this.find();
    this.lag = -1;
  }

  private begin(): void {
    const { ring, window, next } = this;
    if (!this.isFull) return;
    if (this.quiet === ring.length) {
      this.pitch = 0;
      return;
    }
    const older = ring.length - next;
    for (let i = 0; i < older; i++) window[i] = ring[next + i]!;
    for (let i = older; i < window.length; i++) window[i] = ring[i - older]!;
    this.lag = 1;
  }

  private compare(lag: number): void {
    const { window } = this;
    const width = this.lags - 1;
    let sum = 0;
    for (let i = 0; i < width; i++) {
      const d = window[i]! - window[i + lag]!;
      sum += d * d;
    }
    this.difference[lag] = sum;
  }

  private find(): number {
    const { difference, lags } = this;
    const shortest = Math.floor(this.rate / HIGHEST);
    let total = 0;
    for (let lag = 1; lag <= lags; lag++) {
      total += difference[lag]!;
      // The cumulative mean normalised difference: 1 on average, near 0 at a period.
      difference[lag] = total > 0 ? (difference[lag]! * lag) / total : 1;
    }
    for (let lag = Math.max(2, shortest); lag < lags; lag++) {
      const isValley = difference[lag]! <= difference[lag - 1]! && difference[lag]! < difference[lag + 1]!;
      // Of a high note the period falls between two lags, where neither is much like the sound: the valley between them is.
      if (isValley && this.depth(lag) <= PERIODIC) return this.rate / this.refined(this.settled(lag));
    }
    return 0;
  }

  /** How low the parabola through three neighbours goes. */
  private depth(lag: number): number {
    const { difference } = this;
    const [before, at, after] = [difference[lag - 1]!, difference[lag]!, difference[lag + 1]!];
    return at - ((before - after) * vertex(before, at, after)) / 4;
  }

  /** A lag between samples: the lowest point of the parabola through its neighbours. */
  private settled(lag: number): number {
    const { difference } = this;
    return lag + vertex(difference[lag - 1]!, difference[lag]!, difference[lag + 1]!);
  }

  /** The period again, by its multiples: what the parabola is off by is shared out among them. */
  private refined(period: number): number {
    const { difference, lags } = this;
    let found = period;
    for (let times = 2; times <= MOST_PERIODS && times * found < lags - 2; times++) {
      let lag = Math.round(times * found);
      if (difference[lag + 1]! < difference[lag]!) lag += 1;
      else if (difference[lag - 1]! < difference[lag]!) lag -= 1;
      if (difference[lag]! > PERIODIC) break;
      found = this.settled(lag) / times;
    }
    return found;
  }
}

/** Where the parabola through three neighbours is lowest, −0.5 to 0.5 from the middle one. */
function vertex(before: number, at: number, after: number): number {
  const bend = before - 2 * at + after;
  return bend === 0 ? 0 : Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend)));
}
