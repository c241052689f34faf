import { describe, expect, it } from "vitest";
import { FOLLOWING_PROJECTS } from "@/demo/sets";
import { EMPTY_CHAIN, type Processor } from "../chains/chain";
import { processorsOf } from "../chains/tree";
import { chainOf, emptyCard, type Content } from "../presets/preset";
import { defaultValues } from "../processors/model";
import { MODELS } from "../processors/models";
import type { Project } from "../projects/project";
import { createStrip, stripName } from "../strips/strip";
import { layersOf } from "../strips/layers";
import { formatPlain } from "../units/format";
import { beatsPerMinute } from "../units/quantities";
import { chainBlocks } from "./chain-blocks";
import { pluginBlock } from "./plugin-block";
import { presetSheet } from "./preset-sheet";
import { projectSheet } from "./project-sheet";
import type { Block, RecallSheet } from "./sheet";

const ALONE = { tempo: beatsPerMinute(120), nameOf: () => null };

type Plugin = Extract<Block, { kind: "plugin" }>;

const processor = (model: string, values: Processor["values"] = {}): Processor => ({
  type: "processor",
  key: "a",
  model,
  enabled: true,
  values,
});
const block = (one: Processor) => pluginBlock(one, "1", ALONE) as Plugin;

/** All that can be read of a block, in order. */
function wordsOf(one: Block): readonly string[] {
  switch (one.kind) {
    case "heading":
      return [one.text, one.aside];
    case "facts":
      return one.facts.flatMap(({ label, text }) => [label, text]);
    case "table":
      return [one.title, ...one.table.columns.map(({ title }) => title), ...one.table.rows.flat()];
    case "plugin":
      return [
        `${one.place} ${one.name}`,
        one.model,
        ...one.facts.map(({ text }) => text),
        ...(one.alike?.rows.flat() ?? []),
        ...one.groups.flatMap(({ title, values }) => [title, ...values.flatMap(({ label, text }) => [label, text])]),
      ];
  }
}
const wordsIn = (sheet: Pick<RecallSheet, "blocks">): readonly string[] => sheet.blocks.flatMap(wordsOf);

describe.each(MODELS)("the block of $name", (model) => {
  const values = defaultValues(model);
  const sheet = block(processor(model.id, values));

  it("holds every one of its values, written as on screen, once", () => {
    const cells = (sheet.alike?.rows ?? []).flatMap((row) => row.slice(1).filter((cell) => cell !== ""));
    const lines = sheet.groups.flatMap((group) => group.values.map(({ text }) => text));
    expect(cells.length + lines.length).toBe(model.params.length);
    const told = [...cells, ...lines].map((text) => text.replace(/ \(.*\)$/, "").replace(/ dB\/oct$/, ""));
    const written = model.params.map((spec) => formatPlain(spec, values[spec.id]!).replace(/ dB\/oct$/, ""));
    expect(told.toSorted()).toEqual(written.toSorted());
  });

  it("tells the values of a group under its name, or in its row", () => {
    for (const spec of model.params) {
      const row = sheet.alike?.rows.find(([group]) => group === spec.group);
      const group = sheet.groups.find(({ title }) => title === (spec.group ?? ""));
      expect(row ?? group?.values.find(({ label }) => label === spec.name), spec.id).toBeDefined();
    }
  });

  it("draws its picture within its box, with the figures of its scale at the edges", () => {
    const { box, marks, scale } = sheet.plot!;
    expect(marks.some(({ kind, path }) => kind === "line" && path !== "")).toBe(true);
    for (const { way, at } of scale) {
      expect(at).toBeGreaterThanOrEqual(0);
      expect(at).toBeLessThanOrEqual(way === "down" ? box.width : box.height);
    }
  });
});

