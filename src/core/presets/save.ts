import type { Chain, StripRef } from "../chains/chain";
import { type Project, findStrip } from "../projects/project";
import { type SavedStrip, type Strip, stripName, withAims } from "../strips/strip";
import type { PartName, PartValues } from "../strips/parts";
import type { Content } from "./preset";
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
  const parts = new Map(some.map((one) => [one.strip.id, one.parts]));
  const strips = project.strips.flatMap((strip) => {
    const chosen = parts.get(strip.id);
    return chosen ? [{ id: strip.id, name: stripName(strip), ...savedOf(project, strip, chosen, kept) }] : [];
  });
  return kind === "set"
    ? { kind, schema: CONTENT_SCHEMA, strips }
    : { kind, schema: CONTENT_SCHEMA, tempo: project.tempo, strips };
}

/** A chain by itself. Where it came from stands on the card, not in the sound. */
export function saveChain(chain: Chain): Content {
  const { from: _, ...sound } = chain;
  return { kind: "chain", schema: CONTENT_SCHEMA, chain: sound };
}
