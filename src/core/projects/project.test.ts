import fc from "fast-check";
import { MOST_STRIPS } from "../documents/limits";
import { describe, expect, it } from "vitest";
import { EMPTY_CHAIN } from "../chains/chain";
import { INCLUDED } from "../packs/included";
import { someProject } from "../recall/testing/generators";
import { type Strip, completeStrip, createStrip, partsOf } from "../strips/strip";
import { findStripProblem } from "../strips/problems";
import { PARTS } from "../strips/parts";
import { describeSource, layerOf } from "../strips/parts/source";
import { isBus } from "../documents/strip-kinds";
import { depthOf, ledgerOrder } from "./nesting";
import { type Project, completeProject, describeOutput, findStrip } from "./project";
import { findLoop } from "./signal-flow";
import { findProjectProblem } from "./problems";
import { ProjectSchema } from "./schema";

const RUNS = { numRuns: 120, seed: 20_261_125 };

const withStrip = (project: Project, id: string, change: (strip: Strip) => Strip): Project => ({
  ...project,
  strips: project.strips.map((s) => (s.id === id ? change(s) : s)),
});
const goesTo = (project: Project, id: string, strip: string): Project =>
  withStrip(project, id, (s) => ({ ...s, routing: { output: { strip } } }));

describe("a project", () => {
  it("that is whole has no problem, and stays whole when it is completed and written down", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        const whole = completeProject(JSON.parse(JSON.stringify(project)) as Project);
        expect(findProjectProblem(whole)).toBeNull();
        expect(ProjectSchema.parse(JSON.parse(JSON.stringify(whole)))).toEqual(whole);
        expect(completeProject(whole)).toEqual(whole);
      }),
      RUNS,
    );
  });

  it("names the strip that goes nowhere, and the id that is there twice", () => {
    fc.assert(
      fc.property(someProject, fc.nat(), (project, n) => {
        const sounding = project.strips.filter(({ kind }) => kind !== "folder");
        const { id } = sounding[n % sounding.length]!;
        const at = project.strips.findIndex((strip) => strip.id === id);
        expect(findProjectProblem(goesTo(project, id, "nowhere"))?.path).toBe(`strips[${at}].routing.output`);
        const twice = { ...project, strips: [...project.strips, project.strips[at]!] };
        expect(findProjectProblem(twice)).toEqual({
          path: `strips[${project.strips.length}].id`,
          message: `The id “${id}” is used twice.`,
        });
      }),
      RUNS,
    );
  });

  it("has no loop, however long; one is told by the names along it", () => {
    fc.assert(
      fc.property(someProject, fc.integer({ min: 1, max: 12 }), (project, length) => {
        const ring = Array.from({ length }, (_, n) =>
          createStrip(`ring${n}`, "group", { name: `Ring ${n}` }, { strip: `ring${(n + 1) % length}` }),
        );
        // Ahead of the ring a strip that leads into it: it is not on the loop itself.
        const into = createStrip("into", "audio", { name: "Into" }, { strip: "ring0" });
        const looped = { ...project, strips: [...project.strips, into, ...ring] };
        expect(findLoop(looped, "into")).toBeNull();
        expect(findLoop(looped, "ring0")).toEqual([...ring.map((s) => s.look.name), "Ring 0"]);
        expect(findProjectProblem(looped)?.message).toContain("A loop in the signal flow: Ring 0");
        expect(ledgerOrder(project).length).toBe(project.strips.length);
      }),
      RUNS,
    );
  });

  it("is listed with each strip once, every group and folder right before its own", () => {
    fc.assert(
      fc.property(someProject, (project) => {
        const order = ledgerOrder(project);
        expect(new Set(order)).toEqual(new Set(project.strips));
        expect(order).toHaveLength(project.strips.length);
        for (const [at, strip] of order.entries()) {
          const depth = depthOf(project, strip);
          if (depth === 0) continue;
          const above = order.slice(0, at).findLast((s) => depthOf(project, s) === depth - 1)!;
          const { folder = strip.routing.output } = strip.look;
          expect(folder).toEqual({ strip: above.id });
          expect(above.kind).toBe(strip.look.folder ? "folder" : "group");
        }
      }),
      RUNS,
    );
  });

  it("says what a folder cannot hold, and that none stands within itself", () => {
    const main = createStrip("m", "main", { name: "Main" }, null);
    const folder = (id: string, within: string) =>
      createStrip(id, "folder", { name: id, folder: { strip: within } }, null);
    const wrong = (...strips: readonly Strip[]) =>
      findProjectProblem({ strips: [main, ...strips] } as unknown as Project);
    const top = createStrip("top", "folder", { name: "Top" }, null);
    const inTop = createStrip("a", "audio", { name: "A", folder: { strip: "top" } }, { strip: "m" });
    expect(wrong(top, inTop, folder("b", "top"))).toBeNull();
    expect(wrong({ ...top, look: { name: "Top", folder: { strip: "b" } } }, folder("b", "top"))).toEqual({
      path: "strips[1].look.folder",
      message: "Top stands within itself.",
    });
    expect(wrong(folder("b", "b"))?.message).toBe("b stands within itself.");
    expect(wrong({ ...inTop, look: { name: "A", folder: { strip: "m" } } })).toEqual({
      path: "strips[1].look.folder",
      message: "A stands in a strip that is no folder.",
    });
    expect(wrong(inTop)?.message).toBe("A stands in a strip that is not here.");
    expect(wrong(top, { ...inTop, routing: { output: { strip: "top" } } })).toEqual({
      path: "strips[2].routing.output",
      message: "A goes to a folder, which carries no sound.",
    });
  });

  it("walks a line of 2,000 groups, each in the next, without a step back", () => {
    const line = Array.from({ length: MOST_STRIPS }, (_, n) =>
      createStrip(`g${n}`, "group", { name: `Group ${n}` }, n === 0 ? null : { strip: `g${n - 1}` }),
    );
    let looks = 0;
    const counted = line.map((strip) => ({
      ...strip,
      get routing() {
        looks += 1;
        return strip.routing;
      },
    }));
    const project = { strips: counted } as unknown as Project;
    expect(findProjectProblem(project)).toBeNull();
    expect(ledgerOrder(project).map((s) => s.id)).toEqual(line.map((s) => s.id));
    // A few looks at each strip, not one for every other.
    expect(looks).toBeLessThan(10 * line.length);
    expect(findProjectProblem({ strips: [...line, line[0]] } as unknown as Project)?.message).toContain("2000 strips");
  });

  it("says where a strip goes in words", () => {
    const main = createStrip("m", "main", { name: "Main" }, { hardware: "Out 1–2" });
    const project = { strips: [main] } as unknown as Project;
    expect(describeOutput(project, null)).toBe("nowhere");
    expect(describeOutput(project, { strip: "m" })).toBe("Main");
    expect(describeOutput(project, { strip: "gone" })).toBe("nowhere");
    expect(describeOutput(project, { hardware: "Out 3–4" })).toBe("Out 3–4");
    expect(describeOutput(project, { external: true, kind: "group", name: "Strings" })).toBe("Strings (not here)");
    expect(findStrip(project, "gone")).toBeNull();
  });
});

