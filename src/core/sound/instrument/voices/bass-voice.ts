import { envelopeOf } from "../../../processors/instrument/instrument-design";
import type { BASS_SYNTH } from "../../../processors/instrument/models";
import type { ValuesOf } from "../../../processors/model";
import { dropResidue } from "../../../dsp/step-residue";
import { EnvelopedVoice } from "../enveloped-voice";
import { TURN, pitchOf } from "../voice";
import { SweptFilter } from "./swept-filter";

type BassValues = ValuesOf<typeof BASS_SYNTH>;

/** A saw or a pulse with its octave below, through a filter that the envelope opens. */
export class BassVoice extends EnvelopedVoice<BassValues> {
  private readonly first: SweptFilter;
  private readonly second: SweptFilter;
  private phase = 0;
  private under = 0;
  private step = 0;
  private velocity = 0;
  private counted = 0;

  constructor(sampleRate: number, values: BassValues) {
    super(sampleRate, values, envelopeOf);
    this.first = new SweptFilter(sampleRate);
    this.second = new SweptFilter(sampleRate);
  }

  start(note: number, velocity: number): void {
    this.step = pitchOf(note) / this.sampleRate;
    this.velocity = 0.3 + 0.7 * velocity;
    this.phase = this.under = this.counted = 0;
    this.first.clear();
    this.second.clear();
    this.envelope.start();
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { wave, sub, cutoff, resonance, sweep } = this.values;
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
      const saw = 2 * this.phase - 1 - dropResidue(this.phase, this.step);
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
    return (this.phase < 0.5 ? 1 : -1) + dropResidue(this.phase, this.step) - dropResidue(half, this.step);
  }
}
