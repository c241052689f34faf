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
import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { Strip } from "@/core/strips/strip";
import { AS_DRAWN, COLUMNS, COLUMN_IDS, type ColumnId, type Layout, WIDEST, isAsDrawn } from "./layout";

/** For all projects in which no view is taken; it survives a reload. */
const useLayout = create<Layout>()(persist((): Layout => AS_DRAWN, { name: "diathesis.ledger" }));

const features = tableFeatures({
  columnSizingFeature,
  columnResizingFeature,
  columnOrderingFeature,
  columnVisibilityFeature,
});
const helper = createColumnHelper<typeof features, Strip>();
const columns = helper.columns(
  COLUMN_IDS.map((id) =>
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

/** Columns of one project, apart from those of all others; null where it has none of its own. */
export interface OwnLayout {
  readonly layout: Layout | null;
  readonly keep: (change: (now: Layout) => Layout) => void;
}

type Change<T> = T | ((now: T) => T);

const madeOf = <T>(change: Change<T>, now: T): T =>
  typeof change === "function" ? (change as (now: T) => T)(now) : change;

/** The columns as they are laid out, and what can be done to them. */
export function useColumns(own: OwnLayout) {
  const shared = useLayout();
  const layout = own.layout ?? shared;
  const put = (change: (now: Layout) => Layout): void => {
    if (own.layout) own.keep(change);
    else useLayout.setState(change);
  };
  const keep =
    <K extends keyof Layout>(what: K) =>
    (change: Change<Layout[K]>): void =>
      put((now) => ({ ...now, [what]: madeOf(change, now[what]) }));
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
    layout,
    isAsDrawn: isAsDrawn(layout),
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
    reset: (): void => put(() => AS_DRAWN),
    /** In all projects in which no view is taken. */
    showEvery: (): void => void useLayout.setState({ columnVisibility: {} }),
  };
}

/** The columns of the ledger, in hand. */
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
