import { GRID, flushed } from "./grid";
import { CHANNELS, HADAMARD_LEVEL, hadamard } from "./hadamard";
import { Rings } from "./rings";

/** Each side enters four channels, with half of its height: its energy stays what it was. */
const PER_SIDE = 1 / 2;

/**
 * Spreads each sample over a short while: stages of eight delays, behind each a Hadamard matrix, so that each stage makes eight
 * echoes of one. Nothing is lost or added: what comes out of the eight channels has the energy of what entered, at all
 * frequencies, since delays and that matrix keep it (M. A. Gerzon, "Unitary (energy-preserving) multichannel networks with
 * feedback", Electronics Letters 12, 1976).
 */
export class Diffuser {
  /** The delays of each stage, behind each other. */
  private readonly delays: Int32Array;
  /** Of both sides, which is all that enters the first stage; then of each channel of each stage behind it. */
  private readonly rings: Rings;
  private readonly places = new Int32Array(CHANNELS);
  private readonly entry: number;

  /** `stages`: the delays of the eight channels in each, in samples from 0 up. Even channels have the left, odd ones the right. */
  constructor(stages: readonly (readonly number[])[]) {
    if (stages.some(({ length }) => length !== CHANNELS)) throw new Error(`A stage has ${CHANNELS} delays`);
    this.delays = Int32Array.from(stages.flat());
    this.rings = new Rings(2 + this.delays.length - CHANNELS, Math.max(...this.delays));
    // All stages at once are turned down by what the matrix makes too loud.
    this.entry = PER_SIDE * HADAMARD_LEVEL ** stages.length;
  }

  get isSilent(): boolean {
    return this.rings.isSilent;
  }

  /** While it is silent: so many samples of silence pass. */
  idle(count: number): void {
    this.rings.go(count);
  }

  clear(): void {
    this.rings.clear();
  }

  /** A segment of the grid: both sides in, the eight channels out, behind each other and `GRID` samples apart. */
  process(left: Float64Array, right: Float64Array, out: Float64Array, count: number): void {
    const { entry, delays, rings, places } = this;
    const { samples, pitch } = rings;
    const at = rings.at(0);
    for (let i = 0; i < count; i++) {
      samples[at + i] = flushed(entry * left[i]!);
      samples[at + pitch + i] = flushed(entry * right[i]!);
    }
    rings.close(0, 2, count);
    for (let d = 0; d < delays.length; d += CHANNELS) {
      const isFirst = d === 0;
      const ring = 2 + d - CHANNELS;
      for (let c = 0; c < CHANNELS; c++) places[c] = rings.behind(isFirst ? c % 2 : ring + c, delays[d + c]!);
      if (d + CHANNELS === delays.length) hadamard(samples, places, out, 0, GRID, count);
      else {
        hadamard(samples, places, samples, rings.at(2 + d), pitch, count);
        rings.close(2 + d, CHANNELS, count);
      }
    }
    rings.go(count);
  }
}
