import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Project } from "../projects/project";
import { createStrip } from "../strips/strip";
import { compareProjects } from "./beside";
import { noteOf } from "./note";
import { twoMoments } from "./testing/moments";

describe("the note of what was done", () => {
  it("has a line for every strip that differs, and for no other", () => {
    fc.assert(
      fc.property(twoMoments, ({ now, then }) => {
        const beside = compareProjects(then, now);
        const lines = noteOf({ beside, presets: [] }).split("\n");
        if (beside.strips.length + beside.details.length === 0) expect(lines).toEqual(["Nothing differs."]);
        else expect(lines).toHaveLength(beside.details.length + beside.strips.length + 1);
        for (const { name } of beside.strips) expect(lines.some((line) => line.startsWith(`${name}: `))).toBe(true);
      }),
      { numRuns: 40 },
    );
  });

  it("says it in sentences", () => {
    const cello = createStrip("c", "audio", { name: "Cello" }, null);
    const left: Project = {
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
      strips: [cello, createStrip("d", "audio", { name: "Drum" }, null)],
    };
    const right: Project = {
      ...left,
      tempo: 96,
      strips: [
        { ...cello, look: { name: "Cello close" }, level: { fader: -3, mute: false } },
        createStrip("h", "return", { name: "Hall" }, null),
      ],
    };
    expect(noteOf({ beside: compareProjects(left, right), presets: ["Wood and rosin"] })).toBe(
      [
        "The project: tempo 92 bpm → 96 bpm.",
        "Cello close: called Cello before; Level 0.0 dB → −3.0 dB.",
        "Hall: new return strip.",
        "Drum: taken out.",
        "Applied: Wood and rosin.",
        "3 strips in all.",
      ].join("\n"),
    );
  });
});
