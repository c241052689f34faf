import { BELL_RATIO, pianoIndex } from "../../../processors/instrument/designs";
import type { ELECTRIC_PIANO } from "../../../processors/instrument/models";
import type { ValuesOf } from "../../../processors/model";
import { panLeft, panRight } from "../../../dsp/pan";
import { StruckVoice } from "../struck-voice";
import { Fading, TURN, pitchOf } from "../voice";

type PianoValues = ValuesOf<typeof ELECTRIC_PIANO>;

/** In turns a sample: what lies above would fold back to where it is heard. */
const HIGHEST = 0.58;
/** A partial of this size is none. */
const FAINT = 5e-4;

/**
 * How far a phase may be bent so that what it makes above is nothing: the partial of number m has the size J_m(index), which is
 * below (index ÷ 2)^m ÷ m!.
 */
function brightestAt(step: number): number {
  const first = Math.max(1, Math.floor(HIGHEST / step));
  let logarithm = Math.log(FAINT);
  for (let n = 2; n <= first; n++) logarithm += Math.log(n);
  return 2 * Math.exp(logarithm / first);
}

/** A sine whose phase another of the same pitch bends, and a tine above it; hit harder it is brighter. */
export class PianoVoice extends StruckVoice<PianoValues> {
  private readonly body: Fading;
  private readonly tine: Fading;
  private phase = 0;
  private step = 0;
  private index = 0;
  private gainLeft = 1;
  private gainRight = 1;

  constructor(sampleRate: number, values: PianoValues) {
    super(sampleRate, values);
    this.body = new Fading(sampleRate);
    this.tine = new Fading(sampleRate);
  }

  get sounds(): boolean {
    return this.body.level > 0;
  }

  protected strike(note: number, velocity: number): void {
    const { ring, touch, spread } = this.values;
    const { body, bell } = pianoIndex(this.values);
    const hit = 1 - (touch / 100) * (1 - velocity);
    this.phase = 0;
    this.step = pitchOf(note) / this.sampleRate;
    this.index = Math.min(body * hit * hit, brightestAt(this.step));
    // High notes fade sooner, as short tines do.
    this.body.strike(0.35 * hit, (ring / 3) * 2 ** ((60 - note) / 36));
    this.tine.strike(BELL_RATIO * this.step < HIGHEST ? bell * hit * hit : 0, 0.12);
    const pan = ((note - 60) / 36) * spread;
    this.gainLeft = panLeft(pan) * Math.SQRT2;
    this.gainRight = panRight(pan) * Math.SQRT2;
  }

  stop(): void {
    this.body.level = 0;
  }

  protected ring(left: Float32Array, right: Float32Array, from: number, to: number): void {
    for (let i = from; i < to; i++) {
      const level = this.body.next() * this.damping();
      const bend = this.index * (level / 0.35) * Math.sin(TURN * this.phase);
      const x =
        level * Math.sin(TURN * this.phase + bend) +
        this.tine.next() * level * Math.sin(TURN * BELL_RATIO * this.phase);
      left[i]! += this.gainLeft * x;
      right[i]! += this.gainRight * x;
      this.phase += this.step;
      if (this.phase >= 1) this.phase -= 1;
    }
  }
}
