import type { HeardChain } from "../chains/heard-chain";
import { type ChainRuntime, type ProcessorState, createChainRuntime } from "./chain/chain-runtime";
import type { StereoSound } from "./render";

/** What is listened to: the loop as it is, or through one of two chains. */
export type Voice = "dry" | "a" | "b";

export interface Audition {
  /** A new loop is cross-faded in, from its start. */
  setLoop(loop: StereoSound): void;
  /** Takes a chain for one side; values glide, a chain of other processors is cross-faded in. null passes the loop on. */
  setChain(side: "a" | "b", chain: HeardChain | null): void;
  select(voice: Voice): void;
  play(playing: boolean): void;
  /** Amplitude factor of each voice, for equal loudness. */
  setGains(gains: Readonly<Record<Voice, number>>): void;
  /** Adds nothing: writes the next samples over both channels. */
  process(left: Float32Array, right: Float32Array): void;
  /** Reads and clears what is shown. */
  readMeters(): Meters;
}

export interface Meters {
  readonly peak: number;
  /** Where the loop is, 0 to 1. */
  readonly progress: number;
  readonly processors: readonly ProcessorState[];
}

/** As everywhere: short to the ear, too long to click. In seconds. */
const FADE = 0.012;
/** A change of matched gain is heard as a level, not as an edge. */
const GAIN_FADE = 0.06;
const CHUNK = 128;

interface Layer {
  readonly voice: Voice;
  readonly runtime: ChainRuntime | null;
  /** 0 to 1, walking to 1 while it is selected, to 0 when it leaves. */
  share: number;
}

interface Reel {
  readonly loop: StereoSound;
  at: number;
  share: number;
}

class LoopAudition implements Audition {
  private reel: Reel | null = null;
  private leavingReel: Reel | null = null;
  private chains: Record<"a" | "b", HeardChain | null> = { a: null, b: null };
  private layers: Layer[] = [{ voice: "dry", runtime: null, share: 1 }];
  private voice: Voice = "dry";
  private playing = 0;
  private playTarget = 0;
  private gains: Record<Voice, number> = { dry: 1, a: 1, b: 1 };
  private gainTargets: Record<Voice, number> = { dry: 1, a: 1, b: 1 };
  private peak = 0;
  private readonly step: number;
  private readonly gainShare: number;
  private readonly dryLeft = new Float32Array(CHUNK);
  private readonly dryRight = new Float32Array(CHUNK);
  private readonly wetLeft = new Float32Array(CHUNK);
  private readonly wetRight = new Float32Array(CHUNK);

  constructor(private readonly sampleRate: number) {
    this.step = 1 / Math.round(FADE * sampleRate);
    this.gainShare = 1 - Math.exp(-1 / (GAIN_FADE * sampleRate));
  }

  setLoop(loop: StereoSound): void {
    this.leavingReel = this.reel;
    this.reel = { loop, at: 0, share: this.reel ? 0 : 1 };
  }

  setChain(side: "a" | "b", chain: HeardChain | null): void {
    this.chains = { ...this.chains, [side]: chain };
    const current = this.layers.find((layer) => layer === this.currentLayer && layer.voice === side);
    if (current?.runtime && chain && current.runtime.update(chain)) return;
    if (this.voice === side) this.bringIn(side);
  }

  select(voice: Voice): void {
    if (voice === this.voice) return;
    this.voice = voice;
    this.bringIn(voice);
  }

  play(playing: boolean): void {
    this.playTarget = playing ? 1 : 0;
  }

  setGains(gains: Readonly<Record<Voice, number>>): void {
    this.gainTargets = { ...gains };
    if (this.playing === 0) this.gains = { ...gains };
  }

  readMeters(): Meters {
    const { peak, reel } = this;
    this.peak = 0;
    return {
      peak,
      progress: reel ? reel.at / reel.loop.left.length : 0,
      processors: this.currentLayer?.runtime?.states() ?? [],
    };
  }

  process(left: Float32Array, right: Float32Array): void {
    for (let at = 0; at < left.length; at += CHUNK) {
      const end = Math.min(left.length, at + CHUNK);
      this.chunk(left.subarray(at, end), right.subarray(at, end));
    }
  }

  private get currentLayer(): Layer | undefined {
    return this.layers[this.layers.length - 1];
  }

  /** The newest layer is the one that is heard; all before it fade out. */
  private bringIn(voice: Voice): void {
    const chain = voice === "dry" ? null : this.chains[voice];
    const silent = this.playing === 0;
    if (silent) this.layers = [];
    const runtime = chain && chain.length > 0 ? createChainRuntime(chain, this.sampleRate) : null;
    this.layers.push({ voice, runtime, share: silent ? 1 : 0 });
  }

  private chunk(left: Float32Array, right: Float32Array): void {
    const count = left.length;
    left.fill(0);
    right.fill(0);
    if (this.playing === 0 && this.playTarget === 0) return;
    this.readLoop(count);
    for (const layer of this.layers) this.addLayer(layer, left, right);
    if (this.layers.length > 1) this.layers = this.layers.filter((l) => l.share > 0 || l === this.currentLayer);
    for (let i = 0; i < count; i++) {
      this.playing = walk(this.playing, this.playTarget, this.step);
      left[i]! *= this.playing;
      right[i]! *= this.playing;
      this.peak = Math.max(this.peak, Math.abs(left[i]!), Math.abs(right[i]!));
    }
  }

  private readLoop(count: number): void {
    const { dryLeft, dryRight, reel, leavingReel } = this;
    dryLeft.fill(0);
    dryRight.fill(0);
    if (!reel) return;
    for (let i = 0; i < count; i++) {
      reel.share = walk(reel.share, 1, this.step);
      dryLeft[i] = reel.share * reel.loop.left[reel.at]!;
      dryRight[i] = reel.share * reel.loop.right[reel.at]!;
      reel.at = (reel.at + 1) % reel.loop.left.length;
      if (!leavingReel) continue;
      dryLeft[i]! += (1 - reel.share) * leavingReel.loop.left[leavingReel.at]!;
      dryRight[i]! += (1 - reel.share) * leavingReel.loop.right[leavingReel.at]!;
      leavingReel.at = (leavingReel.at + 1) % leavingReel.loop.left.length;
    }
    if (reel.share === 1) this.leavingReel = null;
  }

  private addLayer(layer: Layer, left: Float32Array, right: Float32Array): void {
    const { wetLeft, wetRight, gains, gainTargets } = this;
    const count = left.length;
    const goal = layer === this.currentLayer ? 1 : 0;
    wetLeft.set(this.dryLeft);
    wetRight.set(this.dryRight);
    layer.runtime?.process(wetLeft, wetRight, count);
    let gain = gains[layer.voice];
    for (let i = 0; i < count; i++) {
      layer.share = walk(layer.share, goal, this.step);
      gain += this.gainShare * (gainTargets[layer.voice] - gain);
      left[i]! += layer.share * gain * wetLeft[i]!;
      right[i]! += layer.share * gain * wetRight[i]!;
    }
    if (goal === 1) gains[layer.voice] = gain;
  }
}

const walk = (value: number, target: number, step: number): number =>
  Math.abs(target - value) <= step ? target : value + Math.sign(target - value) * step;

/** Loops a sound through chains and switches between them without a click. All of it runs on the audio thread. */
export const createAudition = (sampleRate: number): Audition => new LoopAudition(sampleRate);
