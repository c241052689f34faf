import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { createStrip } from "../strips/strip";
import type { Project } from "../projects/project";
import { someContent, someStrips } from "../recall/testing/generators";
import { heldFlow } from "./held-flow";
import { saveStrip, saveStrips } from "./save";

const SEND = { tap: "post" as const, level: -12, pan: 0, on: true };
const KICK = createStrip("kick", "audio", { name: "Kick" }, { strip: "drums" });
const SNARE = {
  ...createStrip("snare", "audio", { name: "Snare" }, { strip: "drums" }),
  sends: [
    { key: "a", to: { strip: "room" }, ...SEND },
    { key: "b", to: { strip: "hall" }, ...SEND },
  ],
};
const ROOM = createStrip("room", "return", { name: "Room" }, { strip: "main" });
const project: Project = {
  schema: 1,
  id: "p",
  name: "Quay",
  artist: "",
  client: "",
  song: "",
  tempo: 92,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [
    KICK,
    SNARE,
    createStrip("drums", "group", { name: "Drums" }, { strip: "main" }),
    ROOM,
    createStrip("hall", "return", { name: "Hall" }, { strip: "main" }),
    createStrip("main", "main", { name: "Main" }, { hardware: "Out 1–2" }),
  ],
};

const waysOf = ({ ways, points }: ReturnType<typeof heldFlow>) => {
  const nameOf = (id: string) => points.find((point) => point.id === id)!.name;
  return ways.map(({ from, to, part }) => `${nameOf(from)} ${part} ${nameOf(to)}`).toSorted();
};

describe("the signal flow that a preset holds", () => {
  it("leads between its strips, and to others by their names, once each", () => {
    const both = { parts: ["sends", "routing"] as const };
    const flow = heldFlow(
      saveStrips(
        project,
        [KICK, SNARE, ROOM].map((strip) => ({ strip, ...both })),
        "set",
      ),
      "Kit",
    );
    expect(waysOf(flow)).toEqual([
      "Kick routing Drums",
      "Room routing Main",
      "Snare routing Drums",
      "Snare sends Hall",
      "Snare sends Room",
    ]);
    expect(flow.points.filter(({ inside }) => !inside).map(({ name }) => name)).toEqual(["Drums", "Hall", "Main"]);
  });

  it("is only of the parts that are kept; a strip alone goes by the name that is given", () => {
    expect(waysOf(heldFlow(saveStrip(project, SNARE, ["sends"]), "Snare"))).toEqual([
      "Snare sends Hall",
      "Snare sends Room",
    ]);
    expect(heldFlow(saveStrip(project, SNARE, ["level"]), "Snare").ways).toEqual([]);
  });

  it("leads nowhere that is not among its points, whatever is kept", () => {
    fc.assert(
      fc.property(fc.oneof(someContent, someStrips), (content) => {
        const { points, ways } = heldFlow(content, "It");
        const ids = points.map(({ id }) => id);
        expect(new Set(ids).size).toBe(ids.length);
        for (const { from, to } of ways) expect([ids.includes(from), ids.includes(to)]).toEqual([true, true]);
        // Who stands outside is there since something leads to it.
        for (const { id } of points.filter(({ inside }) => !inside))
          expect(ways.some(({ from, to }) => from === id || to === id)).toBe(true);
      }),
      { seed: 4, numRuns: 200 },
    );
  });
});
