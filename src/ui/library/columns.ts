import type { PresetQuery } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { processorsIn } from "@/core/presets/processors-in";
import { formatNumber } from "@/core/units/format";
import { formatDay } from "../kit/dates";

interface Kind {
  readonly title: string;
  /** In pixels. */
  readonly width: number;
  /** What it says of a preset; `folders`: the path of each. */
  readonly text: (preset: PresetRow, folders: ReadonlyMap<string, string>) => string;
}

const day = (time: string | null | undefined): string => (time ? formatDay(time, new Date()) : "");

/** What a list can say of each sound beside its name and its shape, and be put in order by. */
export const COLUMNS = {
  used: { title: "Used", width: 76, text: ({ usedAt, savedAt }) => day(usedAt ?? savedAt) },
  saved: { title: "Saved", width: 76, text: ({ savedAt }) => day(savedAt) },
  origin: { title: "From", width: 76, text: ({ card }) => day(card.origin.date) },
  rating: { title: "Rating", width: 52, text: ({ card }) => (card.rating === 0 ? "" : String(card.rating)) },
  length: { title: "Plugins", width: 56, text: ({ content }) => String(processorsIn(content).length) },
  loudness: {
    title: "Loudness",
    width: 68,
    text: ({ loudness }) => (loudness === undefined ? "" : formatNumber(loudness, 1)),
  },
  folder: {
    title: "Folder",
    width: 110,
    text: ({ card }, folders) => (card.folder === null ? "" : (folders.get(card.folder) ?? "")),
  },
} as const satisfies Record<string, Kind>;

export type Column = keyof typeof COLUMNS;
export const COLUMN_NAMES = Object.keys(COLUMNS) as readonly Column[];

const isColumn = (name: string | undefined): name is Column => name !== undefined && Object.hasOwn(COLUMNS, name);

/** Columns as an address says them, "saved,rating"; with the one that the list is put in order by, which is always in sight. */
export function columnsIn(text: string | undefined, sort: PresetQuery["sort"]): readonly Column[] {
  const asked = (text ?? "used").split(",").filter(isColumn);
  return COLUMN_NAMES.filter((name) => asked.includes(name) || name === sort);
}

/** As an address says them. */
export const columnsAsText = (columns: readonly Column[]): string =>
  COLUMN_NAMES.filter((name) => columns.includes(name)).join(",") || "none";

/** Beside many columns there is no room for shapes. */
export const hasShapes = (columns: readonly Column[]): boolean => columns.length < 4;

/** The tracks of a line: a mark, the name, shapes, and the columns. A narrow list keeps its names in sight, and cuts the others. */
export const gridOf = (columns: readonly Column[]): string =>
  [
    "18px",
    "minmax(120px, 1fr)",
    ...(hasShapes(columns) ? [columns.length > 1 ? "minmax(0, 118px)" : "minmax(0, 214px)"] : []),
    ...columns.map((name) => `minmax(0, ${COLUMNS[name].width}px)`),
  ].join(" ");
