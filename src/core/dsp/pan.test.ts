import { describe, expect, it } from "vitest";
import { balanceMatrix, panGains, panMatrix } from "./pan";

const PANS = Array.from({ length: 41 }, (_, at) => -100 + 5 * at);

describe("the laws by which a sound is moved to a side", () => {
  it("keep the power of one channel", () => {
    for (const pan of PANS) {
      const { left, right } = panGains(pan);
      expect(left ** 2 + right ** 2).toBeCloseTo(1, 12);
    }
  });

  it("change nothing in the centre", () => {
    const same = { leftToLeft: 1, leftToRight: 0, rightToLeft: 0, rightToRight: 1 };
    expect(panMatrix(0)).toEqual(same);
    for (const [way, gain] of Object.entries(balanceMatrix(0)))
      expect(gain).toBeCloseTo(same[way as keyof typeof same], 12);
  });

  it("of a pan keep the power of each side, wherever it goes, and nothing is lost at the ends", () => {
    for (const pan of PANS) {
      const { leftToLeft, leftToRight, rightToLeft, rightToRight } = panMatrix(pan);
      expect(leftToLeft ** 2 + leftToRight ** 2).toBeCloseTo(1, 12);
      expect(rightToLeft ** 2 + rightToRight ** 2).toBeCloseTo(1, 12);
    }
    expect(panMatrix(-100)).toEqual({ leftToLeft: 1, leftToRight: 0, rightToLeft: 1, rightToRight: 0 });
    expect(panMatrix(100)).toEqual({ leftToLeft: 0, leftToRight: 1, rightToLeft: 0, rightToRight: 1 });
  });

  it("of a pan are mirrored, and pass the centre without a step", () => {
    for (const pan of PANS) {
      const [right, left] = [panMatrix(pan), panMatrix(-pan)];
      expect(left.leftToLeft).toBeCloseTo(right.rightToRight, 12);
      expect(left.rightToLeft).toBeCloseTo(right.leftToRight, 12);
    }
    for (const pan of [-0.01, 0.01]) expect(panMatrix(pan).leftToRight + panMatrix(pan).rightToLeft).toBeLessThan(2e-4);
  });

  it("of a balance keep the power of a sound that is as loud on both sides, and send nothing across", () => {
    for (const pan of PANS) {
      const { leftToLeft, leftToRight, rightToLeft, rightToRight } = balanceMatrix(pan);
      expect(leftToLeft ** 2 + rightToRight ** 2).toBeCloseTo(2, 12);
      expect([leftToRight, rightToLeft]).toEqual([0, 0]);
    }
  });
});
