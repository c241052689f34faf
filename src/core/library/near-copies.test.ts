import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Content } from "../presets/preset";
import { fingerprint } from "../presets/fingerprint";
import { CONTENT_SCHEMA } from "../presets/version";
import { getModel } from "../processors/models";
import { setTo } from "../processors/testing";
import { type Copyable, distanceBetween, findNearCopies } from "./near-copies";

const compressor = (threshold: number, ratio = 3, enabled = true): Content => ({
  kind: "plugin",
  schema: CONTENT_SCHEMA,
  processor: {
    type: "processor",
    key: "p",
    model: "vca-compressor",
    enabled,
    values: setTo(getModel("vca-compressor"), { threshold, ratio }),
  },
});

const room: Content = {
  kind: "plugin",
  schema: CONTENT_SCHEMA,
  processor: { type: "processor", key: "p", model: "room", enabled: true, values: setTo(getModel("room"), {}) },
};

const copyable = (content: Content, at: number): Copyable => ({
  id: String(at),
  content,
  fingerprint: fingerprint(content),
});

const threshold = fc.double({ min: -60, max: 0, noNaN: true });

describe("the distance between sounds", () => {
  it("is a distance: nothing to itself, the same both ways, and no longer than by way of a third", () => {
    fc.assert(
      fc.property(threshold, threshold, threshold, (a, b, c) => {
        const [x, y, z] = [compressor(a), compressor(b), compressor(c)];
        expect(distanceBetween(x, x)).toBe(0);
        expect(distanceBetween(x, y)).toBe(distanceBetween(y, x));
        expect(distanceBetween(x, z)).toBeLessThanOrEqual(distanceBetween(x, y) + distanceBetween(y, z) + 1e-12);
      }),
    );
  });
  it("is the longest way of a value along its ruler; a switch is the whole of it", () => {
    expect(distanceBetween(compressor(-60), compressor(-30))).toBeCloseTo(0.5);
    expect(distanceBetween(compressor(-60, 3), compressor(-30, 3.01))).toBeCloseTo(0.5);
    expect(distanceBetween(compressor(-30, 3, true), compressor(-30, 3, false))).toBe(1);
  });
  it("is far between a boost and a cut, and nothing where only a band that is off is set otherwise", () => {
    const bell = (values: Record<string, number>): Content => ({
      ...room,
      processor: {
        type: "processor",
        key: "p",
        model: "parametric-eq",
        enabled: true,
        values: setTo(getModel("parametric-eq"), { "band1.used": 1, "band1.on": 1, "band1.freq": 300, ...values }),
      },
    });
    expect(distanceBetween(bell({ "band1.gain": -4 }), bell({ "band1.gain": 4 }))).toBeGreaterThan(0.15);
    expect(distanceBetween(bell({}), bell({ "band3.freq": 900, "band3.gain": 6 }))).toBe(0);
    expect(distanceBetween(bell({}), bell({ "band3.used": 1 }))).toBe(1);
  });
  it("has no measure between different plugins", () => {
    expect(distanceBetween(compressor(-20), room)).toBe(Number.POSITIVE_INFINITY);
  });
});

describe("near copies", () => {
  it("are those of one fingerprint at 0, and more the further one looks", () => {
    const presets = [compressor(-20), compressor(-20), compressor(-21), compressor(-50), room].map(copyable);
    expect(findNearCopies(presets, 0)).toEqual([{ ids: ["1", "0"], distance: 0 }]);
    const [near, ...others] = findNearCopies(presets, 0.02);
    expect(near!.ids.toSorted()).toEqual(["0", "1", "2"]);
    expect(others).toEqual([]);
    expect(findNearCopies(presets, 1)[0]!.ids).toHaveLength(4);
  });
  it("are not those that were kept apart; a third one still is", () => {
    const presets = [compressor(-20), compressor(-20), compressor(-20)].map(copyable);
    expect(findNearCopies(presets.slice(0, 2), 0, [["0", "1"]])).toEqual([]);
    expect(
      findNearCopies(presets.slice(0, 2), 0, [
        ["0", "9"],
        ["1", "9"],
      ]),
    ).toHaveLength(1);
    expect(findNearCopies(presets, 0, [["0", "1", "2"]])).toEqual([]);
    expect(findNearCopies(presets, 0, [["0", "1"]])[0]!.ids).toContain("2");
  });
  it("put each preset into one group at the most, near to another of it, whatever the order", () => {
    fc.assert(
      fc.property(
        fc.array(threshold, { maxLength: 12 }),
        fc.double({ min: 0, max: 0.05, noNaN: true }),
        (list, within) => {
          const presets = list.map((t) => compressor(t)).map(copyable);
          const groups = findNearCopies(presets, within);
          const ids = groups.flatMap((g) => g.ids);
          expect(new Set(ids).size).toBe(ids.length);
          const turned = findNearCopies(presets.toReversed(), within);
          const sorted = (all: typeof groups) => all.map((g) => g.ids.toSorted().join(" ")).toSorted();
          expect(sorted(turned)).toEqual(sorted(groups));
        },
      ),
    );
  });
});
