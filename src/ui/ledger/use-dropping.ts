"use client";

import { type DragEvent, useState } from "react";
import type { PresetRow } from "@/contracts/records";
import { counted } from "@/core/names/count";
import { type Project, findStrip } from "@/core/projects/project";
import * as arrange from "@/core/recall/arrange";
import { heldBy } from "@/core/recall/choices";
import { fail } from "@/core/result";
import { type Strip, stripName } from "@/core/strips/strip";
import { mintKey } from "../kit/mint";
import { DRAGGED_SOUNDS, useDragged } from "../library/dragged";
import { useRecall } from "../plan/recall";
import { isColumn } from "./views/layout";
import { type RowDrop, type SoundDrop, type Under, dropWords, rowDrop, soundDrop, stripBefore } from "./dropping";
import { type Turning, orRefuse } from "./use-turning";

const DRAGGED_ROWS = "application/x-diathesis-strips";

/** Where it would go is drawn there, in pixels from the left edge of the row. */
export interface Mark {
  readonly strip: string;
  readonly left: number;
  readonly width: number;
}

export interface Lit {
  readonly sound: SoundDrop | null;
  readonly rows: RowDrop | null;
  /** Of a place among plugins. */
  readonly mark: Mark | null;
}

const NOTHING: Lit = { sound: null, rows: null, mark: null };

interface Met {
  readonly under: Under;
  readonly row: DOMRect;
  /** The tile that is meant, also by the gap behind it. */
  readonly tile: DOMRect | null;
}

/** So far beyond a tile, in pixels, is the gap behind it. */
const GAP = 6;

/** The tile under the pointer, or the one before it in the same cell. */
function tileAt(cell: HTMLElement, x: number): { readonly key: string; readonly box: DOMRect } | null {
  const tiles = [...cell.querySelectorAll<HTMLElement>("[data-tile]")];
  const own = tiles.findLast((tile) => tile.getBoundingClientRect().left <= x);
  const box = own?.getBoundingClientRect();
  return own && box && x < box.right + GAP ? { key: own.dataset["tile"] ?? "", box } : null;
}

/** What lies under the pointer of a drag. */
function underOf({ target, clientX, clientY }: DragEvent): Met | null {
  if (!(target instanceof Element)) return null;
  const row = target.closest<HTMLElement>("[role=row][data-strip]");
  if (!row) return null;
  const cell = target.closest<HTMLElement>("[data-column]");
  const tile = cell && tileAt(cell, clientX);
  const column = cell?.dataset["column"] ?? null;
  const area = row.getBoundingClientRect();
  return {
    under: {
      strip: row.dataset["strip"] ?? "",
      column: isColumn(column) ? column : null,
      at: (clientY - area.top) / area.height,
      tile: tile && { key: tile.key, across: (clientX - tile.box.left) / tile.box.width },
    },
    row: area,
    tile: tile?.box ?? null,
  };
}

function markOf(drop: SoundDrop | null, tile: DOMRect | null, row: DOMRect): Mark | null {
  if (drop?.onto !== "slot" || !tile) return null;
  const left = tile.left - row.left;
  if ("on" in drop.slot) return { strip: drop.strip, left, width: tile.width };
  return null;
}

/** A line between two tiles, on the side on which the pointer is. */
function gapOf(
  drop: SoundDrop | null,
  under: Under,
  { tile, row }: { readonly tile: DOMRect | null; readonly row: DOMRect },
): Mark | null {
  if (drop?.onto !== "slot" || !tile || !under.tile) return null;
  const left = (under.tile.across < 0.5 ? tile.left - 3 : tile.right + 1) - row.left;
  return { strip: drop.strip, left, width: 2 };
}

interface Dropping {
  readonly project: Project;
  readonly rows: readonly Strip[];
  /** Why rows cannot be moved among each other; null where they can. */
  readonly stuck: string | null;
  readonly chosen: readonly string[];
  readonly turning: Turning;
  readonly choose: (strip: string) => void;
}

