import type { z } from "zod";
import { type Chain, type PresetRef, EMPTY_CHAIN, isOfSet } from "../chains/chain";
import type { SavedStrip } from "../strips/strip";
import type { CardSchema, ContentSchema, OriginSchema } from "./schema";

export type Content = Readonly<z.infer<typeof ContentSchema>>;
export type PresetKind = Content["kind"];

/** Several strips together. */
export type Strips = Extract<Content, { readonly kind: "set" | "mix" }>;
export type KeyedStrip = Strips["strips"][number];

export const isStrips = (content: Content): content is Strips => content.kind === "set" || content.kind === "mix";
export type Card = Readonly<z.infer<typeof CardSchema>>;
export type Origin = Readonly<z.infer<typeof OriginSchema>>;

export const PRESET_KINDS: readonly PresetKind[] = ["plugin", "chain", "strip", "set", "mix"];

export const KIND_NAMES: Record<PresetKind, string> = {
  plugin: "Plugin preset",
  chain: "Effect chain",
  strip: "Channel strip",
  set: "Strip set",
  mix: "Whole mix",
};

export const emptyCard = (name: string): Card => ({
  name,
  folder: null,
  tags: [],
  purpose: "",
  rating: 0,
  notes: "",
  origin: {},
});

/** The chain by which a preset is shown and heard; empty for a strip saved without its inserts. */
export function chainOf(content: Content): Chain {
  switch (content.kind) {
    case "plugin":
      return { nodes: [content.processor], macros: [] };
    case "chain":
      return content.chain;
    case "strip":
      return content.strip.inserts ?? EMPTY_CHAIN;
    case "set":
    case "mix":
      return content.strips[0]?.inserts ?? EMPTY_CHAIN;
  }
}

/** What a chain goes by that was loaded from a preset, or saved as it: from a strip of a set it only came along, where it has an origin. */
export function originIn({ from: own }: Pick<Chain, "from">, { strip, ...from }: PresetRef): PresetRef {
  if (strip === undefined) return from;
  const set = { ...from, strip };
  return own && !isOfSet(own) ? { ...own, along: set } : set;
}

const goingBy = <S extends SavedStrip>(strip: S, from: PresetRef): S =>
  strip.inserts ? { ...strip, inserts: { ...strip.inserts, from: originIn(strip.inserts, from) } } : strip;

/**
 * What was loaded carries its preset's name and version. A strip of a set whose chain has an origin of its own keeps that, and came along
 * in the set.
 */
export const withFrom = (content: Content, from: PresetRef): Content => {
  switch (content.kind) {
    case "plugin":
      return { ...content, processor: { ...content.processor, from } };
    case "chain":
      return { ...content, chain: { ...content.chain, from } };
    case "strip":
      return { ...content, strip: goingBy(content.strip, from) };
    case "set":
    case "mix":
      return {
        ...content,
        strips: content.strips.map((strip) => goingBy(strip, { ...from, strip: strip.id })),
      };
  }
};

/** By which version of which preset something goes that was made from it, with its name by then. */
export const presetRef = ({
  id,
  version,
  card,
}: {
  readonly id: string;
  readonly version: number;
  readonly card: Pick<Card, "name">;
}): PresetRef => ({ preset: id, version, name: card.name });
