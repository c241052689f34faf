import { describe, expect, it } from "vitest";
import { findChainProblem } from "../chains/problems";
import { findNode } from "../chains/tree";
import { type Project, getStrip } from "../projects/project";
import { createStrip } from "../strips/strip";
import { applySteps } from "./apply";
import * as gestures from "./gestures";
import { sentenceOf } from "./sentences";
import { invertSteps } from "./step";
import type { Step } from "./steps";
import { counter } from "./testing/generators";
import { WIRED, processor } from "./testing/wired";

const PROJECT: Project = {
  schema: 1,
  id: "p",
  name: "Salt Lanterns",
  artist: "Copper Heron",
  client: "Copper Heron",
  song: "Salt Lanterns",
  tempo: 96,
  meter: { beats: 4, unit: 4 },
  key: "D minor",
  sampleRate: 48_000,
  strips: [{ ...createStrip("s", "audio", { name: "Harmonium" }, null), inserts: WIRED }],
};

const hand = () => ({ strip: getStrip(PROJECT, "s"), mint: counter("new") });
const stepsOf = (result: ReturnType<typeof gestures.splitAround>): readonly Step[] => {
  if (!result.ok) throw new Error(result.error);
  return result.value.steps;
};
const moved = (key: string, place: { within: string | null; after: string | null }): readonly Step[] => {
  const steps = gestures.moveTo(hand(), key, place);
  if (!steps.ok) throw new Error(steps.error);
  return steps.value;
};

/** The chain after some steps; what it became is sound, and the inverse gives back what was. */
function after(steps: readonly Step[]) {
  const applied = applySteps(PROJECT, steps);
  if (!applied.ok) throw new Error(applied.error.reason);
  const back = applySteps(applied.value, invertSteps(steps));
  expect(back).toEqual({ ok: true, value: PROJECT });
  const chain = getStrip(applied.value, "s").inserts;
  expect(findChainProblem(chain, "chain")).toBeNull();
  for (const step of steps) expect(sentenceOf(step, PROJECT)).toMatch(/^Harmonium: .+\.$/);
  return chain;
}

const placeOf = (chain: ReturnType<typeof after>, key: string) => findNode(chain, key)?.place;

describe("wiring by hand", () => {
  it("moves a plugin into a lane, out of it, into a section, across lanes", () => {
    expect(placeOf(after(moved("comp", { within: "laneA", after: "amp1" })), "comp")).toEqual({
      within: "laneA",
      after: "amp1",
    });
    expect(placeOf(after(gestures.move(hand(), "amp1", 1)), "amp1")).toEqual({ within: "pedals", after: "split" });
    expect(placeOf(after(gestures.move(hand(), "amp1", -1)), "amp1")).toEqual({ within: "pedals", after: "eq" });
    expect(placeOf(after(gestures.move(hand(), "comp", -1)), "comp")).toEqual({ within: "pedals", after: "split" });
    expect(placeOf(after(gestures.moveAcross(hand(), "amp1", 1)), "amp1")?.within).toBe("laneB");
    expect(gestures.moveAcross(hand(), "amp1", -1)).toEqual([]);
  });

  it("refuses to put lanes a third time into each other, or a section into a lane, and says so", () => {
    expect(gestures.moveTo(hand(), "pedals", { within: "innerB", after: null })).toMatchObject({ ok: true, value: [] });
    const deeper = gestures.splitAround(hand(), ["room"], { way: "copy" });
    expect(deeper).toMatchObject({ ok: false, error: expect.stringMatching(/third time/) as string });
    expect(gestures.sectionAround(hand(), ["amp1"], "Post")).toMatchObject({ ok: false });
  });

  it("puts lanes, bands and sections around plugins, and takes them away again", () => {
    const split = gestures.splitAround(hand(), ["comp"], { way: "bands", crossovers: [800] });
    const chain = after(stepsOf(split));
    expect(chain.nodes[1]).toMatchObject({ type: "split", lanes: [{ name: "Low", nodes: [{ key: "comp" }] }, {}] });
    const section = after(stepsOf(gestures.sectionAround(hand(), ["comp"], "Post")));
    expect(section.nodes[1]).toMatchObject({ type: "section", name: "Post", nodes: [{ key: "comp" }] });
    expect(gestures.sectionAround(hand(), ["eq", "comp"], "No")).toMatchObject({
      ok: false,
      error: "Choose plugins that stand in the same part of the chain.",
    });
    const flat = after(gestures.dissolve(hand(), "pedals"));
    expect(flat.nodes.map((n) => n.key)).toEqual(["eq", "split", "comp"]);
    const inner = after(gestures.dissolve(hand(), "split"));
    expect(findNode(inner, "deeper")?.place).toEqual({ within: "pedals", after: "amp2" });
    // The lane that a macro moved is gone, and so is that target.
    expect(inner.macros[0]?.axes[0]).toHaveLength(2);
  });

  it("copies a plugin, and macros move the copy too", () => {
    const copied = gestures.duplicate(hand(), "amp1")!;
    const chain = after(copied.steps);
    expect(placeOf(chain, copied.key)).toEqual({ within: "laneA", after: "amp1" });
    expect(chain.macros[0]?.axes[0]).toHaveLength(4);
  });

  it("takes a plugin out, with the macro targets that aimed at it, and brings both back", () => {
    expect(gestures.targetsLostWith(WIRED, "split")).toBe(3);
    expect(after(gestures.takeOut(hand(), "split")).macros[0]?.axes).toEqual([[]]);
    expect(after(gestures.takeOut(hand(), "comp")).macros).toEqual(WIRED.macros);
  });

  it("switches several at once, names, blends, keys", () => {
    const off = after(gestures.switchOn(hand(), ["amp1", "pedals", "laneB", "comp"], false));
    expect(findNode(off, "pedals")?.node).toMatchObject({ enabled: false });
    expect(after(gestures.callIt(hand(), "pedals", "Front")).nodes[0]).toMatchObject({ name: "Front" });
    const blended = after(gestures.setLane(hand(), "laneA", { level: -12, pan: -40 }));
    expect(findNode(blended, "split")?.node).toMatchObject({ lanes: [{ level: -12, pan: -40 }, {}] });
    const keyed = after(gestures.keyBy(hand(), "comp", { material: "drum-with-cello" }));
    expect(findNode(keyed, "comp")?.node).toMatchObject({ keyInput: { material: "drum-with-cello" } });
  });

  it("moves a macro: every target, in one go", () => {
    const chain = after(gestures.moveMacro(hand(), "dirt", [1]));
    expect(findNode(chain, "amp1")?.node).toMatchObject({ values: { drive: 40 } });
    expect(findNode(chain, "amp2")?.node).toMatchObject({ values: { drive: 6 } });
    expect(findNode(chain, "split")?.node).toMatchObject({ lanes: [{}, { level: 0 }] });
  });

  it("puts a plugin at a place within a lane", () => {
    const chain = after(gestures.putIn(hand(), processor("x"), { within: "innerB", after: null }));
    expect(placeOf(chain, "x")).toEqual({ within: "innerB", after: null });
    const twice = gestures.putIn(hand(), processor("eq"), { within: "innerB", after: null });
    expect(applySteps(PROJECT, twice)).toMatchObject({ ok: false });
  });
});
