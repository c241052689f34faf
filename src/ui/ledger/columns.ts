"use client";

import {
  columnOrderingFeature,
  columnResizingFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  createColumnHelper,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import equal from "fast-deep-equal";
import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { Strip } from "@/core/strips/strip";

/** The columns of the ledger: the strip itself, then its parts and what keys its plugins. */
export type ColumnId = "look" | "source" | "inserts" | "sends" | "keys" | "level" | "pan" | "routing";

interface Measures {
  readonly title: string;
  /** In pixels. */
  readonly width: number;
  readonly least: number;
  /** What it may grow by where there is room. */
  readonly grows: number;
}

export const COLUMNS: Readonly<Record<ColumnId, Measures>> = {
  look: { title: "Strip", width: 168, least: 110, grows: 90 },
  source: { title: "Source", width: 78, least: 48, grows: 70 },
  inserts: { title: "Inserts", width: 180, least: 80, grows: 48 },
  sends: { title: "Sends", width: 116, least: 64, grows: 70 },
  keys: { title: "Keyed by", width: 76, least: 48, grows: 60 },
  level: { title: "Level", width: 116, least: 52, grows: 90 },
  pan: { title: "Pan", width: 44, least: 40, grows: 24 },
  routing: { title: "To", width: 58, least: 40, grows: 60 },
};
const WIDEST = 480;

const IDS = Object.keys(COLUMNS) as readonly ColumnId[];

export const isColumn = (name: string | null): name is ColumnId => name !== null && name in COLUMNS;

/** How a person has laid out the columns; what is not said of one is as it is drawn. */
interface Layout {
  readonly columnSizing: Record<string, number>;
  readonly columnOrder: string[];
  readonly columnVisibility: Record<string, boolean>;
}

const AS_DRAWN: Layout = { columnSizing: {}, columnOrder: [...IDS], columnVisibility: {} };

/** It survives a reload, for all projects. */
const useLayout = create<Layout>()(persist((): Layout => AS_DRAWN, { name: "diathesis.ledger" }));

const features = tableFeatures({
  columnSizingFeature,
  columnResizingFeature,
  columnOrderingFeature,
  columnVisibilityFeature,
});
const helper = createColumnHelper<typeof features, Strip>();
const columns = helper.columns(
  IDS.map((id) =>
    helper.display({
      id,
      header: COLUMNS[id].title,
      size: COLUMNS[id].width,
      minSize: COLUMNS[id].least,
      maxSize: WIDEST,
      // The strip itself stays, and stands first.
      enableHiding: id !== "look",
    }),
  ),
);
const NO_ROWS: Strip[] = [];

const keep =
  <K extends keyof Layout>(what: K) =>
  (change: Layout[K] | ((now: Layout[K]) => Layout[K])): void =>
    void useLayout.setState((now) => ({ [what]: typeof change === "function" ? change(now[what]) : change }));

/** The columns as they are laid out, and what can be done to them. */
export function useColumns() {
  const layout = useLayout();
  const table = useTable({
    features,
    columns,
    data: NO_ROWS,
    columnResizeMode: "onChange",
    state: layout,
    onColumnSizingChange: keep("columnSizing"),
    onColumnOrderChange: keep("columnOrder"),
    onColumnVisibilityChange: keep("columnVisibility"),
  });
  const headers = (table.getHeaderGroups()[0]?.headers ?? []).map((header) => ({
    id: header.id as ColumnId,
    /** What a press on its edge begins. */
    onResize: header.getResizeHandler(),
  }));
  const all = table.getAllLeafColumns();
  const shown = table.getVisibleLeafColumns().map((column) => column.id as ColumnId);
  const columnOf = (id: ColumnId) => all.find((column) => column.id === id)!;
  return {
    shown,
    headers,
    all: all.map((column) => column.id as ColumnId),
    template: templateOf(shown, layout.columnSizing),
    isAsDrawn: equal({ ...layout }, AS_DRAWN),
    /** In pixels. Where there is room a column that nobody has given a width is drawn wider. */
    widthOf: (id: ColumnId): number => columnOf(id).getSize(),
    /** By so many pixels. */
    resize: (id: ColumnId, by: number): void => {
      const width = Math.min(WIDEST, Math.max(COLUMNS[id].least, columnOf(id).getSize() + by));
      table.setColumnSizing((now) => ({ ...now, [id]: width }));
    },
    resetWidth: (id: ColumnId): void => void columnOf(id).resetSize(),
    show: (id: ColumnId, on: boolean): void => void columnOf(id).toggleVisibility(on),
    /** Ahead of the one that is shown before it. */
    moveLeft: (id: ColumnId): void => {
      const before = shown[shown.indexOf(id) - 1];
      if (before === undefined || before === "look") return;
      const rest = all.map((column) => column.id).filter((one) => one !== id);
      rest.splice(rest.indexOf(before), 0, id);
      table.setColumnOrder(rest);
    },
    reset: (): void => void useLayout.setState(AS_DRAWN),
  };
}

export type Columns = ReturnType<typeof useColumns>;

/** Columns that nobody has given a width share the room that is left. */
const templateOf = (shown: readonly ColumnId[], widths: Layout["columnSizing"]): string =>
  shown
    .map((id) => {
      const own = widths[id];
      const { width, grows } = COLUMNS[id];
      return own === undefined ? `minmax(${width}px, ${width + grows}px)` : `${own}px`;
    })
    .join(" ");

/** The column beside another, among those that are shown; null before the first: the row as a whole. */
export function columnBeside({ shown }: Columns, from: ColumnId | null, by: 1 | -1): ColumnId | null {
  const at = from === null ? -1 : shown.indexOf(from);
  return shown[Math.min(shown.length - 1, at + by)] ?? null;
}
