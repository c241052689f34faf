import type { z } from "zod";
import { findModel } from "../processors/models";
import type { ChainSchema, PresetRefSchema, NodeSchema, ProcessorSchema, StripRefSchema } from "./schema";

export type PresetRef = Readonly<z.infer<typeof PresetRefSchema>>;
export type StripRef = Readonly<z.infer<typeof StripRefSchema>>;
export type Processor = Readonly<z.infer<typeof ProcessorSchema>>;
export type ChainNode = Readonly<z.infer<typeof NodeSchema>>;
export type Chain = Readonly<z.infer<typeof ChainSchema>>;
export type Section = Extract<ChainNode, { type: "section" }>;
export type Split = Extract<ChainNode, { type: "split" }>;
export type Lane = Split["lanes"][number];
export type Macro = Chain["macros"][number];
export type MacroTarget = Macro["axes"][number][number];

type Reference = Pick<PresetRef, "preset" | "strip">;

/** Whether two things came from one sound, of whichever version: from one preset, and of a set from the same strip of it. */
export const isOneSound = (a: Reference | null | undefined, b: Reference | null | undefined): boolean =>
  !!a && !!b && a.preset === b.preset && a.strip === b.strip;

/** What a thing goes by, and the set that it came along in. */
export const originsOf = ({ along, ...own }: PresetRef): readonly PresetRef[] => (along ? [own, along] : [own]);

/** Whether a thing came from a sound, be that by itself or along in a set. */
export const cameFrom = (from: PresetRef | null | undefined, sound: Reference | null | undefined): boolean =>
  !!from && originsOf(from).some((one) => isOneSound(one, sound));

/** Another version of what a thing came from. */
export const versionOf = ({ preset, strip }: PresetRef, version: number): Omit<PresetRef, "name"> => ({
  preset,
  version,
  ...(strip === undefined ? {} : { strip }),
});

/** Whether a thing is one strip of what it came from, which is then no preset of that thing. */
export const isOfSet = ({ strip }: Pick<PresetRef, "strip">): boolean => strip !== undefined;

export const EMPTY_CHAIN: Chain = { nodes: [], macros: [] };

/** A processor's name on screen: its own, else that of its model. */
export const processorName = (processor: Processor): string =>
  processor.label ?? findModel(processor.model)?.name ?? processor.model;

/** The name of any node: a section's own, a split by its lanes. */
export function nodeName(node: ChainNode): string {
  switch (node.type) {
    case "processor":
      return processorName(node);
    case "section":
      return node.name;
    case "split":
      return `${node.lanes.length} ${node.by.way === "bands" ? "bands" : "lanes"}`;
  }
}
