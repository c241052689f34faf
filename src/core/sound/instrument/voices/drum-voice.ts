import type { DRUM_KIT } from "../../../processors/instrument/models";
import type { ValuesOf } from "../../../processors/model";
import { seededRandom } from "../../../random";
import { panLeft, panRight } from "../../../dsp/pan";
import { Fading, TURN, type Voice } from "../voice";
import { SweptFilter } from "./swept-filter";

type Drum = "kick" | "snare" | "closed" | "open" | "tom" | "cymbal";

/** The keys of the General MIDI percussion map. */
const DRUMS: Readonly<Record<number, readonly [drum: Drum, pitch: number]>> = {
  35: ["kick", 1],
  36: ["kick", 1],
  37: ["snare", 1.3],
  38: ["snare", 1],
  40: ["snare", 1.06],
  41: ["tom", 0.75],
  42: ["closed", 1],
  43: ["tom", 0.85],
  44: ["closed", 0.8],
  45: ["tom", 1],
  46: ["open", 1],
  47: ["tom", 1.2],
  48: ["tom", 1.4],
  49: ["cymbal", 1],
  50: ["tom", 1.6],
  51: ["cymbal", 1.2],
  57: ["cymbal", 0.9],
};

const OUTPUT_OF: Record<Drum, number> = { kick: 1, snare: 2, closed: 3, open: 3, tom: 4, cymbal: 4 };

const OUTPUTS = new Map(Object.entries(DRUMS).map(([note, [drum]]) => [Number(note), OUTPUT_OF[drum]]));

/** Which output a key of the drum kit goes to; 0 for a key that plays nothing. */
export const drumOutput = (note: number): number => OUTPUTS.get(note) ?? 0;

/** Keys that silence each other: a hat is open or closed, never both. 0 for those that silence none. */
export const drumChoke = (note: number): number => (OUTPUTS.get(note) === OUTPUT_OF.open ? OUTPUT_OF.open : 0);

type DrumValues = ValuesOf<typeof DRUM_KIT>;

/** A decay to −26 dB, in ms, as the seconds in which it falls by e. */
const fallTime = (decay: number): number => decay / 3000;

/** One drum: a tone that sinks as it fades, and noise through a filter. */
export class DrumVoice implements Voice<DrumValues> {
  private readonly tone: Fading;
  private readonly noise: Fading;
  private readonly filter: SweptFilter;
  private readonly random = seededRandom(23);
  private phase = 0;
  private pitch = 0;
  private sink = 0;
  private sinkBy = 0;
  private highPassed = false;
  private before = 0;
  private gainLeft = 1;
  private gainRight = 1;

  constructor(
    private readonly sampleRate: number,
    private values: DrumValues,
  ) {
    this.tone = new Fading(sampleRate);
    this.noise = new Fading(sampleRate);
    this.filter = new SweptFilter(sampleRate);
  }

  set(values: DrumValues): void {
    this.values = values;
  }

  get sounds(): boolean {
    return this.tone.level > 0 || this.noise.level > 0;
  }

  start(note: number, velocity: number): void {
    this.stop();
    const drum = DRUMS[note];
    if (!drum) return;
    this.phase = 0;
    this.strike(drum[0], drum[1], 0.15 + 0.85 * velocity * velocity);
  }

  release(): void {}

  stop(): void {
    this.tone.level = this.noise.level = 0;
  }

  addTo(left: Float32Array, right: Float32Array, from: number, to: number): void {
    for (let i = from; i < to; i++) {
      const hz = this.pitch * (1 + this.sink);
      this.sink *= this.sinkBy;
      this.phase = (this.phase + hz / this.sampleRate) % 1;
      const white = this.filter.next(this.random() * 2 - 1);
      const rough = this.highPassed ? white - this.before : white;
      this.before = white;
      const x = this.tone.next() * Math.sin(TURN * this.phase) + this.noise.next() * rough;
      left[i]! += this.gainLeft * x;
      right[i]! += this.gainRight * x;
    }
  }

  private strike(drum: Drum, pitch: number, hit: number): void {
    switch (drum) {
      case "kick":
        return this.strikeKick(pitch, hit);
      case "snare":
        return this.strikeSnare(pitch, hit);
      case "tom":
        this.tune(this.values.tomTune * pitch, 0.6, 0.08, (pitch - 1) * 60);
        this.tone.strike(0.6 * hit, 0.18);
        return this.hiss(0.05 * hit, 0.01, 4000, false);
      case "closed":
      case "open":
        this.tune(400, 0, 0.1, 25);
        return this.hiss(0.35 * hit, fallTime(this.values.hatDecay) * (drum === "open" ? 6 : 1), 14_000, true);
      case "cymbal":
        this.tune(400, 0, 0.1, -25);
        return this.hiss(0.25 * hit, 0.6, 12_000 * pitch, true);
    }
  }

  private strikeKick(pitch: number, hit: number): void {
    const { kickTune, kickClick } = this.values;
    this.tune(kickTune * pitch, 3, 0.03, 0);
    this.tone.strike(0.8 * hit, fallTime(this.values.kickDecay));
    this.hiss((0.5 * hit * kickClick) / 100, 0.004, 5000, false);
  }

  private strikeSnare(pitch: number, hit: number): void {
    const { snareTune, snareWires } = this.values;
    const decay = fallTime(this.values.snareDecay);
    this.tune(snareTune * pitch, 0.5, 0.02, 0);
    this.tone.strike(0.4 * hit, decay * 0.6);
    this.hiss((0.5 * hit * snareWires) / 100, decay, 9000, true);
  }

  private tune(hz: number, above: number, seconds: number, pan: number): void {
    this.pitch = hz;
    this.sink = above;
    this.sinkBy = Math.exp(-1 / (seconds * this.sampleRate));
    this.gainLeft = panLeft(pan) * Math.SQRT2;
    this.gainRight = panRight(pan) * Math.SQRT2;
  }

  private hiss(level: number, seconds: number, cutoff: number, highPassed: boolean): void {
    this.filter.aim(cutoff, 0.2);
    this.highPassed = highPassed;
    this.noise.strike(level, seconds);
  }
}
