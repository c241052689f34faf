import { describe, expect, it } from "vitest";
import { renderChain } from "../sound/render";
import { EFFECTS } from "../processors/models";
import { noise } from "../sound/testing";
import { WIRED, processor } from "../recall/testing/wired";
import { beatsPerMinute } from "../units/quantities";
import { type ChainNode, EMPTY_CHAIN } from "./chain";
import { findChainProblem } from "./problems";
import {
  processorsOf,
  findMisplaced,
  findNode,
  keysIn,
  mapNode,
  mapProcessors,
  rekeyed,
  withNode,
  withoutNode,
} from "./tree";
import { differencesOf, describeDifferences } from "./differences";
import { hearChain } from "./hear";
import { isSplit } from "./heard-chain";

const TEMPO = beatsPerMinute(120);

describe("a chain as a tree", () => {
  it("finds every node, wherever it is, and its place", () => {
    expect(processorsOf(WIRED).map((p) => p.key)).toEqual(["eq", "amp1", "amp2", "room", "comp"]);
    expect(findNode(WIRED, "amp2")?.place).toEqual({ within: "laneB", after: null });
    expect(findNode(WIRED, "room")?.place).toEqual({ within: "inner", after: null });
    expect(findNode(WIRED, "comp")?.place).toEqual({ within: null, after: "pedals" });
    expect(findNode(WIRED, "nothing")).toBeNull();
  });

  it("takes out and puts back: the same chain", () => {
    for (const node of ["eq", "amp1", "room", "pedals", "comp", "split"]) {
      const found = findNode(WIRED, node)!;
      expect(withNode(withoutNode(WIRED, node), found.node, found.place)).toEqual(WIRED);
    }
  });

  it("keeps what does not change as the same object", () => {
    expect(mapProcessors(WIRED, (p) => p)).toBe(WIRED);
    expect(mapNode(WIRED, "nothing", (n) => n)).toBe(WIRED);
    const changed = mapNode(WIRED, "comp", (n) => ({ ...n, key: "other" }));
    expect(changed.nodes[0]).toBe(WIRED.nodes[0]);
  });

  it("copies under new keys, all of them", () => {
    let next = 0;
    const { node, keys } = rekeyed(findNode(WIRED, "pedals")!.node, () => `k${next++}`);
    expect(keysIn(node)).toHaveLength(keysIn(findNode(WIRED, "pedals")!.node).length);
    expect(keysIn(node).every((key) => key.startsWith("k"))).toBe(true);
    expect(keys.get("amp1")).toBeDefined();
  });

  it("says why a node may not stand somewhere", () => {
    const split = findNode(WIRED, "split")!.node;
    const section = findNode(WIRED, "pedals")!.node;
    const around = { type: "section", key: "outer", name: "Outer", enabled: true, nodes: [section] } as ChainNode;
    expect(findMisplaced(WIRED, around, null)).toMatch(/top of a chain/);
    expect(findMisplaced(WIRED, processor("x"), "inner")).toBeNull();
    expect(findMisplaced(WIRED, section, "laneA")).toMatch(/top of a chain/);
    expect(findMisplaced(WIRED, split, "innerB")).toMatch(/third time/);
    expect(findMisplaced(WIRED, processor("x"), "gone")).toMatch(/no section or lane/);
  });

  it("is refused where keys are used twice, bands do not fit their lanes, or a macro aims at nothing", () => {
    const twice = { ...WIRED, nodes: [...WIRED.nodes, processor("amp1")] };
    expect(findChainProblem(twice, "chain")).toMatchObject({ path: "chain.nodes[2].key" });
    const bands = mapNode(WIRED, "split", (n) =>
      n.type === "split" ? { ...n, by: { way: "bands", crossovers: [500, 300] } } : n,
    );
    expect(findChainProblem(bands, "chain")?.message).toMatch(/crossover/);
    const aimless = {
      ...EMPTY_CHAIN,
      macros: [
        {
          key: "m",
          name: "M",
          style: "line" as const,
          axes: [[{ node: "gone", param: "mix", from: 0, to: 1, bend: 0 }]],
        },
      ],
    };
    expect(findChainProblem(aimless, "chain")?.message).toMatch(/not in this chain/);
    expect(findChainProblem(WIRED, "chain")).toBeNull();
  });
});

describe("hearing a tree", () => {
  const splitOf = (heard: ReturnType<typeof hearChain>) => heard.find(isSplit)!;
  it("dissolves sections; one that is off switches off what it holds and keeps its wiring", () => {
    const on = hearChain(WIRED, TEMPO);
    const off = hearChain(
      mapNode(WIRED, "pedals", (n) => (n.type === "section" ? { ...n, enabled: false } : n)),
      TEMPO,
    );
    expect(on.map((n) => n.key)).toEqual(["eq", "split", "comp"]);
    expect(off.map((n) => n.key)).toEqual(["eq", "split", "comp"]);
    expect(off.map((n) => n.enabled)).toEqual([false, false, true]);
  });
  it("gives lanes their gain, silence at the least", () => {
    const [a, b] = splitOf(hearChain(WIRED, TEMPO)).lanes;
    expect(a?.gain).toBeCloseTo(0.5012, 4);
    expect(b?.gain).toBe(0);
  });
  it("solos a lane among those beside it, and the lane that holds it", () => {
    const alone = (solo: string) => splitOf(hearChain(WIRED, TEMPO, { solo })).lanes.map((l) => l.enabled);
    expect(alone("laneA")).toEqual([true, false]);
    expect(alone("innerB")).toEqual([false, true]);
    expect(alone("gone")).toEqual([true, true]);
  });
});

describe("a chain of two hundred plugins", () => {
  it("is taken, heard and finite", () => {
    const models = EFFECTS.map((model) => model.id);
    const nodes = Array.from({ length: 200 }, (_, n) => processor(`p${n}`, models[n % models.length]));
    const chain = { ...EMPTY_CHAIN, nodes };
    expect(findChainProblem(chain, "chain")).toBeNull();
    const sound = noise(0.05, 48_000);
    const { left } = renderChain(hearChain(chain, TEMPO), sound);
    expect(left.every(Number.isFinite)).toBe(true);
  }, 30_000);
});

describe("what differs in a tree", () => {
  it("tells lanes, sections, macros and wiring apart from values", () => {
    const lane = mapNode(WIRED, "split", (n) =>
      n.type === "split" ? { ...n, lanes: n.lanes.map((l) => ({ ...l, pan: l.key === "laneA" ? -30 : l.pan })) } : n,
    );
    expect(differencesOf(WIRED, lane)).toEqual([{ kind: "lane", lane: "laneA", setting: "pan", from: 0, to: -30 }]);
    const moved = withNode(withoutNode(WIRED, "comp"), findNode(WIRED, "comp")!.node, { within: "laneB", after: null });
    expect(differencesOf(WIRED, moved)).toEqual([{ kind: "order" }]);
    const macros = { ...WIRED, macros: [] };
    expect(describeDifferences(differencesOf(WIRED, macros))).toBe("the macros");
    expect(differencesOf(WIRED, WIRED)).toEqual([]);
  });
});
