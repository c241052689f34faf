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
