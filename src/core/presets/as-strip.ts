import type { PresetRef } from "../chains/chain";
import { findModel } from "../processors/models";
import { type SavedStrip, type Strip, withAims } from "../strips/strip";
import { layerOf } from "../strips/layers";
import { type Content, isStrips } from "./preset";
import { CONTENT_SCHEMA } from "./version";

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

/**
 * What of a preset is meant by what was made from it: all of it, or of a set the strip that is named, which knows the others by kind and
 * name then. Null where the set has no such strip.
 */
export function contentMeant(content: Content, { strip: key }: Pick<PresetRef, "strip">): Content | null {
  if (key === undefined) return content;
  const strips = isStrips(content) ? content.strips : [];
  const found = strips.find(({ id }) => id === key);
  if (!found) return null;
  const {
    id: _,
    name: __,
    ...strip
  } = withAims(found, (ref) => {
    if (!("strip" in ref)) return ref;
    const other = strips.find(({ id }) => id === ref.strip);
    return other ? { external: true, kind: other.kind, name: other.name } : null;
  });
  return { kind: "strip", schema: CONTENT_SCHEMA, strip };
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
