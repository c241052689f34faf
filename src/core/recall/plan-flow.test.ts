import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { EMPTY_CHAIN, type Chain } from "../chains/chain";
import type { Content } from "../presets/preset";
import { type Project, getStrip } from "../projects/project";
import { findProjectProblem } from "../projects/problems";
import { findLooped, flowOf, wayBetween } from "../projects/signal-flow";
import { type Strip, createStrip } from "../strips/strip";
import { applySteps } from "./apply";
import { planRecall } from "./plan";
import { type Lead, cellKey, findLoops, leadKey } from "./plan-flow";
import { counter } from "./testing/generators";
import { processor } from "./testing/wired";

/* What a plan does not let come back to itself: by outputs and by the keys of plugins. */

const GROUPS = ["A", "B", "C"] as const;
const keyedBy = (group: string): Chain => ({
  nodes: [{ ...processor("comp"), keyInput: { strip: { external: true, kind: "group", name: group }, tap: "post" } }],
  macros: [],
});
const keyedHere = (strip: string): Chain => ({
  nodes: [{ ...processor("comp"), keyInput: { strip: { strip }, tap: "post" } }],
  macros: [],
});

/** Three groups; A goes to B, the others to the main output. */
const project = (inserts: Partial<Record<string, Chain>> = {}): Project => ({
  schema: 1,
  id: "p",
  name: "Weir Song",
  artist: "",
  client: "",
  song: "",
  tempo: 92,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [
    ...GROUPS.map(
      (id): Strip => ({
        ...createStrip(id, "group", { name: id }, { strip: id === "A" ? "B" : "main" }),
        inserts: inserts[id] ?? EMPTY_CHAIN,
      }),
    ),
    createStrip("main", "main", { name: "Main" }, { hardware: "Out 1–2" }),
  ],
});
const to = (name: string) => ({ output: { external: true as const, kind: "group" as const, name } });
const saved = (strip: Omit<Extract<Content, { kind: "strip" }>["strip"], "kind">): Content => ({
  kind: "strip",
  schema: 1,
  strip: { kind: "group", ...strip },
});

function apply(onto: Project, content: Content, ...strips: string[]) {
  const request = {
    source: { content, from: null, name: "x" },
    parts: ["inserts", "routing"] as const,
    targets: { strips },
    mode: "replace" as const,
  };
  const { steps, notes } = planRecall({ project: onto, requests: [request], except: [], answers: {}, mint: counter() });
  const applied = applySteps(onto, steps);
  if (!applied.ok) throw new Error(applied.error.reason);
  expect(findProjectProblem(applied.value)).toBeNull();
  return { after: applied.value, notes: notes.map(({ text }) => text) };
}
const keyOf = (after: Project, id: string) => {
  const [node] = getStrip(after, id).inserts.nodes;
  return node?.type === "processor" ? (node.keyInput ?? null) : null;
};

describe("a plan", () => {
  it("keys a plugin by a strip that does not hear it", () => {
    const { after, notes } = apply(project(), saved({ inserts: keyedBy("A") }), "C");
    expect(keyOf(after, "C")).toEqual({ strip: { strip: "A" }, tap: "post" });
    expect(notes).toEqual([]);
  });

  it("lets a plugin hear itself where its key would come from what it goes to, and says so", () => {
    const { after, notes } = apply(project(), saved({ inserts: keyedBy("B") }), "A");
    expect(keyOf(after, "A")).toBeNull();
    expect(notes).toEqual(["A plugin of A hears itself: B → A → B would be a loop."]);
  });

  it("leaves an output that would go to what keys a plugin on the way, and says so", () => {
    const { after, notes } = apply(project({ B: keyedHere("C") }), saved({ routing: to("B") }), "C");
    expect(getStrip(after, "C").routing).toEqual({ output: { strip: "B" } });
    expect(notes).toEqual([]);
    const keyed = apply(project({ C: keyedHere("B") }), saved({ routing: to("A") }), "C");
    expect(getStrip(keyed.after, "C").routing).toEqual({ output: { strip: "main" } });
    expect(keyed.notes).toEqual(["The output stays: C → A → B → C would be a loop."]);
  });

  it("judges by what will be there: a key that goes with what it replaces is in nobody's way", () => {
    const both = saved({ inserts: EMPTY_CHAIN, routing: to("A") });
    const { after, notes } = apply(project({ C: keyedHere("B") }), both, "C");
    expect(getStrip(after, "C").routing).toEqual({ output: { strip: "A" } });
    expect(notes).toEqual([]);
    // Of an output and a key that cannot both be, the output comes first.
    const meet = apply(project(), saved({ inserts: keyedBy("B"), routing: to("A") }), "C");
    expect(getStrip(meet.after, "C").routing).toEqual({ output: { strip: "A" } });
    expect(keyOf(meet.after, "C")).toBeNull();
  });
});

describe("leads of a plan", () => {
  const ids = ["A", "B", "C", "main"];
  const someLead: fc.Arbitrary<Lead> = fc
    .tuple(fc.constantFrom(...ids), fc.constantFrom(...ids), fc.boolean())
    .map(([a, b, isKey]) =>
      isKey ? { strip: a, part: "inserts", from: b, to: a } : { strip: a, part: "routing", from: a, to: b },
    );
  const someLeads = fc.record({
    project: fc.constantFrom(project(), project({ C: keyedHere("B") }), project({ B: keyedHere("C") })),
    leads: fc.uniqueArray(someLead, { selector: leadKey, maxLength: 8 }),
    replaced: fc
      .subarray(ids.flatMap((id) => [cellKey(id, "routing"), cellKey(id, "inserts")]))
      .map((s) => new Map(s.map((cell) => [cell, new Set<string>()]))),
  });

  it("that are let through close no loop, and each that is refused would have, with all that came before it", () => {
    let refused = 0;
    fc.assert(
      fc.property(someLeads, ({ project: onto, leads, replaced }) => {
        const loops = findLoops(onto, { leads, replaced });
        const refusedOutput = (cell: string) =>
          leads.some((l) => cellKey(l.strip, l.part) === cell && l.part === "routing" && loops.has(leadKey(l)));
        const flow = new Map(
          flowOf(onto, (strip, part) => !replaced.has(cellKey(strip, part)) || refusedOutput(cellKey(strip, part))),
        );
        const lead = (from: string, into: string) => flow.set(from, [...(flow.get(from) ?? []), into]);
        for (const l of leads) if (!loops.has(leadKey(l))) lead(l.from, l.to);
        for (const [from, ways] of flow) for (const into of ways) expect(wayBetween(flow, into, from)).toBeNull();
        for (const l of leads) {
          const loop = loops.get(leadKey(l));
          if (!loop) continue;
          refused += 1;
          expect([loop[0], loop[1], loop.at(-1)]).toEqual([l.from, l.to, l.from]);
        }
      }),
      { numRuns: 500 },
    );
    expect(refused).toBeGreaterThan(100);
    expect(findLooped(project())).toBeNull();
  });
});
