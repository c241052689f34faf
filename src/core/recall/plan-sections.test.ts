import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Chain, ChainNode, Macro, Processor, Section } from "../chains/chain";
import { findChainProblem } from "../chains/problems";
import { keysIn } from "../chains/tree";
import type { Content } from "../presets/preset";
import { type Project, getStrip } from "../projects/project";
import { createStrip } from "../strips/strip";
import { applySteps } from "./apply";
import { planRecall } from "./plan";
import { counter, someChain } from "./testing/generators";

const gain = (key: string, dB: number): Processor => ({
  type: "processor",
  key,
  model: "gain",
  enabled: true,
  values: { gain: dB },
});
const section = (key: string, name: string, ...nodes: Processor[]): Section => ({
  type: "section",
  key,
  name,
  enabled: true,
  nodes,
});
const chain = (...nodes: ChainNode[]): Chain => ({ nodes, macros: [] });
const moving = (key: string, node: string): Macro => ({
  key,
  name: key,
  style: "line",
  axes: [[{ node, param: "gain", from: -6, to: 6, bend: 0 }]],
});

const projectWith = (inserts: Chain): Project => ({
  schema: 1,
  id: "p",
  name: "Weir Song",
  artist: "Copper Heron",
  client: "",
  song: "Weir Song",
  tempo: 92,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [
    { ...createStrip("cello", "audio", { name: "Cello" }, { strip: "main" }), inserts },
    createStrip("main", "main", { name: "Main" }, { hardware: "Out 1–2" }),
  ],
});

/** What a chain does in a mode to the inserts of the cello. */
function brought(
  source: Chain | Content,
  onto: Chain,
  answers: Record<string, string> = {},
  mode: "section" | "itself" = "section",
) {
  const project = projectWith(onto);
  const content: Content = "nodes" in source ? { kind: "chain", schema: 1, chain: source } : source;
  const plan = planRecall({
    project,
    requests: [
      {
        source: { content, from: { preset: "w", version: 1, name: "Wood" }, name: "Wood" },
        parts: ["inserts"],
        targets: { strips: ["cello"] },
        mode,
      },
    ],
    except: [],
    answers,
    mint: counter(),
  });
  const applied = applySteps(project, plan.steps);
  if (!applied.ok) throw new Error(applied.error.reason);
  return { plan, now: getStrip(applied.value, "cello").inserts };
}

const names = ({ nodes }: Chain) => nodes.map((node) => (node.type === "section" ? node.name : node.key));
const HERE = chain(gain("a", -3), section("sec", "Tone", gain("b", 1)), section("sec2", "Space", gain("c", 2)));

