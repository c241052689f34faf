import type { PresetRef } from "../chains/chain";
import { withAims } from "../strips/strip";
import { type Content, isStrips } from "./preset";
import { CONTENT_SCHEMA } from "./version";

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