describe("a strip", () => {
  const KINDS = ["audio", "instrument", "return", "group", "main"] as const;
  const instrument = INCLUDED.presets
    .map((p) => p.content)
    .flatMap((c) => (c.kind === "plugin" ? [c.processor] : []))
    .find((p) => p.model === "electric-piano")!;
  const playing = (...layers: ReturnType<typeof layerOf>[]): Strip => ({
    ...createStrip("i", "instrument", { name: "Piano" }, null),
    source: { type: "layers", channels: "stereo", layers },
  });

  it.each(KINDS)("of kind %s is whole as it is made, and plays what its kind plays", (kind) => {
    const strip = createStrip("s", kind, { name: "Strip" }, null);
    expect(findStripProblem(strip, "strip")).toBeNull();
    expect(completeStrip(strip)).toEqual(strip);
    expect(strip.source.type).toBe(isBus(kind) ? "bus" : kind === "instrument" ? "layers" : "input");
    expect(describeSource(strip)).not.toBe("");
    expect(strip.inserts).toEqual(EMPTY_CHAIN);
  });

  it("holds the parts that it was saved with", () => {
    fc.assert(
      fc.property(fc.subarray([...PARTS]), (parts) => {
        const sends = [{ key: "s", to: { strip: "plate" }, tap: "post" as const, level: 0, pan: 0, on: true }];
        const media = [{ name: "Foghorn", hash: "a".repeat(64) }];
        const strip = { ...playing(layerOf(instrument)), sends, media };
        const saved = { kind: strip.kind, ...Object.fromEntries(parts.map((p) => [p, strip[p]])) };
        expect(partsOf(saved)).toEqual(parts);
      }),
    );
  });

  it("plays layers over the keys and touches that they are given, and says what is wrong with one", () => {
    const layer = layerOf(instrument);
    const problem = (strip: Strip) => findStripProblem(strip, "strip")?.path ?? null;
    expect(problem(playing(layer, { ...layer, key: "layer2" }))).toBeNull();
    expect(describeSource(playing(layer, { ...layer, key: "layer2" }))).toBe("Electric piano, Electric piano");
    expect(problem(playing(layer, layer))).toBe("strip.source.layers[1].key");
    expect(problem(playing({ ...layer, keys: { low: 60, high: 59 } }))).toBe("strip.source.layers[0].keys");
    expect(problem(playing({ ...layer, velocities: { low: 9, high: 1 } }))).toBe("strip.source.layers[0].velocities");
    expect(problem({ ...playing(layer), kind: "audio" })).toBe("strip.source.type");
    const effect = INCLUDED.presets
      .map((p) => p.content)
      .find((c) => c.kind === "plugin" && c.processor.model === "room");
    if (effect?.kind !== "plugin") throw new Error("no room");
    expect(problem(playing({ ...layer, instrument: effect.processor }))).toBe(
      "strip.source.layers[0].instrument.model",
    );
  });
});
