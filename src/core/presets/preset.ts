import type { z } from "zod";
import { type Chain, type PresetRef, EMPTY_CHAIN } from "../chains/chain";
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

/** What was loaded carries its preset's name and version. */
export const withFrom = (content: Content, from: PresetRef): Content => {
  switch (content.kind) {
    case "plugin":
      return { ...content, processor: { ...content.processor, from } };
    case "chain":
      return { ...content, chain: { ...content.chain, from } };
    case "strip":
      return content.strip.inserts
        ? { ...content, strip: { ...content.strip, inserts: { ...content.strip.inserts, from } } }
        : content;
    case "set":
    case "mix":
      return content;
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
