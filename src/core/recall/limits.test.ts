import { describe, expect, it } from "vitest";
import type { ChainNode } from "../chains/chain";
import { findChainProblem } from "../chains/problems";
import { ChainSchema } from "../chains/schema";
import { MOST_NODES, MOST_STRIPS } from "../documents/limits";
import { type Project } from "../projects/project";
import { findProjectProblem } from "../projects/problems";
import { createStrip } from "../strips/strip";
import { applySteps } from "./apply";
import type { Step } from "./steps";

/* Whatever way a document grows: it holds no more than its limits say. */

const plugin = (key: string): ChainNode => ({ type: "processor", key, model: "gain", enabled: true, values: {} });
const plugins = (count: number, name = "p") => Array.from({ length: count }, (_, n) => plugin(`${name}${n}`));
const section = (key: string, nodes: readonly ChainNode[]) =>
  ({ type: "section", key, name: key, enabled: true, nodes }) as ChainNode;
const lanes = (key: string, lists: readonly (readonly ChainNode[])[]) =>
  ({
    type: "split",
    key,
    by: { way: "copy" },
    lanes: lists.map((nodes, n) => ({ key: `${key}l${n}`, name: "lane", enabled: true, level: 0, pan: 0, nodes })),
  }) as ChainNode;

const projectOf = (nodes: readonly ChainNode[]): Project => ({
  schema: 1,
  id: "p",
  name: "p",
  artist: "",
  client: "",
  song: "",
  tempo: 90,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [{ ...createStrip("s", "audio", { name: "s" }, null), inserts: { nodes: [...nodes], macros: [] } }],
});

const placed = (node: ChainNode, within?: string): Step => ({
  id: "a",
  strip: "s",
  kind: "placeNode",
  node: node.key,
  from: null,
  to: { node, after: null, ...(within === undefined ? {} : { within }) },
});

const half = MOST_NODES / 2;
const FULL: [where: string, nodes: readonly ChainNode[], within: string | undefined][] = [
  ["at the top", plugins(MOST_NODES), undefined],
  ["in a section", [section("sec", plugins(MOST_NODES - 1))], "sec"],
  ["in lanes", [lanes("spl", [plugins(half - 1, "a"), plugins(half, "b")])], "spll0"],
  ["in all of them together", [section("sec", plugins(half - 1)), ...plugins(half, "q")], "sec"],
];

describe("a chain", () => {
  it.each(FULL)("that is full %s takes no more, by its schema, its check and a step", (_, nodes, within) => {
    const project = projectOf(nodes);
    expect(findProjectProblem(project)?.message ?? null).toBeNull();
    const one = applySteps(project, [placed(plugin("more"), within)]);
    expect(!one.ok && one.error.reason).toContain("256 plugins at the most");
    const longer = projectOf([...nodes, plugin("more")]);
    expect(findProjectProblem(longer)?.message).toContain("256 plugins, sections and splits at the most");
    expect(findChainProblem({ nodes: [...nodes, plugin("more")], macros: [] }, "chain")?.path).toBe("chain.nodes");
  });

  it("of 80,000 plugins in one section is refused by its schema", () => {
    const chain = { nodes: [section("sec", plugins(80_000))], macros: [] };
    expect(ChainSchema.safeParse(chain).success).toBe(false);
    expect(ChainSchema.safeParse({ nodes: [lanes("spl", [plugins(80_000)])], macros: [] }).success).toBe(false);
  });

  it("is not filled up by thousands of steps of one change", () => {
    const steps = Array.from({ length: 20_000 }, (_, n) => placed(plugin(`m${n}`), "sec"));
    const all = applySteps(projectOf([section("sec", [])]), steps);
    expect(!all.ok && steps.indexOf(all.error.step)).toBe(MOST_NODES - 1);
  });
});

describe("a project", () => {
  it("of 2,000 strips takes no more by a step", () => {
    const strip = (n: number) => createStrip(`s${n}`, "audio", { name: "s" }, null);
    const project = { ...projectOf([]), strips: Array.from({ length: MOST_STRIPS }, (_, n) => strip(n)) };
    const to = { strip: strip(MOST_STRIPS), after: null };
    const step: Step = {
      id: "a",
      strip: to.strip.id,
      kind: "placeStrip",
      from: null,
      to,
    };
    const more = applySteps(project, [step]);
    expect(!more.ok && more.error.reason).toContain("2000 strips at the most");
  });
});
