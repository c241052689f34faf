import { type PresetRef, type Processor, isOfSet, originsOf, processorName } from "../chains/chain";
import { processorsOf } from "../chains/tree";
import type { Content } from "../presets/preset";
import { aloneIn, saveChain, savePlugin, saveStrip, saveStrips, withoutSet } from "../presets/save";
import { isHolder, stripsWithin } from "../projects/nesting";
import { type Project, findStrip } from "../projects/project";
import { usualOf } from "../recall/choices";
import { layersOf } from "../strips/layers";
import { type Strip, offeredParts, stripName } from "../strips/strip";

/*
 * What a project has that could be kept: each strip by itself and what it is made of, and what stands in a group together. It is the
 * same that saving by hand would keep, level by level.
 */

/** How much of a project is kept at once, from the smallest on. */
export const LEVELS = ["plugin", "chain", "sends", "strip", "set"] as const;
export type Level = (typeof LEVELS)[number];

/** Where in a project something is: a strip, a layer of its instrument, a plugin in its chain. */
export interface Place {
  readonly strip: string;
  readonly layer?: string;
  readonly node?: string;
}

/** One thing that could be kept. */
export interface Find {
  /** The same for the same thing of a project, as long as it is there: "plugin cello eq1". */
  readonly key: string;
  readonly level: Level;
  readonly place: Place;
  /** All strips that it holds. */
  readonly strips: readonly string[];
  /** "Cello", "VCA compressor of Cello". */
  readonly name: string;
  readonly content: Content;
  /** What it was loaded from; null where that is no preset of such a thing. */
  readonly from: PresetRef | null;
}

const keyOf = (level: Level, { strip, layer, node }: Place): string =>
  [level, strip, layer, node].filter((one) => one !== undefined).join(" ");

type Made = Pick<Find, "level" | "place" | "name" | "content"> & { readonly from?: PresetRef | null | undefined };

/** Of what came along in a set it is by itself what it was before. */
const ownOf = (from: PresetRef | null | undefined): PresetRef | null =>
  (from ? originsOf(from).find((one) => !isOfSet(one)) : null) ?? null;

const findOf = (made: Made): Find => ({
  ...made,
  key: keyOf(made.level, made.place),
  strips: [made.place.strip],
  from: ownOf(made.from),
});

const pluginOf = (strip: Strip, processor: Processor, layer?: string): Find =>
  findOf({
    level: "plugin",
    place: { strip: strip.id, node: processor.key, ...(layer === undefined ? {} : { layer }) },
    name: `${processorName(processor)} of ${stripName(strip)}`,
    content: savePlugin(processor),
    from: processor.from,
  });

/** Its instruments, each by itself and with what is behind it. */
const instrumentsOf = (strip: Strip): readonly Find[] =>
  layersOf(strip).flatMap(({ key, name, instrument, effects }) => [
    pluginOf(strip, instrument, key),
    ...processorsOf(effects).map((processor) => pluginOf(strip, processor, key)),
    ...(processorsOf(effects).length > 1
      ? [
          findOf({
            level: "chain",
            place: { strip: strip.id, layer: key },
            name: `${name} of ${stripName(strip)}`,
            content: saveChain(effects),
            from: effects.from,
          }),
        ]
      : []),
  ]);

/** A strip that is more than its chain: one that plays, or sends. */
function stripOf(project: Project, strip: Strip): Find | null {
  const parts = usualOf(offeredParts(strip));
  const plays = layersOf(strip).length > 0;
  if (!plays && (strip.inserts.nodes.length === 0 || !parts.includes("sends"))) return null;
  const { from, ...inserts } = strip.inserts;
  return findOf({
    level: "strip",
    place: { strip: strip.id },
    name: stripName(strip),
    content: saveStrip(project, { ...strip, inserts }, parts),
    from,
  });
}

function partsOf(project: Project, whole: Strip): readonly Find[] {
  const strip = aloneIn(project, whole);
  const place = { strip: strip.id };
  const plugins = processorsOf(strip.inserts);
  const chain = findOf({
    level: "chain",
    place,
    name: stripName(strip),
    content: saveChain(strip.inserts),
    from: strip.inserts.from,
  });
  const sends = findOf({
    level: "sends",
    place,
    name: `Sends of ${stripName(strip)}`,
    content: saveStrip(project, whole, ["sends"]),
  });
  const more = stripOf(project, whole);
  return [
    ...plugins.map((processor) => pluginOf(strip, processor)),
    ...instrumentsOf(strip),
    // One plugin by itself is that plugin.
    ...(plugins.length > 1 ? [chain] : []),
    ...(offeredParts(strip).includes("sends") ? [sends] : []),
    ...(more ? [more] : []),
  ];
}

type Within = ReturnType<typeof stripsWithin>;

/** A strip with all that stands in it, at any depth. Groups and folders of a project that is sound never stand in themselves. */
const withInside = (within: Within, strip: Strip): readonly Strip[] => [
  strip,
  ...(within.get(strip.id) ?? []).flatMap((inside) => withInside(within, inside)),
];

function setOf(project: Project, within: Within, holder: Strip): Find | null {
  const strips = withInside(within, holder);
  if (strips.length < 2) return null;
  const kept = strips.map((strip) => ({ strip: withoutSet(strip), parts: usualOf(offeredParts(strip)) }));
  const find = findOf({
    level: "set",
    place: { strip: holder.id },
    name: stripName(holder),
    content: saveStrips(project, kept, "set"),
  });
  return { ...find, strips: strips.map(({ id }) => id) };
}

/** All that a project has to be kept, strip by strip as they stand in it, of each the smallest first. Law: each key stands once. */
export function findsIn(project: Project): readonly Find[] {
  const within = stripsWithin(project);
  return project.strips.flatMap((strip) => {
    const set = isHolder(strip) ? setOf(project, within, strip) : null;
    return [...(strip.kind === "folder" ? [] : partsOf(project, strip)), ...(set ? [set] : [])];
  });
}

/** Whether something stands by itself: it is in no chain that stands there too. */
export function isAloneIn(project: Project, { level, place }: Pick<Find, "level" | "place">): boolean {
  const strip = findStrip(project, place.strip);
  return level !== "plugin" || place.layer !== undefined || !strip || processorsOf(strip.inserts).length < 2;
}
