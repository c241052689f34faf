import canonicalize from "canonicalize";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { ChainNode } from "../chains/chain";
import { INCLUDED } from "../packs/included";
import { someChain, someContent } from "../recall/testing/generators";
import { createStrip } from "../strips/strip";
import { fingerprint, soundingText } from "./fingerprint";
import { heldPresets } from "./holds";
import { liftContent } from "./migrations";
import { type Content, chainOf, emptyCard, withFrom } from "./preset";
import { completeContent, findContentProblem } from "./whole";
import { saveChain, saveStrip } from "./save";
import { CardSchema, ContentSchema, FiledNameSchema } from "./schema";

const RUNS = { numRuns: 150, seed: 20_261_125 };

const chainContent = someChain.map(saveChain);

/** The same document, written down in another order. */
function shuffled(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(shuffled);
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .toReversed()
      .map(([k, v]) => [k, shuffled(v)]),
  );
}

/** The same document with every node, lane and macro under another key, and every reference with it. */
function rekeyed(content: Content): Content {
  const text = JSON.stringify(content);
  const keys = [...new Set([...text.matchAll(/"key":"([^"]+)"/g)].map(([, key]) => key!))];
  const renamed = keys.reduce((now, key, at) => now.replaceAll(`"${key}"`, `"zz${keys.length - at}"`), text);
  return JSON.parse(renamed) as Content;
}

describe("a fingerprint", () => {
  it("is of canonical JSON, for every model there is and for whatever is built of them", () => {
    const isCanonical = (content: Content) => {
      const text = soundingText(content);
      expect(text).toBe(canonicalize(JSON.parse(text)));
    };
    for (const { content } of INCLUDED.presets) isCanonical(content);
    fc.assert(fc.property(someContent, isCanonical), RUNS);
  });

  it("does not depend on how a document is written down, on its keys, names, or where it is from", () => {
    fc.assert(
      fc.property(someContent, (content) => {
        const print = fingerprint(content);
        expect(print).toMatch(/^\d+:[0-9a-f]{64}$/);
        expect(fingerprint(shuffled(content) as Content)).toBe(print);
        expect(fingerprint(JSON.parse(JSON.stringify(content)) as Content)).toBe(print);
        expect(fingerprint(withFrom(content, { preset: "p", version: 3, name: "Rim" }))).toBe(print);
      }),
      RUNS,
    );
    fc.assert(
      fc.property(chainContent, (content) => void expect(fingerprint(rekeyed(content))).toBe(fingerprint(content))),
      RUNS,
    );
  });

  it("is another where a value, a switch or the order is another", () => {
    for (const { content } of INCLUDED.presets) {
      const [node] = chainOf(content).nodes;
      if (content.kind !== "plugin" || node?.type !== "processor") continue;
      const [id, now] = Object.entries(node.values).find(([, v]) => typeof v === "number")!;
      const turned = { ...content.processor, values: { ...content.processor.values, [id]: Number(now) + 0.01 } };
      const off = { ...content.processor, enabled: !content.processor.enabled };
      const prints = [content, { ...content, processor: turned }, { ...content, processor: off }].map(fingerprint);
      expect(new Set(prints).size).toBe(3);
    }
    const chain = INCLUDED.presets.map((p) => p.content).find((c) => c.kind === "chain" && c.chain.nodes.length > 1)!;
    if (chain.kind !== "chain") throw new Error("no chain");
    const turned = { ...chain, chain: { ...chain.chain, nodes: chain.chain.nodes.toReversed() } };
    expect(fingerprint(turned)).not.toBe(fingerprint(chain));
  });

  it("takes what no ear tells apart for the same: less than a millionth", () => {
    const plugin = INCLUDED.presets.map((p) => p.content).find((c) => c.kind === "plugin")!;
    if (plugin.kind !== "plugin") throw new Error("no plugin");
    const [id] = Object.entries(plugin.processor.values).find(([, v]) => typeof v === "number")!;
    const at = (value: number) =>
      fingerprint({
        ...plugin,
        processor: { ...plugin.processor, values: { ...plugin.processor.values, [id]: value } },
      });
    expect(at(1 + 1e-8)).toBe(at(1));
    expect(at(-0)).toBe(at(0));
    expect(at(1 + 1e-5)).not.toBe(at(1));
  });
});

describe("what a preset holds", () => {
  it("is whole after it is completed, and completing it again changes nothing", () => {
    fc.assert(
      fc.property(someContent, (content) => {
        // A document is JSON, which knows no negative zero.
        const whole = completeContent(JSON.parse(JSON.stringify(content)) as Content);
        expect(findContentProblem(whole)).toBeNull();
        expect(ContentSchema.safeParse(whole).success).toBe(true);
        expect(completeContent(whole)).toEqual(whole);
        expect(fingerprint(completeContent(whole))).toBe(fingerprint(whole));
        expect(liftContent(JSON.parse(JSON.stringify(whole)))).toEqual(whole);
      }),
      RUNS,
    );
  });

  it("names the presets that something in it was loaded from, each once", () => {
    const from = (preset: string) => ({ preset, version: 1, name: preset });
    fc.assert(
      fc.property(someChain, fc.array(fc.constantFrom("a", "b", "c"), { maxLength: 6 }), (chain, presets) => {
        const nodes = chain.nodes.map((node, at): ChainNode => {
          const preset = presets[at];
          if (node.type === "split") return node;
          const { from: _, ...bare } = node;
          return preset === undefined ? bare : { ...bare, from: from(preset) };
        });
        const expected = nodes.flatMap((node) => (node.type === "split" ? [] : (node.from?.preset ?? [])));
        const held = heldPresets(saveChain({ nodes, macros: [] }));
        expect(new Set(held).size).toBe(held.length);
        for (const preset of expected) expect(held).toContain(preset);
      }),
      RUNS,
    );
  });

  it("that is a whole strip keeps what was asked for, and nothing that is not said", () => {
    const strip = createStrip("s", "audio", { name: "Cello" }, null);
    const project = { schema: 1, id: "p", name: "Ferry Light", strips: [strip] } as never;
    const saved = saveStrip(project, strip, ["level", "pan"]);
    expect(saved.kind === "strip" && Object.keys(saved.strip).toSorted()).toEqual(["kind", "level", "pan", "source"]);
    const inserts = saveStrip(project, strip, ["inserts"]);
    expect(inserts.kind === "strip" && Object.keys(inserts.strip).toSorted()).toEqual(["inserts", "kind"]);
  });
});

describe("a name", () => {
  const name = FiledNameSchema(200);
  it("may be any that can be seen, and stands as it was given but for spaces around it", () => {
    const letters = fc.string({ unit: "grapheme", minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(letters, (text) => {
        const hides = /[\p{Cc}\u202a-\u202e\u2066-\u2069]/u.test(text.trim());
        const read = name.safeParse(text);
        if (text.trim() === "" || text.trim().length > 200 || hides) expect(read.success).toBe(false);
        else expect(read.data).toBe(text.trim());
      }),
      { numRuns: 500, seed: RUNS.seed },
    );
  });

  it.each([["\u202e"], ["\u2066"], ["\n"], ["\u0000"], ["\u001b"], ["\u007f"]])("hides nothing: not %j", (sign) => {
    expect(name.safeParse(`Rim${sign}and air`).success).toBe(false);
    expect(CardSchema.safeParse({ ...emptyCard("Rim"), name: `Rim${sign}` }).success).toBe(sign.trim() === "");
  });
});
