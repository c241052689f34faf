import type { HeardChain } from "../chains/heard-chain";
import type { HeardInstrument } from "../chains/heard-instrument";
import { type ChainRuntime, type KeyBus, type ProcessorState, createChainRuntime } from "./chain/chain-runtime";
import type { HeardSound } from "./heard-sound";
import { InstrumentRuntime } from "./instrument/instrument-runtime";
import type { Sample } from "./instrument/voice";
import type { KeySignal } from "../processors/kernel";
import type { StereoSound } from "../dsp/stereo-sound";

/** What is listened to: the loop, or the instrument of A, as it is, or one of two sounds. */
export type Voice = "dry" | "a" | "b";

export interface Audition {
  /** A new loop is cross-faded in, from its start. */
  setLoop(loop: StereoSound): void;
  /** A material that keys processors; it runs on beside the loop. */
  setKey(material: string, loop: StereoSound): void;
  /** What a sampler plays, by its hash. */
  setSample(hash: string, sample: Sample): void;
  /** Takes a sound for one side; values glide, a chain of other processors is cross-faded in. null passes the loop on. */
  setSound(side: "a" | "b", sound: HeardSound | null): void;
  select(voice: Voice): void;
  play(playing: boolean): void;
  /** Keys of the instrument that is heard: they sound with or without the phrase. */
  noteOn(note: number, velocity: number): void;
  noteOff(note: number): void;
  allNotesOff(): void;
  /** Amplitude factor of each voice, for equal loudness. */
  setGains(gains: Readonly<Record<Voice, number>>): void;
  /** Adds nothing: writes the next samples over both channels. */
  process(left: Float32Array, right: Float32Array): void;
  /** Reads and clears what is shown. */
  readMeters(): Meters;
}

export interface Meters {
  readonly peak: number;
  /** Where the loop or the phrase is, 0 to 1. */
  readonly progress: number;
  /** Of both channels since the last reading, −1 to 1; 1 for silence. */
  readonly correlation: number;
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
  readonly minus: ChainRuntime | null;
  readonly instrument: InstrumentRuntime | null;
  /** 0 to 1, walking to 1 while it is selected, to 0 when it leaves. */
  share: number;
}

interface Reel {
  readonly loop: StereoSound;
  at: number;
  share: number;
}

/** A key's loop, and the stretch of it that stands beside the chunk that is processed. */
interface KeyReel extends KeySignal {
  readonly loop: StereoSound;
  at: number;
}

const chainOf = (chain: HeardChain | null | undefined): HeardChain | null => (chain && chain.length > 0 ? chain : null);

class LoopAudition implements Audition, KeyBus {
  readonly shift = 0;
  private reel: Reel | null = null;
  private leavingReel: Reel | null = null;
  private readonly keys = new Map<string, KeyReel>();
  private readonly samples = new Map<string, Sample>();
  private sounds: Record<"a" | "b", HeardSound | null> = { a: null, b: null };
  private layers: Layer[] = [{ voice: "dry", runtime: null, minus: null, instrument: null, share: 1 }];
  private voice: Voice = "dry";
  private playing = 0;
  private playTarget = 0;
  /** Keys held down: while there are some, there is sound though nothing plays. */
  private held = 0;
  private ringing = 0;
  private gains: Record<Voice, number> = { dry: 1, a: 1, b: 1 };
  private gainTargets: Record<Voice, number> = { dry: 1, a: 1, b: 1 };
  private peak = 0;
  private leftLeft = 0;
  private rightRight = 0;
  private leftRight = 0;
  private readonly step: number;
  private readonly gainShare: number;
  private readonly ringFor: number;
  private readonly dryLeft = new Float32Array(CHUNK);
  private readonly dryRight = new Float32Array(CHUNK);
  private readonly wetLeft = new Float32Array(CHUNK);
  private readonly wetRight = new Float32Array(CHUNK);
  private readonly lessLeft = new Float32Array(CHUNK);
  private readonly lessRight = new Float32Array(CHUNK);

  constructor(private readonly sampleRate: number) {
    this.step = 1 / Math.round(FADE * sampleRate);
    this.gainShare = 1 - Math.exp(-1 / (GAIN_FADE * sampleRate));
    this.ringFor = RING_FOR * sampleRate;
  }

