import { envelopeOf } from "../../../processors/instrument/instrument-design";
import type { PAD_SYNTH } from "../../../processors/instrument/models";
import type { ValuesOf } from "../../../processors/model";
import { GRID } from "../../../dsp/grid";
import { dropResidue } from "../../../dsp/step-residue";
import { EnvelopedVoice } from "../enveloped-voice";
import { TURN, pitchOf } from "../voice";
import { SweptFilter } from "./swept-filter";

const PAD_VOICES = 3;

type PadValues = ValuesOf<typeof PAD_SYNTH>;

/** Three saws, one in the middle and one to each side, a little apart in pitch, through a filter that drifts. */
export class PadVoice extends EnvelopedVoice<PadValues> {
  private readonly filters: readonly [SweptFilter, SweptFilter];
  private readonly phases = new Float64Array(PAD_VOICES);
  private readonly steps = new Float64Array(PAD_VOICES);
  private velocity = 0;
  private turn = 0;
  private counted = 0;

  constructor(sampleRate: number, values: PadValues) {
    super(sampleRate, values, envelopeOf);
    this.filters = [new SweptFilter(sampleRate), new SweptFilter(sampleRate)];
  }

  start(note: number, velocity: number): void {
    const cents = (this.values.detune / 100) * 30;
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

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { width, cutoff, motion } = this.values;
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
    return 2 * phase - 1 - dropResidue(phase, step);
  }
}
