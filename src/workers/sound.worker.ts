import { expose, transfer } from "comlink";
import type { HeardChain } from "@/core/chains/heard-chain";
import { type Measurement, measure } from "@/core/dsp/measure/measure";
import { type StereoSound, renderLoop } from "@/core/dsp/render";
import { getMaterial } from "@/core/materials/material";

/** Made once for each rate and kept: a loop is the same samples each time. */
const loops = new Map<string, StereoSound>();

function loopOf(material: string, sampleRate: number): StereoSound {
  const name = `${material} ${sampleRate}`;
  const loop = loops.get(name) ?? getMaterial(material).make(sampleRate);
  loops.set(name, loop);
  return loop;
}

/** How many columns the picture of a loop has. */
const PEAKS = 108;

/** The highest sample of each stretch, 0 to 1: what the listening bar draws. */
function peaksOf({ left, right }: StereoSound): number[] {
  return Array.from({ length: PEAKS }, (_, column) => {
    const [begin, end] = [column, column + 1].map((c) => Math.floor((c * left.length) / PEAKS)) as [number, number];
    let peak = 0;
    for (let i = begin; i < end; i++) peak = Math.max(peak, Math.abs(left[i]!), Math.abs(right[i]!));
    return peak;
  });
}

const service = {
  /** The loop itself, to be handed to the audio thread, and its picture. */
  makeLoop(material: string, sampleRate: number) {
    const { left, right } = loopOf(material, sampleRate);
    const copy = { left: left.slice(), right: right.slice(), peaks: peaksOf({ left, right, sampleRate }) };
    return transfer(copy, [copy.left.buffer, copy.right.buffer]);
  },

  /** What the loop measures through a chain, its tail come round; null for the loop as it is. */
  measureLoop(material: string, sampleRate: number, chain: HeardChain | null): Measurement {
    const loop = loopOf(material, sampleRate);
    return measure(chain ? renderLoop(chain, loop) : loop);
  },
};

export type SoundService = typeof service;

expose(service);
