import type { StereoSound } from "../../dsp/stereo-sound";
import type { KeySignal } from "../../processors/kernel";
import type { KeyBus } from "../chain/chain-runtime";
import { type Stretch, samplesOf } from "../../materials/stretch";
import { walk } from "../../dsp/walk";

interface Reel {
  loop: StereoSound;
  at: number;
}

const SILENCE: StereoSound = { left: new Float32Array(1), right: new Float32Array(1), sampleRate: 1 };

/** Goes on by a sample, round and round. */
function wind(reel: Reel): void {
  reel.at = reel.at + 1 === reel.loop.left.length ? 0 : reel.at + 1;
}

/** The material: a loop, or a stretch of it, that goes round; what is new, and every leap, is cross-faded in. */
export class MaterialReel {
  /** The stretch at hand. */
  readonly left: Float32Array;
  readonly right: Float32Array;
  private reel: Reel | null = null;
  private leaving: Reel | null = null;
  private next: Reel | null = null;
  /** What fades past the end of a stretch: made once, since nothing is allocated while it plays. */
  private readonly spare: Reel = { loop: SILENCE, at: 0 };
  private share = 1;
  private stretch: Stretch | null = null;
  /** In samples of the loop: what goes round. */
  private begin = 0;
  private end = 0;

  /** `size`: the longest stretch, in samples; `step`: what the share of a new loop gains in one. */
  constructor(
    size: number,
    private readonly step: number,
  ) {
    this.left = new Float32Array(size);
    this.right = new Float32Array(size);
  }

  /** Another loop, from its start, with all of it going round. */
  set(loop: StereoSound): void {
    this.stretch = null;
    this.setBounds(loop);
    this.leap({ loop, at: 0 });
  }

  /** What goes round; null for all of it. The loop leaps into it where it is outside. */
  setStretch(stretch: Stretch | null): void {
    this.stretch = stretch;
    const { reel } = this;
    if (!reel) return;
    this.setBounds(reel.loop);
    if (reel.at < this.begin || reel.at >= this.end) this.leap({ loop: reel.loop, at: this.begin });
  }

  /** Goes on at a place of the loop, 0 to 1; at the begin of what goes round where that is outside. */
  seek(to: number): void {
    const { reel } = this;
    if (!reel) return;
    const at = Math.round(to * reel.loop.left.length);
    this.leap({ loop: reel.loop, at: at >= this.begin && at < this.end ? at : this.begin });
  }

  /** Where it is, 0 to 1. */
  get progress(): number {
    return this.reel ? this.reel.at / this.reel.loop.left.length : 0;
  }

  /** Makes the next stretch silence, and the reel stands still. */
  rest(count: number): void {
    this.left.fill(0, 0, count);
    this.right.fill(0, 0, count);
  }

  /** Reads the next stretch; silence where there is no loop. */
  read(count: number): void {
    if (!this.reel) return this.rest(count);
    for (let i = 0; i < count; i++) this.readOne(i);
  }

  private readOne(i: number): void {
    const { left, right, leaving } = this;
    const reel = this.reel!;
    this.share = walk(this.share, 1, this.step);
    left[i] = this.share * reel.loop.left[reel.at]!;
    right[i] = this.share * reel.loop.right[reel.at]!;
    if (leaving) {
      left[i] += (1 - this.share) * leaving.loop.left[leaving.at]!;
      right[i] += (1 - this.share) * leaving.loop.right[leaving.at]!;
      wind(leaving);
      if (this.share === 1) this.arrive();
    }
    // The end of a whole loop is made to meet its start; that of a stretch is not.
    if (this.stretch && (reel.at + 1 >= this.end || reel.at < this.begin)) this.turnBack(reel);
    else wind(reel);
  }

  /** From the end of a stretch to its begin: the one reel goes on past the end while it fades. */
  private turnBack(reel: Reel): void {
    // Within the fade of a leap it goes on past the end until that has been made.
    if (this.leaving) return wind(reel);
    const { spare } = this;
    spare.loop = reel.loop;
    spare.at = reel.at;
    wind(spare);
    this.leaving = spare;
    this.share = 0;
    reel.at = this.begin;
  }

  private setBounds(loop: StereoSound): void {
    const { length } = loop.left;
    [this.begin, this.end] = this.stretch ? samplesOf(this.stretch, length, loop.sampleRate) : [0, length];
  }

  /** One leap after the other: one that comes while another is being made waits for it, and only the last of them. */
  private leap(reel: Reel): void {
    if (this.leaving) {
      this.next = reel;
      return;
    }
    this.leaving = this.reel;
    this.share = this.reel ? 0 : 1;
    this.reel = reel;
  }

  private arrive(): void {
    const { next } = this;
    this.leaving = null;
    this.next = null;
    if (next) this.leap(next);
  }
}

interface KeyReel extends Reel, KeySignal {
  /** What it gave earlier, as it was read last. */
  readonly past: KeySignal;
}

const keySignal = (size: number): KeySignal => ({ left: new Float32Array(size), right: new Float32Array(size) });

/** The sounds that key processors, each on its own reel beside the material. */
export class KeyReels implements KeyBus {
  readonly shift = 0;
  private readonly byMaterial = new Map<string, KeyReel>();
  private reels: readonly KeyReel[] = [];

  constructor(private readonly size: number) {}

  set(material: string, loop: StereoSound): void {
    const { size } = this;
    this.byMaterial.set(material, { loop, at: 0, ...keySignal(size), past: keySignal(size) });
    this.reels = [...this.byMaterial.values()];
  }

  find(material: string): KeySignal | null {
    return this.byMaterial.get(material) ?? null;
  }

  findPast(material: string): KeySignal | null {
    return this.byMaterial.get(material)?.past ?? null;
  }

  /** Reads the `count` samples of each that began `back` samples before now. */
  readPast(back: number, count: number): void {
    for (let r = 0; r < this.reels.length; r++) {
      const { loop, at, past } = this.reels[r]!;
      const { length } = loop.left;
      let from = (((at - back) % length) + length) % length;
      for (let i = 0; i < count; i++) {
        past.left[i] = loop.left[from]!;
        past.right[i] = loop.right[from]!;
        from = from + 1 === length ? 0 : from + 1;
      }
    }
  }

  /** Reads the next stretch of each. */
  read(count: number): void {
    for (let r = 0; r < this.reels.length; r++) {
      const reel = this.reels[r]!;
      for (let i = 0; i < count; i++) {
        reel.left[i] = reel.loop.left[reel.at]!;
        reel.right[i] = reel.loop.right[reel.at]!;
        wind(reel);
      }
    }
  }
}
