import type { Chain, StripRef } from "../chains/chain";
import { type Project, findStrip } from "../projects/project";
import { type SavedStrip, type Strip, stripName } from "../strips/strip";
import { type PartName, type PartValues, eachPart } from "../strips/parts";
import type { Content } from "./preset";
import { CONTENT_SCHEMA } from "./version";

/** A reference into the project becomes one by kind and name, so that it can be found again elsewhere. */
const outside =
  (project: Project) =>
  (ref: StripRef): StripRef | null => {
    if (!("strip" in ref)) return ref;
    const strip = findStrip(project, ref.strip);
    return strip ? { external: true, kind: strip.kind, name: stripName(strip) } : null;
  };

/** The chosen parts of a strip, as a preset holds them. The project stays as it is. */
export function saveStrip(project: Project, strip: Strip, parts: readonly PartName[]): Content {
  const chosen = Object.fromEntries(
    eachPart(strip, (name, { aims }, value): readonly [PartName, unknown] => [
      name,
      aims ? aims.mapped(value, outside(project)) : value,
    ]).filter(([name]) => parts.includes(name)),
  ) as Partial<PartValues>;
  // An input says what kind of strip it was; an instrument is a part of its own, kept where it is asked for.
  const source = parts.length > 1 && strip.source.type !== "layers" ? { source: strip.source } : {};
  const saved: SavedStrip = { kind: strip.kind, ...source, ...chosen };
  return { kind: "strip", schema: CONTENT_SCHEMA, strip: saved };
}

/** A chain by itself. Where it came from stands on the card, not in the sound. */
export function saveChain(chain: Chain): Content {
  const { from: _, ...sound } = chain;
  return { kind: "chain", schema: CONTENT_SCHEMA, chain: sound };
}
