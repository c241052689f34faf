import fc from "fast-check";
import type { Chain, ChainNode, Lane, Macro, MacroTarget, Processor, StripRef } from "../../chains/chain";
import { LANE_LEVEL, LANE_PAN } from "../../chains/params";
import { nodesIn, processorsOf } from "../../chains/tree";
import { completeValues } from "../../processors/model";
import { EFFECTS, MODELS, getModel } from "../../processors/models";
import type { ParamSpec, Value } from "../../units/param-spec";
import type { Content } from "../../presets/preset";
import { saveStrips } from "../../presets/save";
import type { Project } from "../../projects/project";
import { FEELS, NOTES } from "../../units/note-length";
import { type SavedStrip, type Strip, createStrip, offeredParts } from "../../strips/strip";
import { PARTS, type PartName } from "../../strips/parts";
import type { StripKind } from "../../documents/strip-kinds";
import { INSTRUMENTS } from "../../processors/instrument/models";
import { type Source, layerOf } from "../../strips/parts/source";
import { INSERT_MODES } from "../plan-inserts";
import { LAYER_TAKES } from "../plan-layers";
import { SEND_MODES } from "../plan-sends";
import { inFolder } from "../../strips/parts/look";
import type { Send } from "../../strips/parts/sends";

/** Projects and presets by chance, for the laws of recall. */

const record = <T>(fields: { [K in keyof T]: fc.Arbitrary<T[K]> }): fc.Arbitrary<T> =>
  fc.record(fields, { noNullPrototype: true });

const valueFor = (spec: ParamSpec): fc.Arbitrary<Value> => {
  if (spec.choices) return fc.constantFrom(...spec.choices.map((c) => c.value));
  const number: fc.Arbitrary<Value> = fc.double({ min: spec.min, max: spec.max, noNaN: true }).map((v) => v + 0);
  const note: fc.Arbitrary<Value> = record({ note: fc.constantFrom(...NOTES), feel: fc.constantFrom(...FEELS) });
  return spec.mayFollowTempo ? fc.oneof(number, note) : number;
};

type KeyInput = Processor["keyInput"];

/** By nothing, by a material, by a strip of the project that nothing leads to. */
const KEYED_HERE: readonly KeyInput[] = [undefined, { material: "narrator" }, { strip: { strip: "k" }, tap: "post" }];
/** As a preset holds it: a strip by its kind and name. */
const KEYED_OUTSIDE: readonly KeyInput[] = [
  undefined,
  { strip: { external: true, kind: "group", name: "Cello" }, tap: "pre" },
  { strip: { external: true, kind: "return", name: "Not here" }, tap: "post" },
];

export const someProcessor = (
  key: string,
  keyed: readonly KeyInput[] = [undefined],
  models = EFFECTS,
): fc.Arbitrary<Processor> =>
  fc.constantFrom(...models).chain((model) => {
    const values = fc.record(Object.fromEntries(model.params.map((spec) => [spec.id, valueFor(spec)])), {
      requiredKeys: [],
    });
    return record({ values, enabled: fc.boolean(), keyInput: fc.constantFrom(...keyed) }).map(
      ({ values: some, enabled, keyInput }): Processor => ({
        ...(keyInput ? { keyInput } : {}),
        type: "processor",
        key,
        model: model.id,
        enabled,
        values: completeValues(
          model,
          Object.fromEntries(Object.entries(some).filter(([, v]) => v !== undefined)) as Record<string, Value>,
        ),
      }),
    );
  });

const lane = <N extends Lane["nodes"][number]>(key: string, nodes: N[], level = 0) => ({
  key,
  name: key,
  enabled: true,
  level,
  pan: 0,
  nodes,
});

/** Ways to wire the same processors: in a row, in a section, in lanes, in lanes within lanes, in lanes within a section. */
const WIRINGS: readonly ((processors: readonly Processor[]) => ChainNode[])[] = [
  (all) => [...all],
  ([first, ...rest]) => [
    { type: "section", key: "sec", name: "Pedals", enabled: rest.length > 1, nodes: first ? [first] : [] },
    ...rest,
  ],
  ([first, ...rest]) => [
    {
      type: "split",
      key: "spl",
      by: { way: "copy" },
      lanes: [lane("la", first ? [first] : []), lane("lb", rest.slice(0, 1), -6)],
    },
    ...rest.slice(1),
  ],
  (all) => [
    {
      type: "split",
      key: "spl",
      by: { way: "bands", crossovers: [400] },
      lanes: [
        lane("la", [
          { type: "split", key: "in", by: { way: "copy" }, lanes: [lane("lc", all.slice(0, 1)), lane("ld", [])] },
        ]),
        lane("lb", all.slice(1)),
      ],
    },
  ],
  (all) => [
    {
      type: "section",
      key: "sec",
      name: "Post",
      enabled: true,
      nodes: [{ type: "split", key: "spl", by: { way: "copy" }, lanes: [lane("la", [...all]), lane("lb", [])] }],
    },
  ],
];

