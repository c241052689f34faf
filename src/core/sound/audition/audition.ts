import type { StereoSound } from "../../dsp/stereo-sound";
import type { Stretch } from "../../materials/stretch";
import type { ProcessorState } from "../chain/chain-runtime";
import type { HeardSound } from "../heard-sound";
import type { Sample } from "../instrument/voice";
import { LevelMeter } from "./level-meter";
import { PressedKeys } from "./pressed-keys";
import { KeyReels, MaterialReel } from "./reels";
import { type Side, SignalPath } from "./signal-path";
import { InstrumentSource, LEAD, MaterialSource, type Source } from "./source";
import { walk } from "../../dsp/walk";

export type { Side } from "./signal-path";

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

/** A side: the path that stands for it, and the one that works its way up to now to take its place. */
interface Track {
  /** What it is to sound. */
  wanted: HeardSound | null;
  current: SignalPath;
  coming: SignalPath | null;
  /** What came while one was on its way already; only the last of them follows it. */
  next: { readonly sound: HeardSound | null } | null;
}

/** The matched gain of a side, an amplitude factor on its way to another. */
interface SideGain {
  now: number;
  target: number;
  /** Of each sample of the stretch at hand. */
  readonly walked: Float64Array;
}

/** The instrument of A as it is, with nothing behind it. */
const dryOf = (a: HeardSound | null): HeardSound | null =>
  a?.instrument ? { chain: [], instrument: a.instrument } : null;

/** Dry is the instrument of A where it has one. */
type Owner = "a" | "b";
const ownerOf = (side: Side): Owner => (side === "b" ? "b" : "a");

const SIDES: readonly Side[] = ["dry", "a", "b"];

/**
 * All sides run while it plays, heard or not; one is changed by a path of its own that comes from as long ago as it
 * remembers, and is heard once it is up to now.
 */
class LoopAudition implements Audition {
  private readonly samples = new Map<string, Sample>();
  private readonly keys = new KeyReels(CHUNK);
  private readonly pressed: PressedKeys;
  private readonly meter = new LevelMeter();
  private readonly material: MaterialReel;
  private readonly materialSource: Source;
  private readonly instruments: Record<Owner, InstrumentSource | null> = { a: null, b: null };
  /** Those that a path hears. */
  private sources: Source[];
  private readonly step: number;
  private readonly gainShare: number;
  private readonly gains: Readonly<Record<Side, SideGain>> = { dry: unity(), a: unity(), b: unity() };
  private readonly tracks: Readonly<Record<Side, Track>>;
  /** All that run: those of the sides, those on their way, and those that fade out. */
  private paths: SignalPath[];
  /** The one that is heard, or walks to be. */
  private heard: SignalPath;
  private side: Side = "dry";
  /** 0 to 1: what play and stop walk. */
  private playing = 0;
  private playTarget = 0;

  constructor(private readonly sampleRate: number) {
    this.step = 1 / Math.round(FADE * sampleRate);
    this.gainShare = 1 - Math.exp(-1 / (GAIN_FADE * sampleRate));
    this.pressed = new PressedKeys(sampleRate);
    this.material = new MaterialReel(CHUNK, this.step);
    this.materialSource = new MaterialSource(this.material, sampleRate);
    this.sources = [this.materialSource];
    const track = (side: Side): Track => ({
      wanted: null,
      current: this.pathOf(side, null),
      coming: null,
      next: null,
    });
    this.tracks = { dry: track("dry"), a: track("a"), b: track("b") };
    this.paths = SIDES.map((side) => this.tracks[side].current);
    this.heard = this.tracks.dry.current;
    this.heard.share = 1;
  }

  setLoop(loop: StereoSound): void {
    this.material.set(loop);
  }

  setStretch(stretch: Stretch | null): void {
    this.material.setStretch(stretch);
  }

  seek(to: number): void {
    if (!this.heard.source.instrument) return this.material.seek(to);
    for (const { instrument } of this.sources) {
      instrument?.allOff();
      instrument?.seek(to);
    }
  }

  setKey(material: string, loop: StereoSound): void {
    this.keys.set(material, loop);
  }

  setSample(hash: string, sample: Sample): void {
    this.samples.set(hash, sample);
  }