describe("a plugin on a sheet", () => {
  it("says a note length with what it is at the tempo", () => {
    const echo = processor("echo", { left: { note: "1/8", feel: "dotted" } });
    expect(wordsOf(block(echo))).toContain("1/8 dotted (375 ms)");
  });

  it("says that it is off, what it came from, and what its detector hears", () => {
    const gate: Processor = {
      ...processor("gate"),
      enabled: false,
      label: "Spill",
      from: { preset: "p", version: 3, name: "Spill gate" },
      keyInput: { strip: { strip: "drum" }, tap: "pre" },
    };
    const told = pluginBlock(gate, "2.1", { ...ALONE, nameOf: (id) => (id === "drum" ? "Frame drum" : null) });
    expect(told).toMatchObject({
      isOff: true,
      place: "2.1",
      name: "Spill",
      facts: [
        { label: "From", text: "Spill gate, version 3" },
        { label: "Detector hears", text: "Frame drum, before the fader" },
      ],
    });
  });

  it("that is not known here is told by what came: its values, and the sum of its state", () => {
    const hash = "0".repeat(64);
    const foreign = block({
      ...processor("elsewhere/wool", { nap: 0.25, pile: { note: "1/4", feel: "straight" } }),
      state: { hash },
    });
    expect(foreign.plot).toBeNull();
    expect(wordsOf(foreign)).toEqual(["1 elsewhere/wool", "not known here", hash, "", "nap", "0.25", "pile", "1/4"]);
  });

  it("draws an equaliser as far as its bands go", () => {
    const near = block(processor("parametric-eq", { "band3.used": 1, "band3.gain": 12 })).plot!;
    const far = block(processor("parametric-eq", { "band3.used": 1, "band3.gain": 22 })).plot!;
    const labels = ({ scale }: typeof near) => scale.filter(({ way }) => way === "across").map(({ label }) => label);
    expect(labels(near)).toEqual(["−12", "−6", "0 dB", "+6", "+12"]);
    expect(labels(far)).toEqual(["−24", "−12", "0 dB", "+12", "+24"]);
  });
});

describe("a chain on a sheet", () => {
  const chain = {
    macros: [
      {
        key: "m",
        name: "Weight",
        style: "line" as const,
        axes: [[{ node: "c", param: "threshold", from: -10, to: -30, bend: 0 }], []],
      },
    ],
    nodes: [
      { ...processor("parametric-eq"), key: "e" },
      {
        type: "split" as const,
        key: "s",
        by: { way: "bands" as const, crossovers: [160, 2600] },
        lanes: ["Low", "Mid", "High"].map((name, at) => ({
          key: name,
          name,
          enabled: at !== 2,
          level: -3 * at,
          pan: 10 * at,
          nodes: name === "Mid" ? [{ ...processor("vca-compressor", { threshold: -20 }), key: "c" }] : [],
        })),
      },
      {
        type: "section" as const,
        key: "t",
        name: "Tail",
        enabled: false,
        nodes: [{ ...processor("tape"), key: "x" }],
      },
    ],
  };

  it("tells its wiring: bands with where they part, lanes with what is set on them, sections", () => {
    const told = chainBlocks(chain, ALONE)
      .filter(({ kind }) => kind === "heading")
      .flatMap(wordsOf);
    expect(told).toEqual([
      "2 Split",
      "3 bands, parted at 160 Hz and 2.6 kHz",
      "2a Low",
      "on, 0.0 dB, C",
      "2b Mid",
      "on, −3.0 dB, balance R 10",
      "2c High",
      "off, −6.0 dB, balance R 20",
      "3 Tail",
      "off",
    ]);
  });

  it("numbers its plugins by where they stand", () => {
    const places = chainBlocks(chain, ALONE).flatMap((one) =>
      one.kind === "plugin" ? [`${one.place} ${one.name}`] : [],
    );
    expect(places).toEqual(["1 Parametric EQ", "2b.1 VCA compressor", "3.1 Tape"]);
  });

  it("tells what its macros move, and where that stands", () => {
    const macros = chainBlocks(chain, ALONE).find((one) => one.kind === "table");
    expect(macros).toMatchObject({
      title: "Macros",
      table: {
        rows: [
          ["Weight, across", "VCA compressor: Threshold", "−10.0 dB", "−30.0 dB", "", "−20.0 dB"],
          ["Weight, up", "nothing yet", "", "", "", ""],
        ],
      },
    });
  });
});

const projects = FOLLOWING_PROJECTS.map(([, project]) => project);

describe.each(projects.map((project) => [project.name, project] as const))("the sheet of %s", (_, project: Project) => {
  const sheet = projectSheet(project);
  const told = wordsIn(sheet);

  it("has every strip, and of each every plugin, send and output", () => {
    const strips = sheet.blocks.filter((one) => one.kind === "heading" && one.rank === 1);
    expect(strips).toHaveLength(project.strips.length);
    const plugins = project.strips.flatMap((strip) => [
      ...layersOf(strip).flatMap(({ instrument, effects }) => [instrument, ...processorsOf(effects)]),
      ...processorsOf(strip.inserts),
    ]);
    expect(sheet.blocks.filter(({ kind }) => kind === "plugin")).toHaveLength(plugins.length);
    const sends = sheet.blocks.flatMap((one) =>
      one.kind === "table" && one.table.columns[0]?.title === "Send to" ? one.table.rows : [],
    );
    const names = new Map(project.strips.map((strip) => [strip.id, stripName(strip)]));
    expect(sends.map(([to]) => to)).toEqual(
      project.strips.flatMap((strip) => strip.sends.map(({ to }) => ("strip" in to ? names.get(to.strip) : to.name))),
    );
    for (const { routing } of project.strips)
      if (routing.output && "strip" in routing.output) expect(told).toContain(names.get(routing.output.strip));
  });

  it("says of each bus which strips it hears", () => {
    for (const bus of project.strips) {
      const feeding = project.strips.filter(
        ({ routing: { output } }) => output && "strip" in output && output.strip === bus.id,
      );
      if (feeding.length > 0) expect(told).toContain(feeding.map(stripName).join(", "));
    }
  });
});