/** All that a macro of a chain can aim at: values that are numbers, switches, and the level and pan of lanes. */
function aimsOf(chain: Chain): readonly (readonly [node: string, spec: ParamSpec])[] {
  const processors = processorsOf(chain).flatMap(({ key, model }) => {
    const turned = getModel(model).params.filter((spec) => !spec.choices);
    return [...turned, { ...LANE_PAN, id: "enabled", min: 0, max: 1 }].map((spec) => [key, spec] as const);
  });
  const lanes = nodesIn(chain.nodes).flatMap((node) =>
    node.type === "split"
      ? node.lanes.flatMap(({ key }) => [[key, LANE_LEVEL] as const, [key, LANE_PAN] as const])
      : [],
  );
  return [...processors, ...lanes];
}

/** Macros of every style on some of it: several on the same value, none at all, in lanes and sections too. */
function macrosFor(chain: Chain): fc.Arbitrary<Macro[]> {
  const aims = aimsOf(chain);
  if (aims.length === 0) return fc.constant([]);
  const target = fc.tuple(fc.constantFrom(...aims), fc.double({ min: -1, max: 1, noNaN: true }), fc.boolean()).map(
    ([[node, { id, min, max }], bend, turned]): MacroTarget => ({
      node,
      param: id,
      from: turned ? max : min,
      to: turned ? min : max,
      bend: bend + 0,
    }),
  );
  const axis = fc.array(target, { maxLength: 3 });
  const style = fc.constantFrom<Macro["style"]>("line", "switch", "pad");
  return fc.array(fc.tuple(style, axis, axis), { maxLength: 2 }).map((some) =>
    some.map(([how, across, up], at) => ({
      key: `m${at}`,
      name: `Macro ${at}`,
      style: how,
      axes: how === "pad" ? [across, up] : [across],
    })),
  );
}

const chainOf = (keyed: readonly KeyInput[]): fc.Arbitrary<Chain> =>
  fc
    .uniqueArray(fc.constantFrom("p1", "p2", "p3", "p4", "p5"), { maxLength: 4 })
    .chain((keys) => fc.tuple(fc.tuple(...keys.map((key) => someProcessor(key, keyed))), fc.constantFrom(...WIRINGS)))
    .map(([processors, wire]): Chain => ({ nodes: wire(processors), macros: [] }))
    .chain((chain) => macrosFor(chain).map((macros) => ({ ...chain, macros })));

export const someChain: fc.Arbitrary<Chain> = chainOf([undefined]);
const chainHere = chainOf(KEYED_HERE);
const chainOutside = chainOf(KEYED_OUTSIDE);

/** None, one or two layers, each with effects of its own. */
const layersWith = (effects: fc.Arbitrary<Chain>): fc.Arbitrary<Source> =>
  fc.array(fc.tuple(someProcessor("played", [undefined], INSTRUMENTS), effects), { maxLength: 2 }).map((layers) => ({
    type: "layers",
    channels: "stereo",
    layers: layers.map(([instrument, chain], at) => ({
      ...layerOf({ ...instrument, key: `played${at}` }),
      key: `layer${at}`,
      effects: chain,
    })),
  }));

const someLevel = record({ fader: fc.double({ min: -90, max: 12, noNaN: true }), mute: fc.boolean() });
const somePan = record({ pan: fc.integer({ min: -100, max: 100 }), width: fc.integer({ min: 0, max: 200 }) });
const someName = fc.constantFrom("Cello", "Voice", "Rim", "Vibraphone", "Choir left", "Nave");