describe("sections of a chain", () => {
  it("take the places of sections of their names, and nothing else changes", () => {
    const { plan, now } = brought(chain(section("x", "space", gain("y", 5), gain("z", 6)), gain("w", 0)), HERE);
    expect(plan.questions).toEqual([]);
    expect(plan.notes.map((n) => n.text)).toEqual([
      "Gain and polarity stands in no section of “Wood”; it is left out.",
    ]);
    expect(now.nodes.slice(0, 2)).toEqual(HERE.nodes.slice(0, 2));
    expect(now.nodes[2]).toEqual({ ...section("sec2", "space", gain("y", 5), gain("z", 6)) });
  });

  it("whose names are not here are asked for: behind all, in the place of one, or left out", () => {
    const source = chain(section("x", "Breath", gain("y", 5)));
    const asked = brought(source, HERE);
    expect(asked.plan.questions).toMatchObject([
      {
        id: "section:cello:breath",
        answer: "behind",
        choices: [{ id: "behind" }, { id: "on:sec" }, { id: "on:sec2" }, { id: "leave" }],
      },
    ]);
    expect(names(asked.now)).toEqual(["a", "Tone", "Space", "Breath"]);
    expect(names(brought(source, HERE, { "section:cello:breath": "on:sec" }).now)).toEqual(["a", "Breath", "Space"]);
    expect(brought(source, HERE, { "section:cello:breath": "leave" }).plan.steps).toEqual([]);
  });

  it("come from a chain without any as one that is named after it; of one here it takes the place, unless told otherwise", () => {
    const one = chain(gain("a", -3), section("sec", "Tone", gain("b", 1)));
    const { plan, now } = brought(chain(gain("a", 4)), one);
    expect(plan.questions).toMatchObject([{ answer: "on:sec" }]);
    expect(names(now)).toEqual(["a", "Wood"]);
    expect(keysIn(now.nodes[1]!)).not.toContain("a");
  });

  it("take macros that move what is gone out of it, and bring those that move nothing else", () => {
    const here = { ...HERE, macros: [moving("m", "b"), moving("n", "c")] };
    const source = { ...chain(section("x", "Tone", gain("y", 5))), macros: [moving("m", "y"), moving("o", "gone")] };
    const { plan, now } = brought(source, here);
    expect(now.macros.map(({ axes }) => axes.map((axis) => axis.map((t) => t.node)))).toEqual([[[]], [["c"]], [["y"]]]);
    expect(new Set(now.macros.map(({ key }) => key)).size).toBe(3);
    expect(plan.notes.map((n) => n.text)).toEqual(["Macros let go of 1 value that went with it."]);
  });

  it("of a plugin there are none: it goes last", () => {
    const plugin: Content = { kind: "plugin", schema: 1, processor: gain("q", 1) };
    expect(names(brought(plugin, HERE).now)).toEqual(["a", "Tone", "Space", "q"]);
  });

  it("leave whole chains, and a second time change nothing, whatever they are", () => {
    fc.assert(
      fc.property(someChain, someChain, fc.constantFrom("behind", "on:sec", "leave"), (source, onto, answer) => {
        const answers = { "section:cello:wood": answer, "section:cello:post": answer };
        const { now } = brought(source, onto, answers);
        expect(findChainProblem(now, "")).toBeNull();
        // What was put behind all has its own name from then on.
        expect(brought(source, now, answers).plan.steps).toEqual([]);
      }),
      { seed: 13, numRuns: 300 },
    );
  });
});

describe("a newer version of what is there", () => {
  const before = { preset: "w", version: 0, name: "Wood" };
  const now = { preset: "w", version: 1, name: "Wood" };
  const own = { ...section("sec", "Tone of mine", gain("b", 1)), from: before, enabled: false };
  const itself = (source: Chain | Content, onto: Chain) => brought(source, onto, {}, "itself");

  it("takes the place of the section that was loaded from it, which keeps its name and its switch", () => {
    const onto = chain(gain("a", -3), own, gain("c", 0));
    const { plan, now: after } = itself(chain(section("x", "Inner", gain("a", 5)), gain("z", 6)), onto);
    expect(after.nodes[0]).toBe(onto.nodes[0]);
    expect(after.nodes[2]).toBe(onto.nodes[2]);
    expect(after.nodes[1]).toMatchObject({ key: "sec", name: "Tone of mine", enabled: false, from: now });
    expect(keysIn(after.nodes[1]!)).toHaveLength(3);
    expect(plan.notes).toEqual([]);
  });

  it("is every plugin that came from it, and no other of its model", () => {
    const mine = (key: string) => ({ ...gain(key, 1), from: before });
    const plugin: Content = { kind: "plugin", schema: 1, processor: gain("q", 9) };
    const onto = { ...chain(gain("a", 2), mine("b"), section("s", "S", mine("c"))), macros: [moving("m", "b")] };
    const { now: after } = itself(plugin, onto);
    expect(after.nodes).toEqual([
      gain("a", 2),
      { ...gain("b", 9), from: now },
      section("s", "S", { ...gain("c", 9), from: now }),
    ]);
    expect(after.macros).toEqual(onto.macros);
  });

  it("is the whole chain where that came from it, and nothing where nothing did, and that is said", () => {
    const whole = { ...chain(gain("a", 2)), from: before };
    expect(itself(chain(gain("a", 4)), whole).now).toEqual({ ...chain(gain("a", 4)), from: now });
    const { plan } = itself(chain(gain("a", 4)), chain(gain("a", 2), section("s", "Wood", gain("b", 1))));
    expect(plan.steps).toEqual([]);
    expect(plan.notes.map((n) => n.text)).toEqual(["“Wood” is not on Cello any more; it stays."]);
  });
});