  setSound(side: "a" | "b", sound: HeardSound | null): void {
    this.take(side, sound);
    if (side === "a") this.take("dry", dryOf(sound));
    this.letGo();
  }

  select(side: Side): void {
    if (side === this.side) return;
    this.side = side;
    this.hurry();
    const { coming, current } = this.tracks[side];
    if (!coming) this.heard = current;
    if (this.isSilent) this.jump();
  }

  play(playing: boolean): void {
    this.hurry();
    this.playTarget = playing ? 1 : 0;
    for (const { instrument } of this.sources) instrument?.playPhrase(playing);
  }

  noteOn(note: number, velocity: number): void {
    if (!this.instruments[ownerOf(this.side)]) return;
    this.pressed.press(note, velocity);
    for (const { instrument } of this.sources) instrument?.noteOn(note, velocity);
  }

  noteOff(note: number): void {
    this.pressed.release(note);
    for (const { instrument } of this.sources) instrument?.noteOff(note);
  }

  allNotesOff(): void {
    this.pressed.releaseAll();
    for (const { instrument } of this.sources) instrument?.allOff();
  }

  setGains(gains: Readonly<Record<Side, number>>): void {
    for (const side of SIDES) {
      this.gains[side].target = gains[side];
      if (this.playing === 0) this.gains[side].now = gains[side];
    }
  }

  readMeters(): Meters {
    const { heard, material } = this;
    return {
      ...this.meter.read(),
      progress: heard.source.instrument?.progress ?? material.progress,
      processors: heard.states(),
    };
  }

  process(left: Float32Array, right: Float32Array): void {
    left.fill(0);
    right.fill(0);
    for (let at = 0; at < left.length; at += CHUNK) this.chunk(left, right, at, Math.min(left.length, at + CHUNK));
  }

  /** Nothing is heard: what comes now may come at once. */
  private get isSilent(): boolean {
    return this.playing === 0 && !this.pressed.ringing;
  }

  /** A side is to sound otherwise: in the stride of a path that runs, or by one that comes. */
  private take(side: Side, sound: HeardSound | null): void {
    const track = this.tracks[side];
    const { current, coming } = track;
    track.wanted = sound;
    if (current.fits(sound)) {
      current.take(sound);
      track.coming = track.next = null;
      this.keepInstrument(side, current);
      if (this.side === side) this.heard = current;
    } else if (this.isSilent) this.bringIn(side, sound);
    else if (coming?.fits(sound)) {
      coming.take(sound);
      track.next = null;
    } else if (coming) track.next = { sound };
    else this.bringIn(side, sound);
  }

  /** Nothing is heard: what was on its way when it fell silent need not come from earlier any more. */
  private hurry(): void {
    if (!this.isSilent) return;
    for (const side of SIDES) if (this.tracks[side].coming) this.bringIn(side, this.tracks[side].wanted);
  }

  private bringIn(side: Side, sound: HeardSound | null): void {
    const track = this.tracks[side];
    const path = this.pathOf(side, sound);
    this.keepInstrument(side, path);
    this.paths.push(path);
    if (this.isSilent) {
      track.current = path;
      track.coming = track.next = null;
      if (this.side === side) this.heard = path;
      this.jump();
      return;
    }
    path.beginEarlier();
    if (path.isLate) track.coming = path;
    else this.arrive(track, path);
  }

  private arrive(track: Track, path: SignalPath): void {
    const { next } = track;
    track.current = path;
    track.coming = track.next = null;
    if (this.side === path.side) this.heard = path;
    if (next) this.take(path.side, next.sound);
  }

  private keepInstrument(side: Side, { source }: SignalPath): void {
    this.instruments[ownerOf(side)] = source instanceof InstrumentSource ? source : null;
  }

  private pathOf(side: Side, sound: HeardSound | null): SignalPath {
    const { sampleRate, keys } = this;
    return new SignalPath(side, sound, this.sourceOf(side, sound), { sampleRate, keys, size: CHUNK });
  }

