import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Content } from "../presets/preset";
import { fingerprint } from "../presets/fingerprint";
import { CONTENT_SCHEMA } from "../presets/version";
import { getModel } from "../processors/models";
import { setTo } from "../sound/testing";
import {
  type Copyable,
  type NearCopies,
  type Nearness,
  distanceBetween,
  findNearCopies,
  nearnessOf,
} from "./near-copies";

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
const nearness = (content: Content, at: number): Nearness => nearnessOf(copyable(content, at))!;

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
    const presets = [compressor(-20), compressor(-20), compressor(-21), compressor(-50), room].map(nearness);
    expect(findNearCopies(presets, 0)).toEqual([{ ids: ["0", "1"], distance: 0 }]);
    const [near, ...others] = findNearCopies(presets, 0.02);
    expect(near!.ids.toSorted()).toEqual(["0", "1", "2"]);
    expect(others).toEqual([]);
    expect(findNearCopies(presets, 1)[0]!.ids).toHaveLength(4);
  });
  it("are not those that were kept apart; a third one still is", () => {
    const presets = [compressor(-20), compressor(-20), compressor(-20)].map(nearness);
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
  it("are as found by comparing each with each, whatever they hold, however far one looks, whatever is kept apart", () => {
    const eq = fc.record({
      "band1.used": fc.constantFrom(0, 1),
      "band1.on": fc.constantFrom(0, 1),
      "band1.gain": fc.integer({ min: -12, max: 12 }),
      "band2.freq": fc.constantFrom(100, 104, 300),
    });
    const one = fc.oneof(
      fc.tuple(threshold, fc.constantFrom(2, 2.05, 8), fc.boolean()).map(([t, r, on]) => compressor(t, r, on)),
      fc.constantFrom(-20, -20.5, -21).map((t) => compressor(t)),
      eq.map((values): Content => {
        const model = getModel("parametric-eq");
        const processor = {
          type: "processor",
          key: "p",
          model: model.id,
          enabled: true,
          values: setTo(model, values),
        } as const;
        return { kind: "plugin", schema: CONTENT_SCHEMA, processor };
      }),
      fc.constant(room),
    );
    const within = fc.oneof(fc.constantFrom(0, 0.01, 0.05, 1), fc.double({ min: 0, max: 1, noNaN: true }));
    const apart = fc.array(fc.array(fc.nat(60).map(String), { minLength: 2, maxLength: 6 }), { maxLength: 3 });
    const seen = { groups: 0, joined: 0 };
    fc.assert(
      fc.property(fc.array(one, { maxLength: 60, size: "max" }), within, apart, (contents, reach, keptApart) => {
        const presets = contents.map(copyable);
        const found = findNearCopies(contents.map(nearness), reach, keptApart);
        const expected = byComparingAll(presets, reach, keptApart);
        const sets = (groups: readonly NearCopies[]) => groups.map((g) => g.ids.toSorted().join(" ")).toSorted();
        expect(sets(found)).toEqual(sets(expected));
        for (const { ids, distance } of found)
          expect(distance).toBeCloseTo(expected.find((g) => g.ids.includes(ids[0]!))!.distance, 9);
        seen.groups += found.length;
        seen.joined += found[0]?.ids.length ?? 0;
      }),
      { numRuns: 300 },
    );
    expect(seen.joined).toBeGreaterThan(seen.groups);
  });

  it("are joined without comparing each with each: many alike, many spread, and how far it has come is told", () => {
    const many = Array.from({ length: 4000 }, (_, n) => compressor(n < 2000 ? -20 - n * 1e-5 : -60 + n * 0.01)).map(
      nearness,
    );
    const told: number[] = [];
    const [largest] = findNearCopies(many, 0.001, [], (share) => told.push(share));
    expect(largest!.ids.length).toBeGreaterThan(2000);
    expect(told.at(-1)).toBeCloseTo(1);
    expect(told).toEqual(told.toSorted((a, b) => a - b));
  });
});

/** Every pair by its distance, step by step: slow and plain. */
function byComparingAll(
  presets: readonly Copyable[],
  within: number,
  apart: readonly (readonly string[])[],
): readonly NearCopies[] {
  const between = (a: Copyable, b: Copyable) =>
    a.fingerprint === b.fingerprint ? 0 : distanceBetween(a.content, b.content);
  const mayJoin = (a: Copyable, b: Copyable) =>
    between(a, b) <= within && !apart.some((ids) => ids.includes(a.id) && ids.includes(b.id));
  let groups: Copyable[][] = presets.map((preset) => [preset]);
  for (const [at, a] of presets.entries())
    for (const b of presets.slice(at + 1)) {
      if (!mayJoin(a, b)) continue;
      const [of, other] = [groups.find((g) => g.includes(a))!, groups.find((g) => g.includes(b))!];
      if (of !== other) groups = [...groups.filter((g) => g !== of && g !== other), [...of, ...other]];
    }
  return groups
    .filter((g) => g.length > 1)
    .map((g) => ({
      ids: g.map((p) => p.id),
      distance: Math.max(...g.flatMap((a) => g.map((b) => between(a, b)))),
    }));
}
