import type { StereoSound } from "../../dsp/stereo-sound";
import type { Stretch } from "../../materials/stretch";
import type { ProcessorState } from "../chain/chain-runtime";
import type { HeardSound } from "../heard-sound";
import type { Sample } from "../instrument/voice";
import { LevelMeter } from "./level-meter";
import { PressedKeys } from "./pressed-keys";
import { KeyReels, MaterialReel } from "./reels";
import { SignalPath, type Surroundings, type SideGain } from "./signal-path";
import { walk } from "./walk";

/** What is listened to: the loop, or the instrument of A, as it is, or one of two sounds. */
export type Side = "dry" | "a" | "b";

export interface Audition {
  /** A new loop is cross-faded in, from its start. */
  setLoop(loop: StereoSound): void;
  /** Goes on at a place of the loop or the phrase, 0 to 1, without a click. */
  seek(to: number): void;
  /** What of the loop goes round; null for all of it, as with each new loop. */
  setStretch(stretch: Stretch | null): void;
  /** A material that keys processors; it runs on beside the loop. */
  setKey(material: string, loop: StereoSound): void;
  /** What a sampler plays, by its hash. */
  setSample(hash: string, sample: Sample): void;
  /** Takes a sound for one side; values glide, a chain of other processors is cross-faded in. null passes the loop on. */
  setSound(side: "a" | "b", sound: HeardSound | null): void;
  select(side: Side): void;
  play(playing: boolean): void;
  /** Keys of the instrument that is heard: they sound with or without the phrase. */
  noteOn(note: number, velocity: number): void;
  noteOff(note: number): void;
  allNotesOff(): void;
  /** Amplitude factor of each side, for equal loudness. */
  setGains(gains: Readonly<Record<Side, number>>): void;
  /** Writes the next samples over both channels. */
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
/** The longest stretch that is worked on in one go. */
const CHUNK = 128;

class LoopAudition implements Audition {
  private readonly samples = new Map<string, Sample>();
  private readonly keys = new KeyReels(CHUNK);
  private readonly pressed: PressedKeys;
  private readonly meter = new LevelMeter();
  private readonly material: MaterialReel;
  private readonly around: Surroundings;
  private readonly step: number;
  private readonly gains: Readonly<Record<Side, SideGain>> = {
    dry: { now: 1, target: 1 },
    a: { now: 1, target: 1 },
    b: { now: 1, target: 1 },
  };
  private sounds: Record<"a" | "b", HeardSound | null> = { a: null, b: null };
  /** The last is the one that is heard; those before it fade out. */
  private paths: SignalPath[];
  private side: Side = "dry";
  /** 0 to 1: what play and stop walk. */
  private playing = 0;
  private playTarget = 0;

  constructor(sampleRate: number) {
    const { samples, keys } = this;
    this.step = 1 / Math.round(FADE * sampleRate);
    this.pressed = new PressedKeys(sampleRate);
    this.material = new MaterialReel(CHUNK, this.step);
    const gainShare = 1 - Math.exp(-1 / (GAIN_FADE * sampleRate));
    this.around = { sampleRate, samples, keys, material: this.material, size: CHUNK, step: this.step, gainShare };
    this.paths = [new SignalPath(null, 1, this.gains.dry, this.around)];
  }

  setLoop(loop: StereoSound): void {
    this.material.set(loop);
  }

  setStretch(stretch: Stretch | null): void {
    this.material.setStretch(stretch);
  }

  seek(to: number): void {
    const { instrument } = this.heard;
    if (!instrument) return this.material.seek(to);
    instrument.allOff();
    instrument.seek(to);
  }

  setKey(material: string, loop: StereoSound): void {
    this.keys.set(material, loop);
  }

  setSample(hash: string, sample: Sample): void {
    this.samples.set(hash, sample);
  }

  setSound(side: "a" | "b", sound: HeardSound | null): void {
    const before = this.sounds[side];
    this.sounds = { ...this.sounds, [side]: sound };
    if (this.side === side && !(sound && this.heard.update(sound))) this.bringIn(side);
    if (this.side === "dry" && side === "a") this.followDry(before);
  }

