import type { Block, RecallSheet } from "@/core/sheets/sheet";
import { drawFacts } from "./draw-facts";
import { drawPlugin, pluginHeight } from "./draw-plugin";
import { drawTable } from "./draw-table";
import {
  LEFT,
  type Paper,
  type Style,
  WIDTH,
  drawRule,
  finish,
  leaveGap,
  lineHeight,
  linesOf,
  makeRoom,
  newPaper,
  setLine,
  setText,
  widthOf,
} from "./paper";

const TITLE: Style = { face: "display", size: 20 };
const OF: Style = { face: "regular", size: 10 };
const NOTES: Style = { face: "regular", size: 9 };
const STRIP: Style = { face: "display", size: 14 };
const PART: Style = { face: "bold", size: 9.5 };
const ASIDE: Style = { face: "regular", size: 8.5 };

type Heading = Extract<Block, { kind: "heading" }>;

/** A line or two of what a heading heads, in points. */
const LITTLE = 40;

/** What is on the same page as a heading: all down to the first plugin behind it, or a little of what else comes first. */
function keptWith(paper: Paper, next: readonly Block[]): number {
  const [first, second] = next;
  if (first?.kind === "plugin") return pluginHeight(paper, first);
  return LITTLE + (first && first.kind !== "table" && second ? keptWith(paper, next.slice(1, 4)) : 0);
}

function drawHeading(paper: Paper, { rank, text, aside }: Heading, kept = LITTLE): void {
  const style = rank === 1 ? STRIP : PART;
  leaveGap(paper, rank === 1 ? 18 : 10);
  makeRoom(paper, lineHeight(style) + kept);
  if (rank === 1) {
    drawRule(paper, { weight: 1 }, [LEFT, paper.y, LEFT + WIDTH, paper.y]);
    paper.y += 4;
  }
  const asideWidth = widthOf(paper, aside, ASIDE);
  const apart = asideWidth < WIDTH / 2;
  for (const [at, line] of linesOf(paper, text, style, apart ? WIDTH - asideWidth - 16 : WIDTH).entries()) {
    setLine(paper, line, style, { x: LEFT, y: paper.y });
    if (at === 0 && apart)
      setLine(paper, aside, ASIDE, { x: LEFT + WIDTH - asideWidth, y: paper.y + style.size - ASIDE.size });
    paper.y += lineHeight(style);
  }
  if (!apart) setText(paper, aside, ASIDE);
  if (rank === 2) drawRule(paper, { weight: 0.5 }, [LEFT, paper.y, LEFT + WIDTH, paper.y]);
  paper.y += 4;
}

function drawBlock(paper: Paper, block: Block, next: readonly Block[]): void {
  switch (block.kind) {
    case "heading":
      return drawHeading(paper, block, keptWith(paper, next));
    case "facts":
      return drawFacts(paper, block.facts);
    case "table":
      if (block.title !== "") drawHeading(paper, { kind: "heading", rank: 2, text: block.title, aside: "" });
      else leaveGap(paper, 4);
      return drawTable(paper, block.table);
    case "plugin":
      return drawPlugin(paper, block);
  }
}

function drawHead(paper: Paper, { title, of, facts, notes }: RecallSheet): void {
  setText(paper, title, TITLE);
  paper.y += 1;
  setText(paper, of, OF);
  paper.y += 3;
  drawRule(paper, { weight: 1 }, [LEFT, paper.y, LEFT + WIDTH, paper.y]);
  paper.y += 5;
  drawFacts(paper, facts);
  if (notes === "") return;
  paper.y += 3;
  setText(paper, notes, NOTES);
}

/** A recall sheet as a PDF of A4 pages in black on white, its fonts embedded. `printedAt` stands at the foot of each page. */
export async function sheetPdf(sheet: RecallSheet, printedAt: Date): Promise<Uint8Array> {
  const about = { title: sheet.title, printedAt };
  const paper = await newPaper(about);
  drawHead(paper, sheet);
  for (const [at, block] of sheet.blocks.entries()) drawBlock(paper, block, sheet.blocks.slice(at + 1, at + 5));
  return finish(paper, about);
}
