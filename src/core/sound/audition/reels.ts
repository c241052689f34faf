import type { StereoSound } from "../../dsp/stereo-sound";
import type { KeySignal } from "../../processors/kernel";
import type { KeyBus } from "../chain/chain-runtime";
import { walk } from "./walk";

interface Reel {
  readonly loop: StereoSound;
  at: number;
}

function wind(reel: Reel): void {
  reel.at = reel.at + 1 === reel.loop.left.length ? 0 : reel.at + 1;
}

/** The material: a loop that goes round; a new one is cross-faded in, from its start. */
export class MaterialReel {
  /** The stretch at hand. */
  readonly left: Float32Array;
  readonly right: Float32Array;
  private reel: Reel | null = null;
  private leaving: Reel | null = null;
  private share = 1;

  /** `size`: the longest stretch, in samples; `step`: what the share of a new loop gains in one. */
  constructor(
    size: number,
    private readonly step: number,
  ) {
    this.left = new Float32Array(size);
    this.right = new Float32Array(size);
  }

  set(loop: StereoSound): void {
    this.leaving = this.reel;
    this.share = this.reel ? 0 : 1;
    this.reel = { loop, at: 0 };
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
    const { left, right, reel, leaving, step } = this;
    if (!reel) return this.rest(count);
    for (let i = 0; i < count; i++) {
      this.share = walk(this.share, 1, step);
      left[i] = this.share * reel.loop.left[reel.at]!;
      right[i] = this.share * reel.loop.right[reel.at]!;
      wind(reel);
      if (!leaving) continue;
      left[i]! += (1 - this.share) * leaving.loop.left[leaving.at]!;
      right[i]! += (1 - this.share) * leaving.loop.right[leaving.at]!;
      wind(leaving);
    }
    if (this.share === 1) this.leaving = null;
  }
}

interface KeyReel extends Reel, KeySignal {}

/** The sounds that key processors, each on its own reel beside the material. */
export class KeyReels implements KeyBus {
  readonly shift = 0;
  private readonly byMaterial = new Map<string, KeyReel>();
  private reels: readonly KeyReel[] = [];

  constructor(private readonly size: number) {}

  set(material: string, loop: StereoSound): void {
    const [left, right] = [new Float32Array(this.size), new Float32Array(this.size)];
    this.byMaterial.set(material, { loop, at: 0, left, right });
    this.reels = [...this.byMaterial.values()];
  }

  find(material: string): KeySignal | null {
    return this.byMaterial.get(material) ?? null;
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