  select(side: Side): void {
    if (side === this.side) return;
    this.side = side;
    this.bringIn(side);
  }

  play(playing: boolean): void {
    this.playTarget = playing ? 1 : 0;
    this.heard.instrument?.playPhrase(playing);
  }

  noteOn(note: number, velocity: number): void {
    const { instrument } = this.heard;
    if (!instrument) return;
    this.pressed.press();
    instrument.noteOn(note, velocity);
  }

  noteOff(note: number): void {
    this.pressed.release();
    for (const path of this.paths) path.instrument?.noteOff(note);
  }

  allNotesOff(): void {
    this.pressed.releaseAll();
    for (const path of this.paths) path.instrument?.allOff();
  }

  setGains(gains: Readonly<Record<Side, number>>): void {
    for (const side of ["dry", "a", "b"] as const) {
      this.gains[side].target = gains[side];
      if (this.playing === 0) this.gains[side].now = gains[side];
    }
  }

  readMeters(): Meters {
    const { heard, material } = this;
    return {
      ...this.meter.read(),
      progress: heard.instrument?.progress ?? material.progress,
      processors: heard.states(),
    };
  }

  process(left: Float32Array, right: Float32Array): void {
    left.fill(0);
    right.fill(0);
    for (let at = 0; at < left.length; at += CHUNK) this.chunk(left, right, at, Math.min(left.length, at + CHUNK));
  }

  private get heard(): SignalPath {
    return this.paths[this.paths.length - 1]!;
  }

  /** Dry is the instrument of A where it has one; material goes on as it is. */
  private followDry(before: HeardSound | null): void {
    const [was, is] = [dryOf(before), dryOf(this.sounds.a)];
    if (!was && !is) return;
    if (!(is && this.heard.update(is))) this.bringIn("dry");
  }

  private bringIn(side: Side): void {
    const sound = side === "dry" ? dryOf(this.sounds.a) : this.sounds[side];
    const before = this.heard.instrument;
    const isSilent = this.playing === 0 && !this.pressed.ringing;
    const path = new SignalPath(sound, isSilent ? 1 : 0, this.gains[side], this.around);
    path.instrument?.playPhrase(this.playTarget === 1);
    // It goes on in the phrase where the one before it is.
    if (before) path.instrument?.seek(before.progress);
    if (isSilent) this.paths = [path];
    else {
      this.heard.leave();
      this.paths.push(path);
    }
  }

  private chunk(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const count = to - from;
    this.pressed.pass(count);
    if (this.playing === 0 && this.playTarget === 0 && !this.pressed.ringing) return;
    this.keys.read(count);
    if (this.playTarget + this.playing === 0) this.material.rest(count);
    else this.material.read(count);
    const { paths } = this;
    for (let l = 0; l < paths.length; l++) paths[l]!.addTo(left, right, from, to);
    this.letGo();
    // Pressed keys sound though nothing plays: then only the loop is silent.
    const goal = this.pressed.ringing ? 1 : this.playTarget;
    for (let i = from; i < to; i++) {
      this.playing = walk(this.playing, goal, this.step);
      left[i]! *= this.playing;
      right[i]! *= this.playing;
      this.meter.add(left[i]!, right[i]!);
    }
  }

  /** Layers that have faded out go, in place. */
  private letGo(): void {
    const { paths } = this;
    let kept = 0;
    for (let l = 0; l < paths.length; l++) {
      const path = paths[l]!;
      if (l === paths.length - 1 || !path.isGone) paths[kept++] = path;
    }
    paths.length = kept;
  }
}

/** The instrument of A as it is, with nothing behind it. */
const dryOf = (a: HeardSound | null): HeardSound | null =>
  a?.instrument ? { chain: [], instrument: a.instrument } : null;

/** Loops a sound through chains and switches between them without a click. All of it runs on the audio thread. */
export const createAudition = (sampleRate: number): Audition => new LoopAudition(sampleRate);