  setLoop(loop: StereoSound): void {
    this.leavingReel = this.reel;
    this.reel = { loop, at: 0, share: this.reel ? 0 : 1 };
  }

  setKey(material: string, loop: StereoSound): void {
    this.keys.set(material, { loop, at: 0, left: new Float32Array(CHUNK), right: new Float32Array(CHUNK) });
  }

  find(material: string): KeySignal | null {
    return this.keys.get(material) ?? null;
  }

  setSample(hash: string, sample: Sample): void {
    this.samples.set(hash, sample);
  }

  setSound(side: "a" | "b", sound: HeardSound | null): void {
    const before = this.sounds[side];
    this.sounds = { ...this.sounds, [side]: sound };
    const current = this.currentLayer;
    if (this.voice === side && !(current && sound && this.takes(current, sound))) this.bringIn(side);
    if (this.voice === "dry" && side === "a") this.followDry(before);
  }

  /** Dry is the instrument of A where it has one; material goes on as it is. */
  private followDry(before: HeardSound | null): void {
    const [was, is] = [dryOf(before), dryOf(this.sounds.a)];
    if (!was && !is) return;
    const current = this.currentLayer;
    if (!(is && current && this.takes(current, is))) this.bringIn("dry");
  }

  select(voice: Voice): void {
    if (voice === this.voice) return;
    this.voice = voice;
    this.bringIn(voice);
  }

  play(playing: boolean): void {
    this.playTarget = playing ? 1 : 0;
    this.currentLayer?.instrument?.playPhrase(playing);
  }

  noteOn(note: number, velocity: number): void {
    const instrument = this.currentLayer?.instrument;
    if (!instrument) return;
    this.held += 1;
    this.ringing = this.ringFor;
    instrument.noteOn(note, velocity);
  }

  noteOff(note: number): void {
    this.held = Math.max(0, this.held - 1);
    for (const layer of this.layers) layer.instrument?.noteOff(note);
  }

  allNotesOff(): void {
    this.held = 0;
    for (const layer of this.layers) layer.instrument?.allOff();
  }

  setGains(gains: Readonly<Record<Voice, number>>): void {
    this.gainTargets = { ...gains };
    if (this.playing === 0) this.gains = { ...gains };
  }

