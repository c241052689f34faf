import type { Fact } from "@/core/sheets/sheet";
import { LEFT, type Paper, type Style, WIDTH, lineHeight, linesOf, makeRoom, setLine, widthOf } from "./paper";

const LABEL: Style = { face: "regular", size: 8.5, shade: 0.3 };
const TEXT: Style = { face: "bold", size: 8.5 };
const BETWEEN = 16;
const BEHIND_LABEL = 4;

/** Facts behind each other, each with its label; one that does not fit goes to the next line, and over as many as it needs. */
export function drawFacts(paper: Paper, facts: readonly Fact[]): void {
  if (facts.length === 0) return;
  makeRoom(paper, lineHeight(TEXT));
  let x = 0;
  const nextLine = () => {
    paper.y += lineHeight(TEXT) + 1;
    x = 0;
    makeRoom(paper, lineHeight(TEXT));
  };
  for (const { label, text } of facts) {
    const indent = widthOf(paper, label, LABEL) + BEHIND_LABEL;
    const whole = indent + widthOf(paper, text, TEXT);
    if (x > 0 && x + whole > WIDTH) nextLine();
    setLine(paper, label, LABEL, { x: LEFT + x, y: paper.y });
    const lines = linesOf(paper, text, TEXT, Math.max(80, WIDTH - x - indent));
    for (const [at, line] of lines.entries()) {
      if (at > 0) nextLine();
      setLine(paper, line, TEXT, { x: LEFT + (at === 0 ? x : 0) + indent, y: paper.y });
    }
    x += lines.length === 1 ? whole + BETWEEN : WIDTH;
  }
  paper.y += lineHeight(TEXT) + 3;
}