describe("the sheet of some strips", () => {
  const [project] = projects as [Project];

  it("is called as the strip where it is one, and has only those that are wanted, by their numbers in the project", () => {
    const [first, second, third] = project.strips;
    const one = projectSheet(project, new Set([second!.id]));
    expect(one).toMatchObject({ title: stripName(second!), of: `Strip of ${project.name}` });
    const headings = (sheet: RecallSheet) =>
      sheet.blocks.flatMap((each) => (each.kind === "heading" && each.rank === 1 ? [each.text] : []));
    expect(headings(one)).toEqual([`2 ${stripName(second!)}`]);
    const two = projectSheet(project, new Set([first!.id, third!.id]));
    expect(two).toMatchObject({ title: project.name, of: `2 strips of ${project.strips.length}` });
    expect(headings(two)).toEqual([`1 ${stripName(first!)}`, `3 ${stripName(third!)}`]);
  });
});

describe("the sheet of a sound", () => {
  const card = {
    ...emptyCard("Quay, dry"),
    tags: ["dry", "close"],
    rating: 4,
    notes: "As it was in the booth.",
    origin: { artist: "Copper Heron", take: "3" },
  };
  const sheetOf = (content: Content, tempo?: number) =>
    presetSheet({ card, content, version: 2, folder: "Voices / Lead" }, tempo);

  it("has what its card says", () => {
    const sheet = sheetOf({ kind: "plugin", schema: 1, processor: processor("echo") });
    expect(sheet).toMatchObject({ title: "Quay, dry", of: "Plugin preset", notes: "As it was in the booth." });
    expect(sheet.facts).toEqual([
      { label: "Version", text: "2" },
      { label: "Folder", text: "Voices / Lead" },
      { label: "Tags", text: "dry, close" },
      { label: "Rating", text: "4 of 5" },
      { label: "Artist", text: "Copper Heron" },
      { label: "Take", text: "3" },
      { label: "Tempo", text: "120 bpm" },
    ]);
  });

  it("hears note lengths at the tempo that is given; a mix at its own", () => {
    const echo = processor("echo", { left: { note: "1/4", feel: "straight" } });
    const plugin: Content = { kind: "plugin", schema: 1, processor: echo };
    expect(wordsIn(sheetOf(plugin, 90))).toContain("1/4 (667 ms)");
    const { id: _, ...strip } = {
      ...createStrip("x", "audio", { name: "Lead" }, null),
      inserts: { ...EMPTY_CHAIN, nodes: [echo] },
    };
    const mix: Content = { kind: "mix", schema: 1, tempo: 60, strips: [{ ...strip, id: "x", name: "Lead" }] };
    expect(chainOf(mix).nodes).toHaveLength(1);
    expect(wordsIn(sheetOf(mix, 90))).toContain("1/4 (1000 ms)");
  });

  it("of a set names the strips that lead to each other, and those that stand outside", () => {
    const send = { tap: "pre" as const, level: -12, pan: 0, on: false };
    const content: Content = {
      kind: "set",
      schema: 1,
      strips: [
        {
          id: "a",
          name: "Voice",
          kind: "audio",
          sends: [
            { key: "1", to: { strip: "b" }, ...send },
            { key: "2", to: { external: true, kind: "return", name: "Quay hall" }, ...send, on: true },
          ],
        },
        { id: "b", name: "Echo", kind: "return", routing: { output: { external: true, kind: "main", name: "Main" } } },
      ],
    };
    const told = sheetOf(content).blocks;
    expect(told.flatMap((one) => (one.kind === "table" ? one.table.rows : []))).toEqual([
      ["Echo", "−12.0 dB", "C", "before the fader", "off"],
      ["Quay hall", "−12.0 dB", "C", "before the fader", "on"],
    ]);
    expect(told.flatMap(wordsOf)).toEqual(expect.arrayContaining(["1 Voice", "2 Echo", "Main"]));
  });
});
