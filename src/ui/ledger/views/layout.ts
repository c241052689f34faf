import equal from "fast-deep-equal";
import type { View } from "@/core/projects/views";

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

/** In pixels. */
export const WIDEST = 480;

export const COLUMN_IDS = Object.keys(COLUMNS) as readonly ColumnId[];

export const isColumn = (name: string | null): name is ColumnId => name !== null && name in COLUMNS;

/** How a person has laid out the columns; what is not said of one is as it is drawn. */
export interface Layout {
  readonly columnSizing: Record<string, number>;
  readonly columnOrder: string[];
  readonly columnVisibility: Record<string, boolean>;
}

export const AS_DRAWN: Layout = { columnSizing: {}, columnOrder: [...COLUMN_IDS], columnVisibility: {} };

export const isAsDrawn = ({ columnSizing, columnOrder, columnVisibility }: Layout): boolean =>
  equal({ columnSizing, columnOrder, columnVisibility }, AS_DRAWN);

/** As a view keeps it: the columns that are shown, in order. */
export const columnsOf = ({ columnSizing, columnOrder, columnVisibility }: Layout): View["columns"] =>
  columnOrder
    .filter((id) => isColumn(id) && columnVisibility[id] !== false)
    .map((id) => {
      const width = columnSizing[id];
      return width === undefined ? { id } : { id, width: Math.round(width) };
    });

/** As the ledger takes it up again. What it does not know is passed over; the strip itself stands first, always. */
export function layoutOf(columns: View["columns"]): Layout {
  const known = columns.filter(({ id }) => isColumn(id) && id !== "look");
  const shown = ["look", ...known.map(({ id }) => id)];
  const hidden = COLUMN_IDS.filter((id) => !shown.includes(id));
  return {
    columnSizing: Object.fromEntries(
      columns.flatMap(({ id, width }) => (isColumn(id) && width !== undefined ? [[id, width] as const] : [])),
    ),
    columnOrder: [...shown, ...hidden],
    columnVisibility: Object.fromEntries(hidden.map((id) => [id, false])),
  };
}

/** The titles of columns that are not shown. */
export const hiddenColumns = (layout: Layout): readonly string[] =>
  COLUMN_IDS.filter((id) => layout.columnVisibility[id] === false).map((id) => COLUMNS[id].title);
