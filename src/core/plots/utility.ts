import type { HeardValues, Model } from "../processors/model";
import { type Box, type Point, lineOf, pathOf } from "./axes";
import type { Mark } from "./mark";

/** dB from the middle to the edge of a gain's picture. */
const GAIN_RANGE = 36;

/** A bar for each side: up is louder, hollow where the polarity is turned; crossed lines where the sides are swapped. */
function gainMarks({ gain = 0, polarity = 0, swap = 0 }: HeardValues, box: Box): readonly Mark[] {
  const middle = box.height / 2;
  const y = middle - (gain / GAIN_RANGE) * (middle - 2);
  const [left, right] = [box.width * 0.34, box.width * 0.66];
  const half = Math.min(8, box.width / 9);
  const turned = [polarity === 1 || polarity === 3, polarity === 2 || polarity === 3];
  const bar = (x: number, isTurned: boolean | undefined): string => {
    const top = lineOf([x - half, y], [x + half, y]);
    return isTurned ? `${top}${lineOf([x - half, box.height - 2], [x + half, 2])}` : top + lineOf([x, middle], [x, y]);
  };
  return [
    { kind: "axis", path: lineOf([0, middle], [box.width, middle]) },
    {
      kind: "faint",
      path: swap === 1 ? lineOf([left, 3], [right, box.height - 3]) + lineOf([right, 3], [left, box.height - 3]) : "",
    },
    { kind: "line", path: bar(left, turned[0]) + bar(right, turned[1]) },
  ];
}

/** A fan as wide as the sound, leaning with the balance. */
function widthMarks({ width = 100, balance = 0 }: HeardValues, box: Box): readonly Mark[] {
  const foot: Point = [box.width / 2, box.height - 2];
  const reach = box.height - 5;
  const lean = (balance / 100) * (Math.PI / 5);
  const spread = (width / 200) * (Math.PI / 2.4);
  const at = (angle: number): Point => [
    foot[0] + Math.sin(angle) * reach * Math.min(1.6, box.width / (2 * reach)),
    foot[1] - Math.cos(angle) * reach,
  ];
  const arc = Array.from({ length: 17 }, (_, i) => at(lean - spread + (i / 16) * 2 * spread));
  const path = pathOf([foot, ...arc, foot]);
  return [
    { kind: "axis", path: lineOf(foot, [foot[0], 2]) },
    { kind: "area", path: `${path}Z` },
    { kind: "line", path },
  ];
}

/** A scale with a mark on it. */
function scaleMarks(share: number, box: Box): readonly Mark[] {
  const ticks = Array.from({ length: 11 }, (_, i) => {
    const x = 3 + (i / 10) * (box.width - 6);
    return lineOf([x, box.height - 3], [x, box.height - (i % 5 === 0 ? 11 : 7)]);
  });
  const x = 3 + share * (box.width - 6);
  return [
    { kind: "axis", path: ticks.join("") },
    { kind: "line", path: lineOf([x, box.height - 3], [x, 4]) },
  ];
}

const DRAWINGS: Readonly<Record<string, (values: HeardValues, box: Box) => readonly Mark[]>> = {
  gain: gainMarks,
  "stereo-width": widthMarks,
  tuner: (_, box) => scaleMarks(0.5, box),
  meter: ({ target = -18 }, box) => scaleMarks(1 + target / 36, box),
};

export const utilityMarks = (model: Model, values: HeardValues, box: Box): readonly Mark[] =>
  DRAWINGS[model.id]?.(values, box) ?? [];
