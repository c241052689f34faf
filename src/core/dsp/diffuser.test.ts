import { describe, expect, it } from "vitest";
import { Diffuser } from "./diffuser";
import { GRID } from "./grid";
import { CHANNELS, HADAMARD_LEVEL, hadamard } from "./hadamard";

const STAGES = [
  [0, 3, 7, 12, 40, 1, 9, 33],
  [100, 0, 55, 31, 77, 12, 5, 90],
  [10, 200, 31, 64, 150, 2, 99, 47],
];

/** Feeds both sides in segments of some length; the channels that come out, one after the other. */
function spreadOut(left: Float64Array, right: Float64Array, segment: number): readonly Float64Array[] {
  const diffuser = new Diffuser(STAGES);
  const out = Array.from({ length: CHANNELS }, () => new Float64Array(left.length));
  const block = new Float64Array(CHANNELS * GRID);
  for (let at = 0; at < left.length; at += segment) {
    const count = Math.min(segment, left.length - at);
    diffuser.process(left.subarray(at, at + count), right.subarray(at, at + count), block, count);
    for (let c = 0; c < CHANNELS; c++) out[c]!.set(block.subarray(c * GRID, c * GRID + count), at);
  }
  return out;
}

const impulse = (length: number) => Float64Array.from({ length }, (_, i) => (i === 0 ? 1 : 0));
const energyOf = (channels: readonly Float64Array[]) =>
  channels.reduce((sum, channel) => sum + channel.reduce((s, x) => s + x * x, 0), 0);

describe("a diffuser", () => {
  it("keeps the energy of what enters, from either side and from both", () => {
    const [one, none] = [impulse(1000), new Float64Array(1000)];
    expect(energyOf(spreadOut(one, none, GRID))).toBeCloseTo(1, 12);
    expect(energyOf(spreadOut(none, one, GRID))).toBeCloseTo(1, 12);
    expect(energyOf(spreadOut(one, one, GRID))).toBeCloseTo(2, 12);
  });

  it("makes of one sample as many echoes as its stages allow, none later than all of them together", () => {
    const out = spreadOut(impulse(1000), new Float64Array(1000), GRID);
    const last = STAGES.reduce((sum, stage) => sum + Math.max(...stage), 0);
    for (const channel of out) {
      expect(channel.filter((x) => x !== 0).length).toBeGreaterThan(100);
      expect(channel.subarray(last + 1).every((x) => x === 0)).toBe(true);
    }
  });

  it("gives the same, whatever the length of its segments", () => {
    const left = Float64Array.from({ length: 700 }, (_, i) => Math.sin(i * i));
    const right = Float64Array.from({ length: 700 }, (_, i) => Math.cos(i * i));
    const whole = spreadOut(left, right, GRID);
    // No segment crosses a point of the grid.
    for (const segment of [1, 4, 16]) expect(spreadOut(left, right, segment)).toEqual(whole);
  });

  it("asks for eight delays a stage", () => {
    expect(() => new Diffuser([[1, 2, 3]])).toThrow("A stage has 8 delays");
  });
});

describe("the matrix of Hadamard", () => {
  it("keeps the energy of eight channels, and undoes itself", () => {
    const block = Float64Array.from({ length: CHANNELS * GRID }, (_, i) => Math.sin(i * 1.7));
    const mixed = block.slice();
    const places = Int32Array.from({ length: CHANNELS }, (_, c) => c * GRID);
    hadamard(mixed, places, mixed, 0, GRID, GRID);
    const scaled = mixed.map((x) => x * HADAMARD_LEVEL);
    expect(energyOf([scaled])).toBeCloseTo(energyOf([block]), 9);
    hadamard(scaled, places, scaled, 0, GRID, GRID);
    scaled.forEach((x, i) => expect(x * HADAMARD_LEVEL).toBeCloseTo(block[i]!, 12));
  });
});
