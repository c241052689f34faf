import equal from "fast-deep-equal";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { getModel } from "../processors/models";
import type { Project } from "../projects/project";
import { completeValues } from "../processors/model";
import { counter, someProject } from "../recall/testing/generators";
import { PARTS } from "../strips/parts";
import { createStrip } from "../strips/strip";
import { compareProjects } from "./beside";
import { stepsBetween } from "./between";
import { twoMoments } from "./testing/moments";

const RUNS = { numRuns: 60 };

describe("two moments beside each other", () => {
  it("tell a cell where its part is not the same, and only there", () => {
    fc.assert(
      fc.property(twoMoments, ({ now, then }) => {
        const told = new Map(
          compareProjects(then, now).strips.map((strip) => [strip.right?.id ?? strip.left?.id, strip]),
        );
        for (const right of now.strips) {
          const left = then.strips.find(({ id, kind }) => id === right.id && kind === right.kind);
          const cells = told.get(right.id)?.cells ?? [];
          expect(cells.map(({ part }) => part)).toEqual(
            left ? PARTS.filter((part) => !equal(left[part], right[part])) : [],
          );
          for (const { lines } of cells) expect(lines.length).toBeGreaterThan(0);
        }
      }),
      RUNS,
    );
  });

  it("have something to tell where steps lead from one to the other, and nothing where they are the same", () => {
    fc.assert(
      fc.property(twoMoments, ({ now, then }) => {
        const { details, strips } = compareProjects(then, now);
        expect(details.length + strips.length > 0).toBe(stepsBetween({ now, then }, counter()).length > 0);
        expect(compareProjects(now, structuredClone(now))).toEqual({ details: [], strips: [] });
      }),
      RUNS,
    );
  });

  it("say of each line another thing on either side", () => {
    fc.assert(
      fc.property(twoMoments, ({ now, then }) => {
        const { details, strips } = compareProjects(then, now);
        const lines = [...details, ...strips.flatMap(({ cells }) => cells.flatMap((cell) => cell.lines))];
        for (const { from, to } of lines) expect(from).not.toBe(to);
      }),
      RUNS,
    );
  });

  it("say that the same stands elsewhere of as few strips as there can be", () => {
    fc.assert(
      fc.property(someProject, (now) => {
        const [first, ...rest] = now.strips;
        const { strips } = compareProjects(now, { ...now, strips: [...rest, first!] });
        expect(strips.filter(({ moved }) => moved).length).toBe(rest.length > 0 ? 1 : 0);
      }),
      RUNS,
    );
  });

  it("are told value by value", () => {
    const model = getModel("vca-compressor");
    const cello = createStrip("c", "audio", { name: "Cello" }, null);
    const plate = createStrip("p", "return", { name: "Plate" }, null);
    const processor = { type: "processor", key: "a", model: model.id, enabled: true } as const;
    const at = (threshold: number, level: number): Project => ({
      schema: 1,
      id: "x",
      name: "Salt Lanterns",
      artist: "",
      client: "",
      song: "",
      tempo: 92,
      meter: { beats: 4, unit: 4 },
      key: "",
      sampleRate: 48_000,
      strips: [
        {
          ...cello,
          level: { fader: level, mute: false },
          inserts: { nodes: [{ ...processor, values: completeValues(model, { threshold }) }], macros: [] },
          sends: [{ key: "s", to: { strip: "p" }, tap: "post", level, pan: 0, on: true }],
        },
        plate,
      ],
    });
    const [left, right] = [at(-18, -6), { ...at(-24, -3), tempo: 96 }];
    const { details, strips } = compareProjects(left, right);
    expect(details).toEqual([{ what: "tempo", from: "92 bpm", to: "96 bpm" }]);
    expect(strips.map(({ name }) => name)).toEqual(["Cello"]);
    expect(Object.fromEntries(strips[0]!.cells.map(({ part, lines }) => [part, lines]))).toEqual({
      inserts: [{ what: "VCA compressor: Threshold", from: "−18.0 dB", to: "−24.0 dB" }],
      sends: [{ what: "Send to Plate", from: "−6.0 dB", to: "−3.0 dB" }],
      level: [{ what: "Level", from: "−6.0 dB", to: "−3.0 dB" }],
    });
  });
});
