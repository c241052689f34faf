import type { StripRef } from "../chains/chain";
import type { StripKind } from "../documents/strip-kinds";
import { type PartName, eachPart } from "../strips/parts";
import type { SavedStrip } from "../strips/strip";
import { asStrip } from "./as-strip";
import { type Content, isStrips } from "./preset";

/* What of the signal flow a preset holds: which of its strips lead where, and which others it knows by their names. */

export interface FlowPoint {
  readonly id: string;
  readonly kind: StripKind;
  readonly name: string;
  /** Whether the preset holds the strip itself; of others it holds kind and name. */
  readonly inside: boolean;
}

export interface HeldWay {
  /** From where to where the sound goes, by the ids of points. */
  readonly from: string;
  readonly to: string;
  /** The part that leads there. */
  readonly part: PartName;
}

export interface HeldFlow {
  readonly points: readonly FlowPoint[];
  readonly ways: readonly HeldWay[];
}

const outsideId = (ref: Extract<StripRef, { readonly external: true }>): string => `${ref.kind} ${ref.name}`;

/**
 * The signal flow in a preset. `name`: how its strip is called where it is only one. Laws: every way leads between two of the points;
 * a strip outside is one point however many lead to it; what is not kept leads nowhere.
 */
export function heldFlow(content: Content, name: string): HeldFlow {
  const one = isStrips(content) ? null : asStrip(content);
  const strips: readonly (SavedStrip & { readonly id: string; readonly name: string })[] = isStrips(content)
    ? content.strips
    : one
      ? [{ ...one, id: "it", name }]
      : [];
  const points = new Map(
    strips
      .filter(({ kind }) => kind !== "folder")
      .map(({ id, kind, name: own }) => [id, { id, kind, name: own, inside: true }]),
  );
  const ways = new Map<string, HeldWay>();
  for (const { id, name: _, kind: __, ...parts } of strips)
    eachPart(parts, (part, { aims }, value) => {
      for (const ref of aims?.way ? aims.of(value) : []) {
        const other = "strip" in ref ? ref.strip : outsideId(ref);
        if ("external" in ref && !points.has(other))
          points.set(other, { id: other, kind: ref.kind, name: ref.name, inside: false });
        const way = { part, ...(aims?.way === "in" ? { from: other, to: id } : { from: id, to: other }) };
        if (points.has(other)) ways.set(`${part} ${way.from} ${way.to}`, way);
      }
    });
  return { points: [...points.values()], ways: [...ways.values()] };
}
