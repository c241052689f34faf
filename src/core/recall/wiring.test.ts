import { describe, expect, it } from "vitest";
import { differencesOf } from "../chains/differences";
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
  it("adds behind what was named a moment ago, else last in its list, else last of all", () => {
    const added = (place: { within: string | null; after: string | null }) =>
      placeOf(after(gestures.putInNear(hand(), processor("new", "gain"), place)), "new");
    const last = WIRED.nodes.at(-1)!.key;
    expect(added({ within: "laneA", after: "amp1" })).toEqual({ within: "laneA", after: "amp1" });
    expect(added({ within: "laneA", after: null })).toEqual({ within: "laneA", after: null });
    expect(added({ within: "laneA", after: "gone" })).toEqual({ within: "laneA", after: "amp1" });
    expect(added({ within: "gone", after: "amp1" })).toEqual({ within: null, after: last });
    expect(added({ within: null, after: "gone" })).toEqual({ within: null, after: last });
  });

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
    expect(gestures.targetsLostWith(WIRED, ["split"])).toBe(3);
    expect(after(gestures.takeOut(hand(), "split")).macros[0]?.axes).toEqual([[]]);
    expect(after(gestures.takeOut(hand(), "comp")).macros).toEqual(WIRED.macros);
  });

  it("switches several at once, names, blends, keys", () => {
    const off = after(gestures.switchOn(hand(), ["amp1", "pedals", "laneB", "comp"], false));
    expect(findNode(off, "pedals")?.node).toMatchObject({ enabled: false });
    expect(after(gestures.rename(hand(), "pedals", "Front")).nodes[0]).toMatchObject({ name: "Front" });
    const blended = after(gestures.setLane(hand(), "laneA", { level: -12, pan: -40 }));
    expect(findNode(blended, "split")?.node).toMatchObject({ lanes: [{ level: -12, pan: -40 }, {}] });
    const panned = after(gestures.setLane(hand(), "laneA", { panLaw: "pan" }));
    expect(differencesOf(WIRED, panned)).toEqual([
      { kind: "lane", lane: "laneA", setting: "panLaw", from: "balance", to: "pan" },
    ]);
    expect(gestures.setLane(hand(), "laneA", { panLaw: "balance" })).toEqual([]);
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

const splitIn = (chain: ReturnType<typeof after>, key: string) => {
  const node = findNode(chain, key)?.node;
  if (node?.type !== "split") throw new Error(`${key} is no split`);
  return node;
};
const SPLIT = splitIn(WIRED, "split");
const done = (result: ReturnType<typeof gestures.addLane>): readonly Step[] => {
  if (!result.ok) throw new Error(result.error);
  return result.value;
};

describe("lanes by hand", () => {
  it("become bands, spread evenly, and the whole sound again", () => {
    const bands = splitIn(after(done(gestures.splitBy(hand(), SPLIT, "bands"))), "split");
    expect(bands.by).toEqual({ way: "bands", crossovers: gestures.evenCrossovers(2) });
    expect(gestures.splitBy(hand(), SPLIT, "copy")).toEqual({ ok: true, value: [] });
    for (let count = 2; count <= 6; count++) {
      const crossovers = gestures.evenCrossovers(count);
      const ratios = crossovers.slice(1).map((hz, at) => hz / crossovers[at]!);
      for (const ratio of ratios) expect(ratio / ratios[0]!).toBeCloseTo(1, 1);
      expect(crossovers.length).toBe(count - 1);
    }
  });

  it("are never more than six bands, nor fewer than two", () => {
    const lane = (n: number) => ({ ...SPLIT.lanes[0]!, key: `l${n}`, nodes: [] });
    const seven = { ...SPLIT, lanes: [1, 2, 3, 4, 5, 6, 7].map(lane) };
    expect(gestures.splitBy(hand(), seven, "bands")).toMatchObject({ ok: false });
    expect(gestures.splitBy(hand(), { ...SPLIT, lanes: [lane(1)] }, "bands")).toMatchObject({ ok: false });
    const six = { ...SPLIT, lanes: [1, 2, 3, 4, 5, 6].map(lane), by: { way: "bands" as const, crossovers: [1] } };
    expect(gestures.addLane(hand(), six)).toEqual({ ok: false, error: "Six bands are the most." });
    expect(gestures.addLane(hand(), { ...six, by: { way: "copy" } })).toMatchObject({ ok: true });
  });

  it("come and go: the last stays, and macros lose what they aimed at", () => {
    const more = splitIn(after(done(gestures.addLane(hand(), SPLIT))), "split");
    expect(more.lanes.map((lane) => lane.name)).toEqual(["Clean", "Dirty", "Lane 3"]);
    const less = after(gestures.removeLane(hand(), SPLIT, "laneB"));
    expect(splitIn(less, "split").lanes.map((lane) => lane.key)).toEqual(["laneA"]);
    expect(JSON.stringify(less.macros)).not.toContain("laneB");
    expect(gestures.removeLane(hand(), { ...SPLIT, lanes: SPLIT.lanes.slice(0, 1) }, "laneA")).toEqual([]);
    expect(gestures.removeLane(hand(), SPLIT, "nowhere")).toEqual([]);
  });

  it("lose the crossover above a band that goes, or below it where it was the lowest", () => {
    const bands = (crossovers: number[]) => ({
      ...SPLIT,
      lanes: [...SPLIT.lanes, { ...SPLIT.lanes[0]!, key: "top", name: "Top", nodes: [] }],
      by: { way: "bands" as const, crossovers },
    });
    const left = (key: string) => splitIn(after(gestures.removeLane(hand(), bands([200, 2000]), key)), "split").by;
    expect(left("laneA")).toEqual({ way: "bands", crossovers: [2000] });
    expect(left("laneB")).toEqual({ way: "bands", crossovers: [2000] });
    expect(left("top")).toEqual({ way: "bands", crossovers: [200] });
  });

  it("hold a crossover between its neighbours and within what is heard", () => {
    const bands = { ...SPLIT, by: { way: "bands" as const, crossovers: [200, 2000] } };
    const at = (n: number, hz: number) => gestures.withCrossover(bands, n, hz).by;
    expect(at(0, 5000)).toEqual({ way: "bands", crossovers: [1999, 2000] });
    expect(at(1, 5)).toEqual({ way: "bands", crossovers: [200, 201] });
    expect(at(0, 1)).toEqual({ way: "bands", crossovers: [20, 2000] });
    expect(at(1, 90_000)).toEqual({ way: "bands", crossovers: [200, 20_000] });
    expect(gestures.withCrossover(SPLIT, 0, 500)).toBe(SPLIT);
  });
});

describe("a preset that is loaded into a slot", () => {
  const from = { preset: "echoing", version: 3, name: "Echoing" };
  const plugin = { kind: "plugin" as const, schema: 1 as const, processor: processor("x", "echo") };
  const loaded = {
    kind: "chain" as const,
    schema: 1 as const,
    chain: { nodes: [processor("one", "gain"), WIRED.nodes[0]!], macros: WIRED.macros },
  };
  const section = WIRED.nodes[0]!;
  if (section.type !== "section") throw new Error("It begins with a section");

  it("takes the place of one plugin, under its key", () => {
    const slot = { kind: "processor" as const, processor: processor("comp") };
    const chain = after(gestures.loadIntoSlot(hand(), slot, plugin, from));
    expect(chain.nodes[1]).toMatchObject({ key: "comp", model: "echo", from });
    expect(chain.nodes[0]).toEqual(WIRED.nodes[0]);
    expect(
      gestures.presetInSlot({ kind: "processor", processor: chain.nodes[1] as typeof plugin.processor }, chain),
    ).toEqual(from);
  });

  it("fills a section: brackets inside go, its macros come behind those that are left", () => {
    const chain = after(gestures.loadIntoSlot(hand(), { kind: "section", section }, loaded, from));
    const [filled, behind] = chain.nodes;
    expect(filled).toMatchObject({ type: "section", key: "pedals", name: "Pedals", from });
    const inside = filled?.type === "section" ? filled.nodes : [];
    expect(inside.map((node) => node.type)).toEqual(["processor", "processor", "split"]);
    expect(behind).toEqual(WIRED.nodes[1]);
    expect(chain.macros.length).toBe(2 * WIRED.macros.length);
    expect(gestures.contentOfSlot({ kind: "section", section: filled as typeof section }, chain)).toMatchObject({
      kind: "chain",
      chain: { nodes: [{ model: "gain" }, { model: "parametric-eq" }, { type: "split" }] },
    });
  });

  it("is the whole chain where nothing is chosen, and what stands there goes by its name", () => {
    const chain = after(gestures.loadIntoSlot(hand(), { kind: "chain" }, loaded, from));
    expect(chain.from).toEqual(from);
    expect(gestures.contentOfSlot({ kind: "chain" }, chain)).toBeNull();
    const named = after(gestures.followInSlot(hand(), { kind: "section", section }, from));
    expect(named.nodes[0]).toEqual({ ...section, from });
  });
});
