import { BELL_RATIO, pianoIndex } from "../../../processors/instrument/designs";
import type { HeardValues } from "../../../processors/model";
import { panGains } from "../../../dsp/pan";
import { Fading, TURN, type Voice, pitchOf } from "../voice";

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
