import { heldEnvelopeOf } from "../../../processors/instrument/instrument-design";
import type { SAMPLER } from "../../../processors/instrument/models";
import type { ValuesOf } from "../../../processors/model";
import { EnvelopedVoice } from "../enveloped-voice";
import type { Sample } from "../voice";

type SamplerValues = ValuesOf<typeof SAMPLER>;

/** Recorded sound at the pitch of the key, read between its samples by the cubic of Catmull and Rom. */
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
    this.at = 1 + (begin / 100) * Math.max(0, sample.left.length - 4);
    this.velocity = velocity;
    this.envelope.start();
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