/** Sends of a strip, in the project to its two returns, in a preset to what may be called so elsewhere. */
const someSends = (to: readonly StripRef[]): fc.Arbitrary<Send[]> =>
  fc
    .array(
      record({
        to: fc.constantFrom(...to),
        tap: fc.constantFrom<Send["tap"]>("pre", "post"),
        level: fc.double({ min: -90, max: 12, noNaN: true }).map((v) => v + 0),
        pan: fc.integer({ min: -100, max: 100 }),
        on: fc.boolean(),
      }),
      { maxLength: 3 },
    )
    .map((some) => some.map((send, at) => ({ key: `send${at}`, ...send })));
const SENT_TO_HERE: readonly StripRef[] = [{ strip: "r1" }, { strip: "r2" }];
const SENT_TO_OUTSIDE: readonly StripRef[] = ["Cello", "Nave", "Not here"].flatMap((name) =>
  (["return", "group"] as const).map((kind) => ({ external: true as const, kind, name })),
);

/** Clips of a strip, often none. */
const someMedia = fc.constantFrom<Strip["media"]>(
  [],
  [],
  [{ name: "Foghorn", hash: "a".repeat(64) }],
  [
    { name: "Foghorn", hash: "a".repeat(64) },
    { name: "Quay at night", hash: "b".repeat(64) },
  ],
);

interface Wired {
  readonly chain?: fc.Arbitrary<Chain>;
  /** Strips that it may send to. */
  readonly to?: readonly StripRef[];
}

const someStrip = (
  id: string,
  kind: StripKind,
  output: string | null,
  { chain = chainHere, to = [] }: Wired = {},
): fc.Arbitrary<Strip> =>
  record({
    name: someName,
    inserts: chain,
    level: someLevel,
    pan: somePan,
    source: layersWith(chain),
    sends: to.length > 0 ? someSends(to) : fc.constant([]),
    media: someMedia,
  }).map(({ name, source, ...parts }) => ({
    ...createStrip(id, kind, { name }, output === null ? { hardware: "Out 1–2" } : { strip: output }),
    ...parts,
    ...(kind === "instrument" ? { source } : {}),
  }));

/** Audio strips of which some receive outputs of an instrument, where there is one. */
const received = (strips: readonly Strip[], from: readonly (number | null)[]): Strip[] => {
  const instrument = strips.find(({ kind }) => kind === "instrument");
  return strips.map((strip, at): Strip => {
    const output = from[at % from.length] ?? null;
    return instrument && output !== null && strip.kind === "audio" && strip.id !== "k"
      ? { ...strip, source: { type: "output", channels: "stereo", strip: { strip: instrument.id }, output } }
      : strip;
  });
};

/** So many more strips, each as one of those that stand there, under names and ids of their own. */
const withMore = (strips: readonly Strip[], more: number): Strip[] => {
  const some = strips.filter(({ id }) => /^s\d/.test(id));
  return [
    ...strips,
    ...Array.from({ length: more }, (_, at): Strip => {
      const like = some[at % some.length]!;
      return { ...like, id: `more${at}`, look: { ...like.look, name: `${like.look.name} ${at + 2}` } };
    }),
  ];
};

/** A main output, two groups, two returns and a key stand beside the strips, of which there are up to so many. */
const MOST_MORE = 50;

/** A folder with another in it; some strips, and a group, stand in either. */
const withFolders = (
  strips: readonly Strip[],
  names: readonly [string, string],
  of: readonly (string | null)[],
): Strip[] => {
  const folder = (id: string, name: string, within: string | null) =>
    createStrip(id, "folder", inFolder({ name }, within === null ? null : { strip: within }), null);
  const inside = strips.map((strip, at): Strip => {
    const within = strip.kind === "main" ? null : (of[at % of.length] ?? null);
    return within === null ? strip : { ...strip, look: inFolder(strip.look, { strip: within }) };
  });
  return [...inside.slice(0, 2), folder("f2", names[1], "f1"), ...inside.slice(2), folder("f1", names[0], null)];
};

/**
 * A main output, two groups one within the other, two returns of which the first sends to the second, strips that go to any of the
 * buses and send to the returns, of which some receive outputs of an instrument, and one that keys the others; two folders, one within the
 * other. Up to 62 strips, mostly twelve.
 */
