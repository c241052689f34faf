import equal from "fast-deep-equal";
import type { z } from "zod";
import type { Chain, PresetRef, StripRef } from "../chains/chain";
import type { StripKind } from "../documents/strip-kinds";
import { PART, PARTS, type PartName, type PartValues, eachPart } from "./parts";
import type { Look } from "./parts/look";
import type { Output } from "./parts/routing";
import type { SavedStripSchema, StripSchema } from "./schema";

export type Strip = Readonly<z.infer<typeof StripSchema>>;
export type SavedStrip = Readonly<z.infer<typeof SavedStripSchema>>;

/** A strip with nothing set. It goes to `output`. */
export const createStrip = (id: string, kind: StripKind, look: Look, output: Output): Strip => ({
  ...(Object.fromEntries(PARTS.map((name) => [name, PART[name].empty(kind)])) as unknown as PartValues),
  id,
  kind,
  look,
  routing: { output: kind === "folder" ? null : output },
});

export const stripName = (strip: Pick<Strip, "look">): string => strip.look.name;

/** A strip's inserts or, with a layer, the effects within that layer of its instrument; null where it has no such layer. */
export function chainAt({ inserts, source }: Strip, layer: string | undefined): Chain | null {
  if (layer === undefined) return inserts;
  return source.type === "layers" ? (source.layers.find((l) => l.key === layer)?.effects ?? null) : null;
}

/** The parts of a strip that can be saved: those that its kind offers, where there is something of them. */
export const offeredParts = (strip: Strip): readonly PartName[] =>
  eachPart(strip, (name, { isOffered, isHeld }, value) =>
    isOffered(strip.kind) && isHeld(value) ? [name] : [],
  ).flat();

/** The parts that a saved strip holds, of those that can be applied. */
export const partsOf = (saved: SavedStrip): readonly PartName[] => {
  const held = eachPart(saved, (name, record, value) => (record.isHeld(value) ? name : null));
  return held.filter((name) => name !== null);
};

/** What a saved strip says of a part; strips outside of it are known by their names. */
function wordsIn(saved: SavedStrip, part: PartName): string {
  const around = { kind: saved.kind, nameOf: () => "another strip" };
  const [words] = eachPart({ [part]: saved[part] }, (_, record, value) => record.words(value, around));
  return words ?? "not held";
}

/** The parts that a saved strip holds, each with its title and what it is set to, in words. */
export const describeParts = (saved: SavedStrip) =>
  partsOf(saved).map((part) => ({ part, title: PART[part].title, words: wordsIn(saved, part) }));

export interface PartDifference {
  readonly part: PartName;
  readonly from: string;
  /** "changed" where both sides read the same. */
  readonly to: string;
}

/** The parts in which two saved strips are not alike, in words. */
export const differentParts = (a: SavedStrip, b: SavedStrip): readonly PartDifference[] =>
  PARTS.filter((part) => !equal(a[part], b[part])).map((part) => {
    const [from, to] = [wordsIn(a, part), wordsIn(b, part)];
    return { part, from, to: from === to ? "changed" : to };
  });

/** Presets that something in a strip was loaded from, wherever it stands. */
export const presetsIn = (strip: Strip | SavedStrip): readonly PresetRef[] =>
  eachPart(strip, (_, record, value) => record.presets(value)).flat();

export const completeStrip = <S extends Strip | SavedStrip>(strip: S): S => ({
  ...strip,
  ...Object.fromEntries(eachPart(strip, (name, record, value) => [name, record.complete(value)] as const)),
});

/** A strip, or a saved one, whose references are replaced, in every part that has any. */
export const withAims = <S extends Strip | SavedStrip>(strip: S, aim: (ref: StripRef) => StripRef | null): S => ({
  ...strip,
  ...Object.fromEntries(
    eachPart(strip, (name, { aims }, value) => [name, aims ? aims.mapped(value, aim) : value] as const),
  ),
});

/** Every reference of a strip, or of a saved one, to another. */
export const aimsOf = (strip: Strip | SavedStrip): readonly StripRef[] =>
  eachPart(strip, (_, { aims }, value) => aims?.of(value) ?? []).flat();
