import { findModel } from "../processors/models";
import type { SavedStrip, Strip } from "../strips/strip";
import { layerOf } from "../strips/layers";
import type { Content } from "./preset";

/** What a preset is as part of a strip: an instrument plays on one of its own kind, effects are inserts. Null for several strips. */
export function asStrip(content: Content): SavedStrip | null {
  switch (content.kind) {
    case "plugin":
      return findModel(content.processor.model)?.family === "instrument"
        ? { kind: "instrument", source: { type: "layers", channels: "stereo", layers: [layerOf(content.processor)] } }
        : { kind: "audio", inserts: { nodes: [content.processor], macros: [] } };
    case "chain":
      return { kind: "audio", inserts: content.chain };
    case "strip":
      return content.strip;
    case "set":
    case "mix":
      return null;
  }
}

/** Whether a new strip of a kind can begin as a preset: effects on any strip, a strip on its own kind. */
export function canBegin(content: Content, kind: Strip["kind"]): boolean {
  const saved = asStrip(content);
  if (!saved || kind === "folder") return false;
  return content.kind === "strip" || saved.kind === "instrument" ? saved.kind === kind : true;
}

/** A new strip that begins as a preset: what that holds, but for its name and where it went. */
export function beginAs(blank: Strip, content: Content): Strip {
  const saved = canBegin(content, blank.kind) ? asStrip(content) : null;
  if (!saved) return blank;
  const { kind: _, look: __, routing: ___, ...parts } = saved;
  const held = Object.fromEntries(Object.entries(parts).filter(([, part]) => part !== undefined));
  return { ...blank, ...held };
}
