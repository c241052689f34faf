import type { HeardChain } from "../chains/heard-chain";
import { createChainRuntime } from "./chain/chain-runtime";

/** Two channels of the same length, samples from −1 to 1. */
export interface StereoSound {
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly sampleRate: number;
}

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
