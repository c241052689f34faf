import { describe, expect, it } from "vitest";
import { type HeardChain, type HeardProcessor, heardProcessor } from "../../chains/heard-chain";
import { getModel } from "../../processors/models";
import { noise, setTo, stereoOf } from "../testing";
import { createChainRuntime } from "./chain-runtime";

const RATE = 48_000;

const compressor = (keyedBy?: string): HeardProcessor => ({
  ...heardProcessor(
    getModel("vca-compressor"),
    setTo(getModel("vca-compressor"), { threshold: -30, ratio: 10, knee: 0, attack: 1, release: 20 }),
    { key: "c" },
  ),
  ...(keyedBy ? { keyedBy } : {}),
});

const lanes = (inside: HeardChain): HeardChain => [
  {
    key: "s",
    enabled: true,
    crossovers: null,
    lanes: [{ key: "l", enabled: true, gain: 1, pan: 0, panLaw: "pan", nodes: inside }],
  },
];

/** The key sounds from half way on; what comes out, in blocks of some size. */
function through(chain: HeardChain, block: number): Float32Array {
  const sound = stereoOf(RATE / 2, RATE, () => 0.01);
  const key = stereoOf(RATE / 2, RATE, (i) => (i < RATE / 4 ? 0 : 0.9));
  let at = 0;
  const bus = {
    shift: 0,
    find: (id: string) =>
      id === "drum" ? { left: key.left.subarray(at, at + block), right: key.right.subarray(at, at + block) } : null,
  };
  const runtime = createChainRuntime(chain, RATE, bus);
  for (; at < sound.left.length; at += block)
    runtime.process(
      sound.left.subarray(at, at + block),
      sound.right.subarray(at, at + block),
      Math.min(block, sound.left.length - at),
    );
  return sound.left;
}

describe("a key input", () => {
  for (const [where, wrap] of [
    ["in a row", (c: HeardChain) => c],
    ["in a lane", lanes],
  ] as const)
    it(`turns the sound down by what another sound does, ${where}, whatever the block`, () => {
      const heard = through(wrap([compressor("drum")]), 128);
      // The sound itself is far below the threshold: before the key nothing is turned down.
      expect(heard[RATE / 4 - 1]).toBeCloseTo(0.01, 5);
      expect(20 * Math.log10(heard[RATE / 2 - 1]! / 0.01)).toBeCloseTo(-0.9 * (20 * Math.log10(0.9) + 30), 1);
      expect(through(wrap([compressor("drum")]), 1000)).toEqual(heard);
    });
  it("is silence where the key is not there, and the sound itself where there is none", () => {
    const alone = through([compressor()], 128);
    expect(alone[RATE / 2 - 1]).toBeCloseTo(0.01, 5);
    expect(through([compressor("gone")], 128)).toEqual(alone);
  });
  it("is heard by a processor that has latency around it", () => {
    const sound = noise(0.1, RATE);
    const runtime = createChainRuntime(
      [{ ...compressor("x"), model: "gate", values: setTo(getModel("gate"), {}) }],
      RATE,
      {
        shift: 0,
        find: () => sound,
      },
    );
    const quiet = stereoOf(4800, RATE, () => 0.001);
    runtime.process(quiet.left, quiet.right, 4800);
    // The gate stays open for the noise, though the sound itself is below its threshold.
    expect(quiet.left[4799]).toBeCloseTo(0.001, 6);
  });
});