  readMeters(): Meters {
    const { peak, reel, leftLeft, rightRight, leftRight } = this;
    const layer = this.currentLayer;
    const power = leftLeft * rightRight;
    this.peak = this.leftLeft = this.rightRight = this.leftRight = 0;
    return {
      peak,
      progress: layer?.instrument?.progress ?? (reel ? reel.at / reel.loop.left.length : 0),
      correlation: power > 0 ? leftRight / Math.sqrt(power) : 1,
      processors: [...(layer?.instrument?.states() ?? []), ...(layer?.runtime?.states() ?? [])],
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

  /** Whether a layer goes on with changed values; where it cannot, it is replaced. */
  private takes(layer: Layer, { chain, minus, instrument }: HeardSound): boolean {
    const wanted = chainOf(chain);
    const less = chainOf(minus);
    if ((wanted === null) !== (layer.runtime === null) || (less === null) !== (layer.minus === null)) return false;
    if ((instrument ?? null) === null ? layer.instrument !== null : layer.instrument === null) return false;
    if (instrument && !layer.instrument?.update(instrument)) return false;
    return (!wanted || layer.runtime!.update(wanted)) && (!less || layer.minus!.update(less));
  }

  /** The newest layer is the one that is heard; all before it fade out. */
  private bringIn(voice: Voice): void {
    const sound = voice === "dry" ? dryOf(this.sounds.a) : this.sounds[voice];
    const silent = this.playing === 0 && this.ringing === 0;
    const before = this.currentLayer?.instrument;
    if (silent) this.layers = [];
    const runtimeOf = (chain: HeardChain | null): ChainRuntime | null =>
      chain && createChainRuntime(chain, this.sampleRate, this);
    this.layers.push({
      voice,
      runtime: runtimeOf(chainOf(sound?.chain)),
      minus: runtimeOf(chainOf(sound?.minus)),
      instrument: sound?.instrument ? this.instrumentOf(sound.instrument, before ?? null) : null,
      share: silent ? 1 : 0,
    });
  }

  private instrumentOf(instrument: HeardInstrument, before: InstrumentRuntime | null): InstrumentRuntime {
    const runtime = new InstrumentRuntime(instrument, this.samples, this.sampleRate);
    runtime.playPhrase(this.playTarget === 1);
    // It goes on in the phrase where the one before it is.
    if (before) runtime.seek(before.progress);
    return runtime;
  }

  private chunk(left: Float32Array, right: Float32Array): void {
    const count = left.length;
    left.fill(0);
    right.fill(0);
    if (this.held === 0 && this.ringing > 0) this.ringing = Math.max(0, this.ringing - count);
    if (this.playing === 0 && this.playTarget === 0 && this.ringing === 0) return;
    this.readLoop(count);
    for (const layer of this.layers) this.addLayer(layer, left, right);
    if (this.layers.length > 1) this.layers = this.layers.filter((l) => l.share > 0 || l === this.currentLayer);
    // Pressed keys sound though nothing plays: then only the loop is silent.
    const goal = this.ringing > 0 ? 1 : this.playTarget;
    for (let i = 0; i < count; i++) {
      this.playing = walk(this.playing, goal, this.step);
      left[i]! *= this.playing;
      right[i]! *= this.playing;
      this.peak = Math.max(this.peak, Math.abs(left[i]!), Math.abs(right[i]!));
      this.leftLeft += left[i]! * left[i]!;
      this.rightRight += right[i]! * right[i]!;
      this.leftRight += left[i]! * right[i]!;
    }
  }

  private readLoop(count: number): void {
    const { dryLeft, dryRight, reel, leavingReel } = this;
    dryLeft.fill(0);
    dryRight.fill(0);
    for (const key of this.keys.values()) readKey(key, count);
    if (!reel || this.playTarget + this.playing === 0) return;
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
    const { wetLeft, wetRight, lessLeft, lessRight, gains, gainTargets } = this;
    const count = left.length;
    const goal = layer === this.currentLayer ? 1 : 0;
    if (layer.instrument) {
      wetLeft.fill(0);
      wetRight.fill(0);
      layer.instrument.addTo(wetLeft, wetRight, count);
    } else {
      wetLeft.set(this.dryLeft);
      wetRight.set(this.dryRight);
    }
    if (layer.minus) {
      lessLeft.set(wetLeft);
      lessRight.set(wetRight);
      layer.minus.process(lessLeft, lessRight, count);
    }
    layer.runtime?.process(wetLeft, wetRight, count);
    const less = layer.minus ? 1 : 0;
    let gain = gains[layer.voice];
    for (let i = 0; i < count; i++) {
      layer.share = walk(layer.share, goal, this.step);
      gain += this.gainShare * (gainTargets[layer.voice] - gain);
      left[i]! += layer.share * gain * (wetLeft[i]! - less * lessLeft[i]!);
      right[i]! += layer.share * gain * (wetRight[i]! - less * lessRight[i]!);
    }
    if (goal === 1) gains[layer.voice] = gain;
  }
}

/** In seconds: how long after the last key an instrument may ring while nothing plays. */
const RING_FOR = 8;

/** The instrument of A as it is, with nothing behind it. */
const dryOf = (a: HeardSound | null): HeardSound | null =>
  a?.instrument ? { chain: [], instrument: a.instrument } : null;

function readKey(key: KeyReel, count: number): void {
  const { loop, left, right } = key;
  for (let i = 0; i < count; i++) {
    left[i] = loop.left[key.at]!;
    right[i] = loop.right[key.at]!;
    key.at = (key.at + 1) % loop.left.length;
  }
}

const walk = (value: number, target: number, step: number): number =>
  Math.abs(target - value) <= step ? target : value + Math.sign(target - value) * step;

/** Loops a sound through chains and switches between them without a click. All of it runs on the audio thread. */
export const createAudition = (sampleRate: number): Audition => new LoopAudition(sampleRate);
