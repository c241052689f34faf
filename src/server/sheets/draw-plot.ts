import type { SheetPlot } from "@/core/sheets/sheet";
import { LEFT, type Paper, type Style, grey, setLine, widthOf } from "./paper";

const SCALE: Style = { face: "regular", size: 5.5 };

/** Left of the picture and below it, for the figures of its scale. */
const SCALE_LEFT = 24;
const SCALE_BELOW = 9;
const PICTURE = 168;

/** How wide a plot is with its figures, in points. */
export const PLOT_WIDTH = SCALE_LEFT + PICTURE;

const scaleOf = ({ box }: SheetPlot): number => PICTURE / box.width;

/** How high a plot is with its figures, in points. */
export const plotHeight = (plot: SheetPlot): number => plot.box.height * scaleOf(plot) + SCALE_BELOW;

function setFigures(paper: Paper, plot: SheetPlot): void {
  const factor = scaleOf(plot);
  const [x, y] = [LEFT + SCALE_LEFT, paper.y];
  for (const { way, at, label } of plot.scale) {
    const width = widthOf(paper, label, SCALE);
    const place =
      way === "down"
        ? { x: x + at * factor - width / 2, y: y + plot.box.height * factor + 1.5 }
        : { x: x - width - 3, y: y + at * factor - SCALE.size * 0.7 };
    setLine(paper, label, SCALE, place);
  }
}

interface Stroke {
  /** In points on paper. */
  readonly weight: number;
  readonly shade: number;
}

/** What is drawn thinner and lighter is read second. */
const STROKES: Record<"scale" | "axis" | "faint" | "line", Stroke> = {
  scale: { weight: 0.4, shade: 0.7 },
  axis: { weight: 0.4, shade: 0.35 },
  faint: { weight: 0.7, shade: 0.35 },
  line: { weight: 1.3, shade: 0 },
};
const AREA_SHADE = 0.9;

/** A plot at the place on the page, with its figures left of it and below. What is off is drawn in dashes. */
export function drawPlot(paper: Paper, plot: SheetPlot, isOff: boolean): void {
  setFigures(paper, plot);
  const { doc } = paper;
  const { box, marks, scale } = plot;
  const factor = scaleOf(plot);
  const pathsOf = (wanted: string) => marks.flatMap(({ kind, path }) => (kind === wanted && path !== "" ? [path] : []));
  const take = (stroke: keyof typeof STROKES) => {
    const { weight, shade } = STROKES[stroke];
    doc.lineWidth(weight / factor).strokeColor(grey(shade));
  };
  doc
    .save()
    .translate(LEFT + SCALE_LEFT, paper.y)
    .scale(factor);
  doc.save().rect(0, 0, box.width, box.height).clip();
  for (const path of pathsOf("area")) doc.path(path).fill(grey(AREA_SHADE));
  take("scale");
  for (const { way, at } of scale)
    if (way === "down") doc.moveTo(at, 0).lineTo(at, box.height).stroke();
    else doc.moveTo(0, at).lineTo(box.width, at).stroke();
  for (const kind of ["axis", "faint", "line"] as const) {
    take(kind);
    if (kind === "line" && isOff) doc.dash(3, { space: 2 });
    for (const path of pathsOf(kind)) doc.path(path).stroke();
  }
  doc.restore();
  doc.lineWidth(0.5 / factor).strokeColor(grey(0));
  doc.rect(0, 0, box.width, box.height).stroke();
  doc.restore();
}