  private sourceOf(side: Side, sound: HeardSound | null): Source {
    if (!sound?.instrument) return this.materialSource;
    const owner = ownerOf(side);
    const before = this.instruments[owner];
    // In silence nothing comes from earlier: one that is still on its way gives nothing yet.
    const isThere = before !== null && (before.behind === 0 || !this.isSilent);
    if (isThere && before.instrument.update(sound.instrument)) return before;
    const { samples, sampleRate } = this;
    const source = new InstrumentSource(sound.instrument, { samples, sampleRate, size: CHUNK });
    source.instrument.playPhrase(this.playTarget === 1);
    // It goes on in the phrase where the one before it is, with what is held.
    source.begin(this.progressFor(owner), this.isSilent ? 0 : LEAD * sampleRate);
    for (const [note, velocity] of this.pressed.notes) source.instrument.noteOn(note, velocity);
    this.sources.push(source);
    return source;
  }

  private progressFor(owner: Owner): number {
    const { a, b } = this.instruments;
    const source = owner === "a" ? (a ?? b) : (b ?? a);
    return source?.instrument.progress ?? 0;
  }

  private chunk(left: Float32Array, right: Float32Array, from: number, to: number): void {
    const count = to - from;
    this.pressed.pass(count);
    if (this.playing === 0 && this.playTarget === 0 && !this.pressed.ringing) return;
    this.keys.read(count);
    if (this.playTarget + this.playing === 0) this.material.rest(count);
    else this.material.read(count);
    const { sources, paths } = this;
    for (let s = 0; s < sources.length; s++) sources[s]!.pass(count);
    for (let s = 0; s < SIDES.length; s++) this.walkGain(this.gains[SIDES[s]!], count);
    this.mix(left, right, from, count);
    for (let p = 0; p < paths.length; p++) this.settle(paths[p]!);
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

  /** What is heard of each path is its share in all of them: three that cross are no quieter than one. */
  private mix(left: Float32Array, right: Float32Array, from: number, count: number): void {
    const { paths, heard, gains, step, shares } = this;
    shares.fill(0);
    for (let p = 0; p < paths.length; p++) {
      const path = paths[p]!;
      const goal = path === heard ? 1 : 0;
      if (!path.pass(count) || (path.share === 0 && goal === 0)) continue;
      const { walked } = gains[path.side];
      for (let i = 0; i < count; i++) {
        path.share = walk(path.share, goal, step);
        shares[i]! += path.share;
        const gain = path.share * walked[i]!;
        left[from + i]! += gain * path.left[i]!;
        right[from + i]! += gain * path.right[i]!;
      }
    }
    for (let i = 0; i < count; i++) {
      left[from + i]! /= shares[i]!;
      right[from + i]! /= shares[i]!;
    }
  }

  private readonly shares = new Float64Array(CHUNK);

  private walkGain(gain: SideGain, count: number): void {
    for (let i = 0; i < count; i++) {
      gain.now += this.gainShare * (gain.target - gain.now);
      gain.walked[i] = gain.now;
    }
  }

  /** One that has come up to now stands for its side from here on. */
  private settle(path: SignalPath): void {
    const track = this.tracks[path.side];
    if (track.coming === path && !path.isLate) this.arrive(track, path);
  }

  /** At once, since nothing is heard. */
  private jump(): void {
    for (const path of this.paths) path.share = path === this.heard ? 1 : 0;
    this.letGo();
  }

  /** Paths that have faded out go, in place, and sources that none of them hears. */
  private letGo(): void {
    const { paths, sources } = this;
    let kept = 0;
    for (let p = 0; p < paths.length; p++) if (this.isWanted(paths[p]!)) paths[kept++] = paths[p]!;
    paths.length = kept;
    kept = 0;
    for (let s = 0; s < sources.length; s++) if (this.isListenedTo(sources[s]!)) sources[kept++] = sources[s]!;
    sources.length = kept;
  }

  private isWanted(path: SignalPath): boolean {
    const { current, coming } = this.tracks[path.side];
    return path === current || path === coming || path === this.heard || path.share > 0;
  }

  private isListenedTo(source: Source): boolean {
    if (source === this.materialSource) return true;
    for (let p = 0; p < this.paths.length; p++) if (this.paths[p]!.source === source) return true;
    return false;
  }
}

const unity = (): SideGain => ({ now: 1, target: 1, walked: new Float64Array(CHUNK) });

/** Loops a sound through chains and switches between them without a click. All of it runs on the audio thread. */
export const createAudition = (sampleRate: number): Audition => new LoopAudition(sampleRate);
