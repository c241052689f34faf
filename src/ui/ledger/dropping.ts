import { counted } from "@/core/names/count";
import { isHolder, parentOf, stripsWithin } from "@/core/projects/nesting";
import { type Project, findStrip } from "@/core/projects/project";
import type { StripPlace } from "@/core/recall/arrange";
import { heldBy, usualOf } from "@/core/recall/choices";
import type { Slot } from "@/core/recall/plan-inserts";
import { type Content, isStrips } from "@/core/presets/preset";
import { PART, type PartName } from "@/core/strips/parts";
import { type Strip, stripName } from "@/core/strips/strip";
import type { ColumnId } from "./views/layout";

/* Where something that is dragged over the rows would go, and what that would do. */

/** What lies under the pointer. `at`: where within the row, 0 at its upper edge to 1 at its lower. */
export interface Under {
  readonly strip: string;
  readonly column: ColumnId | null;
  readonly at: number;
  /** The plugin whose tile that is, and where within it, 0 to 1. */
  readonly tile: { readonly key: string; readonly across: number } | null;
}

/** What a sound would be dropped on. */
export type SoundDrop =
  | { readonly onto: "strips"; readonly strips: readonly string[]; readonly parts: readonly PartName[] }
  | { readonly onto: "slot"; readonly strip: string; readonly slot: Slot }
  | { readonly onto: "between"; readonly strip: string; readonly below: boolean };

/** So near to the edge of a row is between two, as a share of its height. */
const EDGE = 0.14;
/** So near to the edge of a tile is between two, as a share of its width. */
const TILE_EDGE = 0.25;

const partOf = (column: ColumnId | null): PartName | null => {
  if (column === null || column === "look") return null;
  return column === "keys" ? "inserts" : column;
};

/** The place in a chain that a tile, or the gap beside it, is; null in the middle of one where more than one plugin comes. */
function slotAt(project: Project, under: Under, content: Content): Slot | null {
  const { tile, strip: id } = under;
  const nodes = findStrip(project, id)?.inserts.nodes ?? [];
  if (!tile) return null;
  const at = nodes.findIndex(({ key }) => key === tile.key);
  if (at < 0) return content.kind === "plugin" ? { on: tile.key } : null;
  if (tile.across < TILE_EDGE) return { after: nodes[at - 1]?.key ?? null };
  if (tile.across > 1 - TILE_EDGE) return { after: tile.key };
  return content.kind === "plugin" ? { on: tile.key } : null;
}

/** Where a sound would go; null where it can go nowhere. A row that is chosen stands for all that are. */
export function soundDrop(
  project: Project,
  chosen: readonly string[],
  under: Under,
  content: Content,
): SoundDrop | null {
  const { strip, at } = under;
  if (at < EDGE || at > 1 - EDGE) return { onto: "between", strip, below: at > 0.5 };
  return findStrip(project, strip)?.kind === "folder" ? null : onRow(project, chosen, under, content);
}

function onRow(project: Project, chosen: readonly string[], under: Under, content: Content): SoundDrop | null {
  const { strip, column } = under;
  const held = heldBy(content);
  const part = partOf(column);
  const isOneStrip = !isStrips(content);
  const slot = isOneStrip && column === "inserts" && content.kind !== "strip" ? slotAt(project, under, content) : null;
  if (slot) return { onto: "slot", strip, slot };
  if (part !== null && !held.includes(part)) return null;
  const strips = chosen.includes(strip) ? chosen : [strip];
  return { onto: "strips", strips, parts: part === null ? usualOf(held) : [part] };
}

/** Whether a cell would change by it. */
export const isLit = (drop: SoundDrop | null, strip: string, column: ColumnId): boolean =>
  drop?.onto === "strips" &&
  drop.strips.includes(strip) &&
  drop.parts.some((part) => part === column || (part === "inserts" && column === "keys"));

/** "to the level of Cello", "to 6 strips", "in the place of a plugin of Horn". */
export function dropWords(project: Project, drop: SoundDrop, held: readonly PartName[]): string {
  const nameOf = (id: string) => {
    const strip = findStrip(project, id);
    return strip ? stripName(strip) : "a strip";
  };
  switch (drop.onto) {
    case "between":
      return `to a new strip ${drop.below ? "behind" : "before"} ${nameOf(drop.strip)}`;
    case "slot":
      return "on" in drop.slot
        ? `in the place of a plugin of ${nameOf(drop.strip)}`
        : `between plugins of ${nameOf(drop.strip)}`;
    case "strips": {
      const { strips, parts } = drop;
      const onto = strips.length === 1 ? nameOf(strips[0]!) : counted(strips.length, "strip");
      return parts.length === usualOf(held).length
        ? `to ${onto}`
        : `to ${parts.map((p) => PART[p].phrase).join(", ")} of ${onto}`;
    }
  }
}

/** The strip behind which a new one would stand. */
export function stripBefore(
  rows: readonly { readonly id: string }[],
  { strip, below }: Extract<SoundDrop, { onto: "between" }>,
): string | null {
  if (below) return strip;
  return rows[rows.findIndex(({ id }) => id === strip) - 1]?.id ?? null;
}

/** Where rows that are dragged would come to stand; beside it the row at whose edge that is, or in which. */
export interface RowDrop {
  readonly strip: string;
  readonly side: "before" | "behind" | "inside";
  readonly place: StripPlace;
}

/** Over what holds others: in its middle is within it, behind all that stands there; below it, before them. Null where it is as any row. */
function holderDrop(inside: ReadonlyMap<string | null, readonly Strip[]>, id: string, at: number): RowDrop | null {
  const members = inside.get(id) ?? [];
  if (at > 0.3 && at < 0.7)
    return { strip: id, side: "inside", place: { within: id, after: members.at(-1)?.id ?? null } };
  return at >= 0.5 && members.length > 0 ? { strip: id, side: "behind", place: { within: id, after: null } } : null;
}

/** Before or behind a row, where that stands; over a group or a folder also within it. */
export function rowDrop(project: Project, moved: readonly string[], { strip: id, at }: Under): RowDrop | null {
  const strip = findStrip(project, id);
  if (!strip || moved.includes(id)) return null;
  const inside = stripsWithin(project);
  const held = isHolder(strip) ? holderDrop(inside, id, at) : null;
  if (held) return held;
  const within = parentOf(project, strip)?.id ?? null;
  if (at >= 0.5) return { strip: id, side: "behind", place: { within, after: id } };
  const siblings = inside.get(within) ?? [];
  const before = siblings[siblings.findIndex((s) => s.id === id) - 1]?.id ?? null;
  return { strip: id, side: "before", place: { within, after: before } };
}
