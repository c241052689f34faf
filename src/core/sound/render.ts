import type { HeardChain } from "../chains/heard-chain";
import { type KeyBus, createChainRuntime } from "./chain/chain-runtime";
import type { StereoSound } from "../dsp/stereo-sound";
import type { HeardSound } from "./heard-sound";
import type { HeardInstrument } from "../chains/heard-instrument";
import type { Samples } from "./instrument/instrument-runtime";

const BLOCK = 4096;

/** The sound through the chain, as long as the sound itself. The input is left as it is. */
export function renderChain(chain: HeardChain, sound: StereoSound, block = BLOCK): StereoSound {
  const runtime = createChainRuntime(chain, sound.sampleRate);
  const left = sound.left.slice();
  const right = sound.right.slice();
  for (let at = 0; at < left.length; at += block) {
    const end = Math.min(left.length, at + block);
    runtime.process(left.subarray(at, end), right.subarray(at, end), end - at);
  }
  return { left, right, sampleRate: sound.sampleRate };
}

/** The sound through the chain, begun where the sound begins: what the chain delays by is left out before it, and added behind. */
export function renderInTime(chain: HeardChain, sound: StereoSound): StereoSound {
  const { latency } = createChainRuntime(chain, sound.sampleRate);
  const longer = (samples: Float32Array): Float32Array => {
    const padded = new Float32Array(samples.length + latency);
    padded.set(samples);
    return padded;
  };
  const late = renderChain(chain, { ...sound, left: longer(sound.left), right: longer(sound.right) });
  return { ...late, left: late.left.subarray(latency), right: late.right.subarray(latency) };
}

/** What a sound plays for so many seconds: its instrument or, without one, the loop over and over. */
export interface Rendering {
  readonly loop: StereoSound;
  readonly samples: Samples;
  readonly keys: ReadonlyMap<string, StereoSound>;
  /** Plays an instrument's phrase twice; handed over, since not everyone who renders needs instruments. */
  readonly play: ((instrument: HeardInstrument, samples: Samples, sampleRate: number) => StereoSound) | null;
}

/** What goes into the chain of a sound: the loop, or the phrase of its instrument, twice. */
export function twiceOf(sound: HeardSound, { loop, samples, play }: Rendering): StereoSound {
  if (sound.instrument && play) return play(sound.instrument, samples, loop.sampleRate);
  return { left: repeat(loop.left), right: repeat(loop.right), sampleRate: loop.sampleRate };
}

/** The whole of a loop or phrase, its tail come round, begun where the loop begins: the second of two passes. */
export function renderSound(sound: HeardSound, rendering: Rendering): StereoSound {
  const { left, right, sampleRate } = twiceOf(sound, rendering);
  const length = left.length / 2;
  const [lessLeft, lessRight] = sound.minus ? [left.slice(), right.slice()] : [null, null];
  const late = run(sound.chain, { left, right, sampleRate }, rendering.keys);
  if (sound.minus && lessLeft && lessRight) {
    run(sound.minus, { left: lessLeft, right: lessRight, sampleRate }, rendering.keys);
    for (let i = 0; i < left.length; i++) {
      left[i]! -= lessLeft[i]!;
      right[i]! -= lessRight[i]!;
    }
  }
  return { left: turned(left.subarray(length), late), right: turned(right.subarray(length), late), sampleRate };
}

/** What goes round, begun so many samples later. */
function turned(round: Float32Array, samples: number): Float32Array {
  if (samples === 0) return round;
  const begin = new Float32Array(round.length);
  const shift = samples % round.length;
  begin.set(round.subarray(shift));
  begin.set(round.subarray(0, shift), round.length - shift);
  return begin;
}

/** Each key beside a sound, over and over; `shift` is where in it the next block begins. */
export function keysBeside(keys: Rendering["keys"], sound: Float32Array): KeyBus & { shift: number } {
  const beside = new Map(
    [...keys].map(([id, key]) => {
      const looped = (samples: Float32Array) => sound.map((_, i) => samples[i % samples.length]!);
      return [id, { left: looped(key.left), right: looped(key.right) }] as const;
    }),
  );
  return { shift: 0, find: (id: string) => beside.get(id) ?? null };
}

/** In place. How late it comes out, in samples. */
function run(chain: HeardChain, { left, right, sampleRate }: StereoSound, keys: Rendering["keys"]): number {
  const bus = keysBeside(keys, left);
  const runtime = createChainRuntime(chain, sampleRate, bus);
  for (let at = 0; at < left.length; at += BLOCK) {
    bus.shift = at;
    const end = Math.min(left.length, at + BLOCK);
    runtime.process(left.subarray(at, end), right.subarray(at, end), end - at);
  }
  return runtime.latency;
}

const repeat = (samples: Float32Array): Float32Array => {
  const twice = new Float32Array(samples.length * 2);
  twice.set(samples);
  twice.set(samples, samples.length);
  return twice;
};

/** What a loop sounds like once its tail has come round: the second of two passes through the chain. */
export function renderLoop(chain: HeardChain, loop: StereoSound): StereoSound {
  const twice = renderChain(chain, { ...loop, left: repeat(loop.left), right: repeat(loop.right) });
  return { ...twice, left: twice.left.subarray(loop.left.length), right: twice.right.subarray(loop.left.length) };
}
