import type { Table } from "@/core/sheets/sheet";
import {
  LEFT,
  type Paper,
  type Style,
  WIDTH,
  drawRule,
  lineHeight,
  linesOf,
  makeRoom,
  setLine,
  widthOf,
} from "./paper";

const HEAD: Style = { face: "regular", size: 7.5 };
const CELL: Style = { face: "regular", size: 8.5 };
const FIRST: Style = { face: "bold", size: 8.5 };
const GAP = 12;
const ROW_ROOM = 3;
const HEAD_ROOM = 3;
/** No column of words is narrower, where they have to be broken. */
const LEAST = 44;

const styleOf = (column: number): Style => (column === 0 ? FIRST : CELL);

/** Where a table stands, and how much room it has in width. */
export interface TablePlace {
  readonly x: number;
  readonly width: number;
}

const WHOLE: TablePlace = { x: LEFT, width: WIDTH };

/** Columns as wide as their longest cells. */
const naturalWidths = (paper: Paper, { columns, rows }: Table): number[] =>
  columns.map(({ title }, at) =>
    Math.max(widthOf(paper, title, HEAD), ...rows.map((row) => widthOf(paper, row[at] ?? "", styleOf(at)))),
  );

const sumOf = (widths: readonly number[]): number =>
  widths.reduce((sum, width) => sum + width, 0) + GAP * (widths.length - 1);

/** How wide a table is where nothing in it is broken. */
export const tableWidth = (paper: Paper, table: Table): number => sumOf(naturalWidths(paper, table));

/** How high a table is where nothing in it is broken. */
export const tableHeight = ({ rows }: Table): number =>
  lineHeight(HEAD) + HEAD_ROOM + rows.length * (lineHeight(CELL) + ROW_ROOM);

/** Where there is not room for all of them, columns of words give way, the widest first. */
function widthsOf(paper: Paper, table: Table, most: number): readonly number[] {
  const { columns } = table;
  const widths = naturalWidths(paper, table);
  let over = sumOf(widths) - most;
  while (over > 0) {
    const widest = Math.max(...widths.map((width, at) => (columns[at]!.isNumber ? 0 : width)));
    const at = widths.findIndex((width, column) => width === widest && !columns[column]!.isNumber);
    const less = Math.min(over, Math.max(8, widest / 8), widest - LEAST);
    if (at < 0 || less <= 0) break;
    widths[at] = widest - less;
    over -= less;
  }
  return widths;
}

type Cells = readonly (readonly string[])[];

interface Row {
  readonly cells: Cells;
  readonly x: number;
  readonly widths: readonly number[];
  /** Of all cells; where it is missing, of each its own. */
  readonly style?: Style;
}

function setRow(paper: Paper, { columns }: Table, { cells, widths, style, ...row }: Row): void {
  let { x } = row;
  for (const [at, lines] of cells.entries()) {
    const own = style ?? styleOf(at);
    const width = widths[at]!;
    for (const [n, line] of lines.entries()) {
      const indent = columns[at]!.isNumber ? width - widthOf(paper, line, own) : 0;
      setLine(paper, line, own, { x: x + indent, y: paper.y + n * lineHeight(own) });
    }
    x += width + GAP;
  }
}

/** A table at the place on the page; its head stands on every page that it goes over to. */
export function drawTable(paper: Paper, table: Table, { x, width }: TablePlace = WHOLE): void {
  const widths = widthsOf(paper, table, width);
  const right = x + sumOf(widths);
  const head = () => {
    setRow(paper, table, { cells: table.columns.map(({ title }) => [title]), x, widths, style: HEAD });
    paper.y += lineHeight(HEAD) + 1;
    drawRule(paper, { weight: 0.5 }, [x, paper.y, right, paper.y]);
    paper.y += HEAD_ROOM - 1;
  };
  makeRoom(paper, lineHeight(HEAD) + 3 * lineHeight(CELL));
  head();
  for (const row of table.rows) {
    const cells = row.map((cell, at) => linesOf(paper, cell, styleOf(at), widths[at]! + 0.5));
    const height = Math.max(...cells.map((lines) => lines.length)) * lineHeight(CELL) + ROW_ROOM;
    if (makeRoom(paper, height)) head();
    setRow(paper, table, { cells, x, widths });
    paper.y += height;
    drawRule(paper, { weight: 0.25, shade: 0.6 }, [x, paper.y - 2, right, paper.y - 2]);
  }
}
