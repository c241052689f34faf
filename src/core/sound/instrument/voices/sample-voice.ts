import { heldEnvelopeOf } from "../../../processors/instrument/instrument-design";
import type { SAMPLER } from "../../../processors/instrument/models";
import type { ValuesOf } from "../../../processors/model";
import { readBetween } from "../../../dsp/windowed-sinc";
import { EnvelopedVoice } from "../enveloped-voice";
import type { Sample } from "../voice";

type SamplerValues = ValuesOf<typeof SAMPLER>;

/** In seconds: the end of a loop is cross-faded with what leads to its begin. */
const MEET = 0.01;

/** Recorded sound at the pitch of the key; what its loop leaves at the end leads into its begin. */
export class SampleVoice extends EnvelopedVoice<SamplerValues> {
  private at = 0;
  private step = 1;
  private velocity = 0;

  constructor(
    sampleRate: number,
    values: SamplerValues,
    private readonly sample: () => Sample | null,
  ) {
    super(sampleRate, values, heldEnvelopeOf);
  }

  start(note: number, velocity: number): void {
    const sample = this.sample();
    if (!sample) return;
    const { root, tune, begin, tracks } = this.values;
    const semitones = (tracks === 1 ? note - root : 0) + tune;
    this.step = (2 ** (semitones / 12) * sample.sampleRate) / this.sampleRate;
    this.at = (begin / 100) * Math.max(0, sample.left.length - 1);
    this.velocity = velocity;
    this.envelope.start();
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const sample = this.sample();
    if (!sample) return this.stop();
    const end = sample.left.length;
    const loops = this.values.loop === 1;
    const meet = loops ? Math.min(end / 4, MEET * sample.sampleRate) : 0;
    // So far back does a loop leap: to where what it faded to has come.
    const back = end - meet;
    for (let i = from; i < to; i++) {
      if (this.at >= end) {
        if (!loops) return this.stop();
        this.at -= back;
      }
      const level = this.velocity * this.envelope.next();
      const fade = meet > 0 ? Math.max(0, (this.at - back) / meet) : 0;
      left[i]! += level * this.read(sample.left, fade, back);
      right[i]! += level * this.read(sample.right, fade, back);
      this.at += this.step;
    }
  }

  private read(samples: Float32Array, fade: number, back: number): number {
    const here = readBetween(samples, this.at, this.step);
    return fade === 0 ? here : here + fade * (readBetween(samples, this.at - back, this.step) - here);
  }
}
