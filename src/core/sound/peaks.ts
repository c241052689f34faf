import { createChainRuntime } from "./chain/chain-runtime";
import type { HeardSound } from "./heard-sound";
import { type Rendering, keysBeside, twiceOf } from "./render";

/** The highest samples of a loop or phrase, its tail come round; 1 is full scale. */
export interface Peaks {
  /** What reaches each plugin, by its key. */
  readonly inputs: Readonly<Record<string, number>>;
  /** What leaves the chain. */
  readonly output: number;
}

const BLOCK = 4096;

/** What reaches each plugin of a sound and what leaves it, over two passes of its loop or phrase. */
export function peaksOf(sound: HeardSound, rendering: Rendering): Peaks {
  const { left, right, sampleRate } = twiceOf(sound, rendering);
  const bus = keysBeside(rendering.keys, left);
  const runtime = createChainRuntime(sound.chain, sampleRate, bus);
  const inputs: Record<string, number> = {};
  let output = 0;
  for (let at = 0; at < left.length; at += BLOCK) {
    bus.shift = at;
    const end = Math.min(left.length, at + BLOCK);
    runtime.process(left.subarray(at, end), right.subarray(at, end), end - at);
    for (const { key, peakIn } of runtime.states()) inputs[key] = Math.max(inputs[key] ?? 0, peakIn);
    for (let i = at; i < end; i++) output = Math.max(output, Math.abs(left[i]!), Math.abs(right[i]!));
  }
  return { inputs, output };
}
