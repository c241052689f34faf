import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Content } from "../presets/preset";
import { CONTENT_SCHEMA } from "../presets/version";
import { getModel } from "../processors/models";
import { setTo } from "../sound/testing";
import { type Nearness, distanceBetween, nearnessOf } from "./near-copies";
import { NearestIndex } from "./nearest-index";

const compressor = ([threshold, ratio, enabled]: readonly [number, number, boolean]): Content => ({
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

const nearness = (content: Content, id: string): Nearness => nearnessOf({ id, content, fingerprint: id })!;

const one = fc
  .tuple(fc.double({ min: -60, max: 0, noNaN: true }), fc.double({ min: 1, max: 20, noNaN: true }), fc.boolean())
  .map(compressor);

describe("the nearest sound", () => {
  it("is as far as its values are, none is nearer, and what was taken out is not found", () => {
    fc.assert(
      fc.property(fc.array(one, { maxLength: 12 }), one, fc.nat(), (held, sought, gone) => {
        const index = new NearestIndex();
        for (const [at, content] of held.entries()) index.put(nearness(content, String(at)));
        // Put in twice, it is there once.
        if (held[0]) index.put(nearness(held[0], "0"));
        expect(index.size).toBe(held.length);
        const left = held.map((content, at) => ({ id: String(at), content })).filter(({ id }) => id !== String(gone));
        index.remove(String(gone));
        const found = index.nearest(nearness(sought, "sought"), 0.5);
        const ways = left.map(({ content }) => distanceBetween(content, sought)).filter((way) => way <= 0.5);
        expect(found?.distance ?? Number.POSITIVE_INFINITY).toBeCloseTo(
          Math.min(Number.POSITIVE_INFINITY, ...ways),
          12,
        );
        if (found)
          expect(distanceBetween(left.find(({ id }) => id === found.id)!.content, sought)).toBeCloseTo(
            found.distance,
            12,
          );
      }),
    );
  });
});