export const someProject: fc.Arbitrary<Project> = fc
  .record({
    kinds: fc.array(fc.constantFrom<StripKind>("audio", "return", "instrument"), { minLength: 1, maxLength: 4 }),
    to: fc.array(fc.nat(2), { minLength: 4, maxLength: 4 }),
    from: fc.array(fc.constantFrom(null, null, 1, 2, 4), { minLength: 3, maxLength: 3 }),
    names: fc.tuple(someName, someName),
    folders: fc.array(fc.constantFrom(null, null, "f1", "f2"), { minLength: 5, maxLength: 5 }),
    more: fc.oneof({ arbitrary: fc.constant(0), weight: 19 }, { arbitrary: fc.nat(MOST_MORE), weight: 1 }),
  })
  .chain(({ kinds, to, from, more, names, folders }) => {
    const buses = ["main", "g1", "g2"];
    return fc
      .tuple(
        someStrip("main", "main", null),
        someStrip("g1", "group", "main"),
        someStrip("g2", "group", "g1"),
        someStrip("r1", "return", "main", { to: [{ strip: "r2" }] }),
        someStrip("r2", "return", "main"),
        ...kinds.map((kind, at) => someStrip(`s${at}`, kind, buses[to[at]!]!, { to: SENT_TO_HERE })),
        someStrip("k", "audio", "main", { chain: someChain }),
      )
      .map((strips) => withMore(withFolders(received(strips, from), names, folders), more));
  })
  .chain((strips) => record({ tempo: fc.integer({ min: 40, max: 220 }) }).map(({ tempo }) => ({ strips, tempo })))
  .map(({ strips, tempo }) => ({
    schema: 1 as const,
    id: "project",
    name: "Salt Lanterns",
    artist: "Copper Heron",
    client: "Copper Heron",
    song: "Salt Lanterns",
    tempo,
    meter: { beats: 4, unit: 4 },
    key: "D minor",
    sampleRate: 48_000,
    strips,
  }));

const OUTSIDE_FOLDERS = [
  null,
  ...["Cello", "Not here"].map((name) => ({ external: true, kind: "folder", name }) as const),
];

const someSavedStrip: fc.Arbitrary<SavedStrip> = fc
  .record(
    {
      source: layersWith(chainOutside),
      inserts: chainOutside,
      sends: someSends(SENT_TO_OUTSIDE),
      level: someLevel,
      pan: somePan,
      look: record({ name: someName, folder: fc.constantFrom(...OUTSIDE_FOLDERS) }).map(({ name, folder }) =>
        inFolder({ name }, folder),
      ),
      media: someMedia,
      routing: fc.constantFrom(
        { output: { external: true as const, kind: "main" as const, name: "Main" } },
        { output: { external: true as const, kind: "group" as const, name: "Cello" } },
        { output: { external: true as const, kind: "group" as const, name: "Not here" } },
        { output: { hardware: "Out 3–4" } },
        { output: null },
      ),
    },
    { requiredKeys: [], noNullPrototype: true },
  )
  .map((parts) => ({ kind: parts.source ? "instrument" : "audio", ...parts }));

export const someContent: fc.Arbitrary<Content> = fc.oneof(
  chainOutside.map((chain): Content => ({ kind: "chain", schema: 1, chain })),
  someProcessor("p1", [undefined], MODELS).map((processor): Content => ({ kind: "plugin", schema: 1, processor })),
  someSavedStrip.map((strip): Content => ({ kind: "strip", schema: 1, strip })),
);

/** Several strips of a project, each with some of its parts, or the whole of it. */
export const someStrips: fc.Arbitrary<Content> = someProject.chain((project) =>
  fc
    .tuple(
      fc.constantFrom<"set" | "mix">("set", "mix"),
      fc.subarray([...project.strips], { minLength: 1 }),
      fc.array(fc.subarray([...PARTS], { minLength: 1 }), { minLength: 12, maxLength: 12 }),
    )
    .map(([kind, strips, parts]) =>
      saveStrips(
        project,
        strips.map((strip, at) => ({
          strip,
          parts: parts[at % parts.length]!.filter((part) => offeredParts(strip).includes(part)),
        })),
        kind,
      ),
    ),
);

export const someParts: fc.Arbitrary<PartName[]> = fc.subarray([...PARTS], { minLength: 1 });
export const someMode = fc.constantFrom(...INSERT_MODES);
export const someSendMode = fc.constantFrom(undefined, ...SEND_MODES);
export const someLayers = fc.constantFrom(undefined, ...LAYER_TAKES);

/** Ids in order: the same plan each time. */
export function counter(prefix = "n"): () => string {
  let next = 0;
  return () => `${prefix}${next++}`;
}
