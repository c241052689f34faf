import { envelopeOf } from "../../../processors/instrument/instrument-design";
import type { HeardValues } from "../../../processors/model";
import { EnvelopeGenerator, type Sample, type Voice } from "../voice";

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
