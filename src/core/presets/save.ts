import { counted } from "../names/count";
import { type Chain, type Processor, type StripRef, isOfSet } from "../chains/chain";
import { type Project, findStrip } from "../projects/project";
import { type SavedStrip, type Strip, aimsOf, offeredParts, stripName, withAims } from "../strips/strip";
import type { PartName, PartValues } from "../strips/parts";
import { isBus } from "../documents/strip-kinds";
import type { Content, KeyedStrip } from "./preset";
import { CONTENT_SCHEMA } from "./version";

/**
 * A reference into the project becomes one by kind and name, so that it can be found again elsewhere; to a strip that is kept along
 * with it, it stays.
 */
const outside =
  (project: Project, kept: ReadonlySet<string>) =>
  (ref: StripRef): StripRef | null => {
    if (!("strip" in ref) || kept.has(ref.strip)) return ref;
    const strip = findStrip(project, ref.strip);
    return strip ? { external: true, kind: strip.kind, name: stripName(strip) } : null;
  };

const ALONE: ReadonlySet<string> = new Set();

/** A strip by itself: what leads to others goes by their kind and name. */
export const aloneIn = (project: Project, strip: Strip): Strip => withAims(strip, outside(project, ALONE));

/** A strip with some of its parts, as a preset holds it. */
function savedOf(project: Project, strip: Strip, parts: readonly PartName[], kept = ALONE): SavedStrip {
  const aimed = withAims(strip, outside(project, kept));
  const chosen = Object.fromEntries(parts.map((part) => [part, aimed[part]])) as Partial<PartValues>;
  // An input says what kind of strip it was; an instrument is a part of its own, kept where it is asked for.
  const source = parts.length > 1 && strip.source.type !== "layers" ? { source: aimed.source } : {};
  return { kind: strip.kind, ...source, ...chosen };
}

/** The chosen parts of a strip, as a preset holds them. The project stays as it is. */
export const saveStrip = (project: Project, strip: Strip, parts: readonly PartName[]): Content => ({
  kind: "strip",
  schema: CONTENT_SCHEMA,
  strip: savedOf(project, strip, parts),
});

/** A strip as it is kept in a set: it is a strip of that, not of the one that it came from. */
export function withoutSet(strip: Strip): Strip {
  const { from, ...inserts } = strip.inserts;
  if (!from) return strip;
  const { along, ...own } = from;
  if (isOfSet(own)) return { ...strip, inserts };
  return along ? { ...strip, inserts: { ...inserts, from: own } } : strip;
}

export interface KeptStrip {
  readonly strip: Strip;
  readonly parts: readonly PartName[];
}

/**
 * Several strips together, in the order in which the project has them, with what leads from one to another. What leads to others is
 * kept by kind and name. The project stays as it is.
 */
export function saveStrips(project: Project, some: readonly KeptStrip[], kind: "set" | "mix"): Content {
  const kept = new Set(some.map(({ strip }) => strip.id));
  const given = new Map(some.map((one) => [one.strip.id, one]));
  const strips = project.strips.flatMap(({ id }) => {
    const one = given.get(id);
    return one ? [{ id, name: stripName(one.strip), ...savedOf(project, one.strip, one.parts, kept) }] : [];
  });
  return kind === "set"
    ? { kind, schema: CONTENT_SCHEMA, strips }
    : { kind, schema: CONTENT_SCHEMA, tempo: project.tempo, strips };
}

/** Some strips with all that is offered of them, without being saved first: one as a channel strip, several as a set. */
export function takeStrips(project: Project, some: readonly Strip[]): Content {
  const [only] = some;
  if (only && some.length === 1) return saveStrip(project, only, offeredParts(only));
  return saveStrips(
    project,
    some.map((strip) => ({ strip, parts: offeredParts(strip) })),
    "set",
  );
}

/** The buses to which some strips lead and that are not among them, as they are there. */
export function busesAround(project: Project, some: readonly Strip[]): readonly KeyedStrip[] {
  const taken = new Set(some.map(({ id }) => id));
  const led = new Set(some.flatMap((strip) => aimsOf(strip).flatMap((ref) => ("strip" in ref ? [ref.strip] : []))));
  const buses = project.strips.filter(
    ({ id, kind }) => led.has(id) && !taken.has(id) && isBus(kind) && kind !== "main",
  );
  return buses.map((strip) => ({
    id: strip.id,
    name: stripName(strip),
    ...savedOf(project, strip, offeredParts(strip)),
  }));
}

/** How strips that are taken go: by the name of the only one, or as so many of their project. */
export const nameOfStrips = (project: Project, some: readonly Strip[]): string =>
  some.length === 1 ? stripName(some[0]!) : `${counted(some.length, "strip")} of ${project.name}`;

/** A plugin by itself. Where it came from stands on the card, not in the sound. */
export function savePlugin(processor: Processor): Content {
  const { from: _, ...sound } = processor;
  return { kind: "plugin", schema: CONTENT_SCHEMA, processor: sound };
}

/** A chain by itself. Where it came from stands on the card, not in the sound. */
export function saveChain(chain: Chain): Content {
  const { from: _, ...sound } = chain;
  return { kind: "chain", schema: CONTENT_SCHEMA, chain: sound };
}