/** What is done where something is let go. */
function useLetGo({ project, rows, stuck, turning }: Dropping) {
  const recall = useRecall();
  return {
    sound: (preset: PresetRow, drop: SoundDrop) => {
      const words = dropWords(project, drop, heldBy(preset.content));
      if (drop.onto === "between") return recall.drop(preset, { words, newStrip: stripBefore(rows, drop) });
      if (drop.onto === "slot") return recall.drop(preset, { words, slot: { strip: drop.strip, ...drop.slot } });
      return recall.drop(preset, { words, strips: drop.strips, parts: drop.parts });
    },
    rows: ({ place }: RowDrop, ids: readonly string[]) => {
      const one = ids.length === 1 ? findStrip(project, ids[0]!) : null;
      turning.change(
        `Move ${one ? stripName(one) : counted(ids.length, "strip")}`,
        orRefuse((now) => (stuck === null ? arrange.moveStrips(now, ids, place, mintKey) : fail(stuck))),
      );
    },
  };
}

/** Sounds that are dropped on rows, cells, tiles and between them, and rows among rows: what would change lights up before. */
export function useDropping(given: Dropping) {
  const { project, chosen, choose } = given;
  const [lit, setLit] = useState<Lit>(NOTHING);
  const sound = useDragged((dragged) => dragged.sound);
  /** Rows that are on their way; their data cannot be read before they are dropped. */
  const [moved, setMoved] = useState<readonly string[] | null>(null);
  const letGoOf = useLetGo(given);
  const lookAt = (event: DragEvent): Lit | null => {
    const found = underOf(event);
    if (!found) return null;
    const { under, row, tile } = found;
    if (moved && event.dataTransfer.types.includes(DRAGGED_ROWS)) {
      const drop = rowDrop(project, moved, under);
      return drop && { ...NOTHING, rows: drop };
    }
    if (!sound || !event.dataTransfer.types.includes(DRAGGED_SOUNDS)) return null;
    const drop = soundDrop(project, chosen, under, sound.content);
    return drop && { ...NOTHING, sound: drop, mark: markOf(drop, tile, row) ?? gapOf(drop, under, { tile, row }) };
  };
  const darken = () => setLit(NOTHING);
  const handlers = {
    onDragStart: (event: DragEvent) => {
      const found = underOf(event);
      if (!found || !event.dataTransfer) return;
      const { strip } = found.under;
      const ids = chosen.includes(strip) ? chosen : [strip];
      if (!chosen.includes(strip)) choose(strip);
      event.dataTransfer.setData(DRAGGED_ROWS, ids.join(" "));
      event.dataTransfer.effectAllowed = "move";
      setMoved(ids);
    },
    onDragEnd: () => {
      setMoved(null);
      darken();
    },
    onDragOver: (event: DragEvent) => {
      const next = lookAt(event);
      if (next) event.preventDefault();
      if (JSON.stringify(next ?? NOTHING) !== JSON.stringify(lit)) setLit(next ?? NOTHING);
    },
    onDragLeave: (event: DragEvent) => {
      if (!(event.relatedTarget instanceof Node) || !event.currentTarget.contains(event.relatedTarget)) darken();
    },
    onDrop: (event: DragEvent) => {
      const now = lookAt(event);
      darken();
      if (!now) return;
      event.preventDefault();
      if (now.rows && moved) letGoOf.rows(now.rows, moved);
      if (now.sound && sound) letGoOf.sound(sound, now.sound);
      setMoved(null);
    },
  };
  const words =
    lit.sound && sound
      ? `Drop applies “${sound.card.name}” ${dropWords(project, lit.sound, heldBy(sound.content))}`
      : null;
  return { lit, handlers, words };
}

export type DropHandlers = ReturnType<typeof useDropping>["handlers"];
