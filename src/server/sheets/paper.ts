import { type Face, type Fonts, openFonts, runsOf } from "./fonts";

/* Pages of A4 with a place on them that goes downwards. All lengths are in points, a seventy-second of an inch. */

const A4 = { width: 595.28, height: 841.89 };
const MARGIN = { top: 42, side: 42, bottom: 50 };

/** From edge to edge of what is printed. */
export const WIDTH = A4.width - 2 * MARGIN.side;
export const LEFT = MARGIN.side;
const BOTTOM = A4.height - MARGIN.bottom;
/** What fits on one page at the most. */
export const PAGE_ROOM = BOTTOM - MARGIN.top;

export interface Style {
  readonly face: Face;
  readonly size: number;
  /** 0 is black. Paper is white, and printers have no other ink: a shade is only for what is read second. */
  readonly shade?: number;
}

/** From one line to the next, as a share of the size of the letters. */
const LEADING = 1.28;
export const lineHeight = ({ size }: Style): number => size * LEADING;

export const grey = (shade: number): [number, number, number] => {
  const level = Math.round(shade * 255);
  return [level, level, level];
};

export interface Paper {
  readonly doc: PDFKit.PDFDocument;
  readonly fonts: Fonts;
  /** Where the next thing is drawn, from the upper edge. */
  y: number;
}

export interface About {
  readonly title: string;
  readonly printedAt: Date;
}

export async function newPaper({ title, printedAt }: About): Promise<Paper> {
  const { default: PDFDocument } = await import("pdfkit");
  const fonts = await openFonts();
  const doc = new PDFDocument({
    size: "A4",
    margin: 0,
    bufferPages: true,
    lang: "en",
    displayTitle: true,
    info: { Title: title, Creator: "Diathesis", Producer: "Diathesis", CreationDate: printedAt, ModDate: printedAt },
  });
  // Only those that are used are embedded, and of them the letters that are.
  for (const { file, bytes } of Object.values(fonts).flat()) doc.registerFont(file, bytes);
  return { doc, fonts, y: MARGIN.top };
}

/** Goes on on the next page where there is not so much room left on this one. True where it did. */
export function makeRoom(paper: Paper, height: number): boolean {
  if (paper.y + Math.min(height, PAGE_ROOM) <= BOTTOM) return false;
  paper.doc.addPage({ size: "A4", margin: 0 });
  paper.y = MARGIN.top;
  return true;
}

/** A gap before what comes next; none at the head of a page. */
export function leaveGap(paper: Paper, height: number): void {
  if (paper.y > MARGIN.top) paper.y += height;
}

/** How wide a text is in one line. */
export function widthOf({ doc, fonts }: Paper, text: string, style: Style): number {
  return runsOf(fonts[style.face], text).reduce(
    (width, run) => width + doc.font(run.file).fontSize(style.size).widthOfString(run.text),
    0,
  );
}

/** Sets one line at a place, its upper left corner. */
export function setLine(
  { doc, fonts }: Paper,
  text: string,
  style: Style,
  at: { readonly x: number; readonly y: number },
): void {
  doc.fillColor(grey(style.shade ?? 0));
  let { x } = at;
  for (const run of runsOf(fonts[style.face], text)) {
    doc.font(run.file).fontSize(style.size);
    // Fonts differ in height: all stand on one line.
    doc.text(run.text, x, at.y + style.size, { lineBreak: false, baseline: "alphabetic" });
    x += doc.widthOfString(run.text);
  }
}

/** A word that is wider than a line, in pieces that are not. */
function inPieces(paper: Paper, word: string, style: Style, width: number): readonly string[] {
  const pieces: string[] = [];
  let piece = "";
  for (const letter of word) {
    if (piece !== "" && widthOf(paper, piece + letter, style) > width) {
      pieces.push(piece);
      piece = "";
    }
    piece += letter;
  }
  return [...pieces, piece];
}

/** A text in lines of a width. Every letter but the blanks at which it is broken is in one of them. */
export function linesOf(paper: Paper, text: string, style: Style, width: number): readonly string[] {
  return text.split(/\r?\n/).flatMap((paragraph) => {
    const words = paragraph.split(/\s+/).filter((word) => word !== "");
    const lines: string[] = [];
    let line = "";
    for (const word of words) {
      const longer = line === "" ? word : `${line} ${word}`;
      if (widthOf(paper, longer, style) <= width) {
        line = longer;
        continue;
      }
      if (line !== "") lines.push(line);
      const pieces = inPieces(paper, word, style, width);
      lines.push(...pieces.slice(0, -1));
      line = pieces.at(-1) ?? "";
    }
    return [...lines, line];
  });
}

/** Sets a text at the place on the page, over as many lines and pages as it takes. */
export function setText(paper: Paper, text: string, style: Style): void {
  for (const line of linesOf(paper, text, style, WIDTH)) {
    makeRoom(paper, lineHeight(style));
    setLine(paper, line, style, { x: LEFT, y: paper.y });
    paper.y += lineHeight(style);
  }
}

export interface Rule {
  readonly weight: number;
  readonly shade?: number;
  readonly dash?: readonly [on: number, off: number];
}

export function drawRule(
  { doc }: Paper,
  { weight, shade = 0, dash }: Rule,
  [x1, y1, x2, y2]: readonly [x1: number, y1: number, x2: number, y2: number],
): void {
  doc.save().lineWidth(weight).strokeColor(grey(shade));
  if (dash) doc.dash(dash[0], { space: dash[1] });
  doc.moveTo(x1, y1).lineTo(x2, y2).stroke().restore();
}

const FOOT: Style = { face: "regular", size: 7.5 };

/** Says on each page of what it is, when it was made, and which of how many it is. Ends the paper. */
export function finish(paper: Paper, { title, printedAt }: About): Promise<Uint8Array> {
  const { doc } = paper;
  const { count } = doc.bufferedPageRange();
  const y = A4.height - 34;
  for (let page = 0; page < count; page++) {
    doc.switchToPage(page);
    const right = `${printedAt.toISOString().slice(0, 10)}  ·  page ${page + 1} of ${count}`;
    const width = widthOf(paper, right, FOOT);
    const [line = ""] = linesOf(paper, title, FOOT, WIDTH - width - 20);
    drawRule(paper, { weight: 0.4 }, [LEFT, y - 5, LEFT + WIDTH, y - 5]);
    setLine(paper, line, FOOT, { x: LEFT, y });
    setLine(paper, right, FOOT, { x: LEFT + WIDTH - width, y });
  }
  return new Promise((settle, reject) => {
    const pieces: Buffer[] = [];
    doc.on("data", (piece: Buffer) => pieces.push(piece));
    doc.on("end", () => settle(new Uint8Array(Buffer.concat(pieces))));
    doc.on("error", reject);
    doc.end();
  });
}
