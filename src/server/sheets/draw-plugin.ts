import type { Block, Fact, SheetPlot } from "@/core/sheets/sheet";
import { drawFacts } from "./draw-facts";
import { PLOT_WIDTH, drawPlot, plotHeight } from "./draw-plot";
import { drawTable, tableHeight, tableWidth } from "./draw-table";
import {
  LEFT,
  type Paper,
  type Style,
  WIDTH,
  drawRule,
  leaveGap,
  lineHeight,
  linesOf,
  makeRoom,
  setLine,
  widthOf,
} from "./paper";

type Plugin = Extract<Block, { kind: "plugin" }>;

const NAME: Style = { face: "bold", size: 10 };
const SMALL: Style = { face: "regular", size: 8.5 };
const LABEL: Style = { face: "regular", size: 8.5 };
const VALUE: Style = { face: "bold", size: 8.5 };
const GROUP: Style = { face: "regular", size: 7.5 };
const COLUMN_GAP = 18;
const LINE = 12;
/** The line of its name, with what is around it. */
const HEAD_ROOM = 26;
const TABLE_GAP = 3;

/** A line of the values: a value under its label, or the heading of a group. */
type ValueLine = Fact | string;

const linesOfGroups = ({ groups }: Plugin): readonly ValueLine[] =>
  groups.flatMap(({ title, values }): readonly ValueLine[] => (title === "" ? values : [title, ...values]));

/** As much of a text as fits, with a mark where it was cut. */
function fitted(paper: Paper, text: string, style: Style, width: number): string {
  if (widthOf(paper, text, style) <= width) return text;
  const letters = [...text];
  while (letters.length > 1 && widthOf(paper, `${letters.join("")}…`, style) > width) letters.pop();
  return `${letters.join("").trimEnd()}…`;
}

function setValue(paper: Paper, line: ValueLine, x: number, { y, width }: { y: number; width: number }): void {
  if (typeof line === "string") {
    setLine(paper, line, GROUP, { x, y: y + 1 });
    drawRule(paper, { weight: 0.4 }, [x, y + LINE - 1, x + width, y + LINE - 1]);
    return;
  }
  const value = fitted(paper, line.text, VALUE, width);
  const taken = widthOf(paper, value, VALUE);
  const label = fitted(paper, line.label, LABEL, Math.max(30, width - taken - 6));
  setLine(paper, label, LABEL, { x, y });
  setLine(paper, value, VALUE, { x: x + width - taken, y });
  const [from, to] = [x + widthOf(paper, label, LABEL) + 3, x + width - taken - 3];
  if (to > from) drawRule(paper, { weight: 0.5, shade: 0.4, dash: [0.5, 2] }, [from, y + 9, to, y + 9]);
}

/** A heading is not the last of its column. */
function inColumns(lines: readonly ValueLine[], count: number): readonly (readonly ValueLine[])[] {
  const columns: ValueLine[][] = [];
  let left = [...lines];
  for (let column = 0; column < count; column++) {
    const most = Math.ceil(left.length / (count - column));
    const own = left.slice(0, most);
    if (column < count - 1 && typeof own.at(-1) === "string") own.pop();
    columns.push(own);
    left = left.slice(own.length);
  }
  return columns;
}

interface Place {
  readonly x: number;
  readonly width: number;
}

const besidePlot = (plot: SheetPlot | null): Place => {
  const taken = plot ? PLOT_WIDTH + COLUMN_GAP : 0;
  return { x: LEFT + taken, width: WIDTH - taken };
};

/** Two columns beside a plot, three where there is none. */
function columnsOf(plugin: Plugin) {
  const place = besidePlot(plugin.plot);
  const count = plugin.plot ? 2 : 3;
  const columns = inColumns(linesOfGroups(plugin), count);
  const width = (place.width - (count - 1) * COLUMN_GAP) / count;
  return { columns, width, height: LINE * Math.max(0, ...columns.map((column) => column.length)) };
}

function setName(paper: Paper, { place, name, model, isOff }: Plugin): void {
  const lines = linesOf(paper, place === "" ? name : `${place}  ${name}`, NAME, WIDTH - 150);
  for (const [at, line] of lines.entries()) {
    setLine(paper, line, NAME, { x: LEFT, y: paper.y });
    const end = LEFT + widthOf(paper, line, NAME);
    if (isOff) drawRule(paper, { weight: 0.7 }, [LEFT, paper.y + 6.5, end, paper.y + 6.5]);
    if (at === lines.length - 1) {
      setLine(paper, model, SMALL, { x: end + 8, y: paper.y + 1.2 });
      if (isOff) setLine(paper, "OFF", NAME, { x: LEFT + WIDTH - widthOf(paper, "OFF", NAME), y: paper.y });
    }
    paper.y += lineHeight(NAME);
  }
  paper.y += 2;
}

/** How a plugin is laid out: what stands beside its picture, and what below. */
function layoutOf(paper: Paper, plugin: Plugin) {
  const place = besidePlot(plugin.plot);
  const values = columnsOf(plugin);
  const { alike, plot } = plugin;
  const isBeside = alike !== null && plot !== null && tableWidth(paper, alike) <= place.width;
  const rows = alike ? tableHeight(alike) + TABLE_GAP : 0;
  const beside = Math.max(values.height + (isBeside ? rows : 0), plot ? plotHeight(plot) : 0);
  return { place, values, isBeside, beside, height: beside + (isBeside ? 0 : rows) };
}

/** The room that a plugin takes, in points, with nothing broken over lines. */
export const pluginHeight = (paper: Paper, plugin: Plugin): number =>
  HEAD_ROOM + (plugin.facts.length > 0 ? LINE : 0) + layoutOf(paper, plugin).height;

/** A plugin: its name, its picture, and beside it its values; bands and the like in rows. */
export function drawPlugin(paper: Paper, plugin: Plugin): void {
  const { place, values, isBeside, beside } = layoutOf(paper, plugin);
  leaveGap(paper, 10);
  makeRoom(paper, pluginHeight(paper, plugin));
  setName(paper, plugin);
  drawFacts(paper, plugin.facts);
  const { y } = paper;
  if (plugin.plot) drawPlot(paper, plugin.plot, plugin.isOff);
  for (const [at, column] of values.columns.entries())
    for (const [n, line] of column.entries())
      setValue(paper, line, place.x + at * (values.width + COLUMN_GAP), { y: y + n * LINE, width: values.width });
  if (plugin.alike) {
    paper.y = y + (isBeside ? values.height : beside) + TABLE_GAP;
    drawTable(paper, plugin.alike, isBeside ? place : undefined);
  }
  paper.y = Math.max(paper.y, y + beside) + 2;
}
