import { describe, expect, it } from "vitest";
import { seededRandom } from "../random";
import { integratedLoudness } from "../dsp/measure/loudness";
import { MATERIALS, getMaterial } from "./material";

describe("material", () => {
  for (const material of MATERIALS)
    it(`${material.name} is the same samples each time, loud enough to judge by, and loops without a seam`, async () => {
      const [one, two] = [await material.make(48_000), await material.make(48_000)];
      const bytes = (samples: Float32Array) => Buffer.from(samples.buffer);
      expect(bytes(one.left).equals(bytes(two.left)) && bytes(one.right).equals(bytes(two.right))).toBe(true);
      expect(one.left).toHaveLength(material.seconds * 48_000);
      expect(integratedLoudness(one)).toBeGreaterThan(-24);
      const highest = (samples: Float32Array) => samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
      expect(highest(one.left)).toBeLessThanOrEqual(0.5);
      const steps = one.left.map((x, i) => x - one.left[(i + one.left.length - 1) % one.left.length]!);
      expect(Math.abs(steps[0]!)).toBeLessThanOrEqual(highest(steps.subarray(1)));
    });
  it("unknown is a programmer's fault", () => {
    expect(() => getMaterial("gong")).toThrow("gong");
  });
});

describe("chance by seed", () => {
  it("is the same for the same seed, spread evenly, and different for another", () => {
    const draw = (seed: number) => {
      const next = seededRandom(seed);
      return Array.from({ length: 4000 }, next);
    };
    expect(draw(1)).toEqual(draw(1));
    expect(draw(1)).not.toEqual(draw(2));
    expect(draw(9).reduce((a, b) => a + b, 0) / 4000).toBeCloseTo(0.5, 1);
  });
});
