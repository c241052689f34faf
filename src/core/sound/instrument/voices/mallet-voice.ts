import { BAR_MODES, malletShare } from "../../../processors/instrument/designs";
import type { MALLETS } from "../../../processors/instrument/models";
import type { ValuesOf } from "../../../processors/model";
import { StruckVoice } from "../struck-voice";
import { Fading, TURN, pitchOf } from "../voice";

const MODES = 4;
const NO_MODE = [1, 0, 1] as const;

/** What a value that walks to another gains of the way in a sample. */
const GLIDING = 0.002;

type MalletValues = ValuesOf<typeof MALLETS>;

/** A bar that rings in a few modes; the motor of a vibraphone turns its resonators open and shut. */
export class MalletVoice extends StruckVoice<MalletValues> {
  private readonly modes: readonly Fading[];
  private readonly phases = new Float64Array(MODES);
  private readonly steps = new Float64Array(MODES);
  private motor = 0;
  /** How far the motor is heard: it walks to what is set. */
  private swing = -1;

  constructor(sampleRate: number, values: MalletValues) {
    super(sampleRate, values);
    this.modes = Array.from({ length: MODES }, () => new Fading(sampleRate));
  }

  get sounds(): boolean {
    return this.modes[0]!.level > 0;
  }

  protected strike(note: number, velocity: number): void {
    const { bar, hardness, ring } = this.values;
    const modes = BAR_MODES[bar] ?? BAR_MODES[0]!;
    const pitch = pitchOf(note);
    const hit = Math.min(100, hardness * (0.5 + 0.6 * velocity));
    for (let m = 0; m < MODES; m++) {
      const [ratio, share, length] = modes[m] ?? NO_MODE;
      const heard = pitch * ratio < this.sampleRate * 0.45;
      this.phases[m] = 0;
      this.steps[m] = (pitch * ratio) / this.sampleRate;
      const level = heard ? 0.4 * (0.2 + 0.8 * velocity) * share * malletShare(hit, ratio) : 0;
      this.modes[m]!.strike(level, (ring / 3) * length * 2 ** ((60 - note) / 30));
    }
  }

  stop(): void {
    for (const mode of this.modes) mode.level = 0;
  }

  protected ring(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const { motor, depth } = this.values;
    const goal = depth / 200;
    if (this.swing < 0) this.swing = goal;
    for (let i = from; i < to; i++) {
      let x = 0;
      for (let m = 0; m < MODES; m++) {
        const level = this.modes[m]!.next();
        if (level === 0) continue;
        const phase = this.phases[m]!;
        x += level * Math.sin(TURN * phase);
        this.phases[m] = phase + this.steps[m]! >= 1 ? phase + this.steps[m]! - 1 : phase + this.steps[m]!;
      }
      x *= this.damping();
      this.swing += GLIDING * (goal - this.swing);
      const { swing } = this;
      const tremolo = 1 - swing + swing * Math.sin(TURN * this.motor);
      this.motor = (this.motor + motor / this.sampleRate) % 1;
      left[i]! += tremolo * x;
      right[i]! += tremolo * x;
    }
  }
}
