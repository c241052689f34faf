import { type Model, designOf } from "../processors/model";
import type { UtilityPicture } from "../processors/utility/utility-design";
import type { HeardValues } from "../units/param-spec";
import { type Box, type Point, lineOf, pathOf } from "./axes";
import type { Mark } from "./mark";

type Of<K extends UtilityPicture["kind"]> = Extract<UtilityPicture, { kind: K }>;

/** dB from the middle to the edge of a gain's picture. */
const GAIN_RANGE = 36;

/** A bar for each side: up is louder, hollow where the polarity is turned; crossed lines where the sides are swapped. */
function sidesMarks({ gain, turned, swapped }: Of<"sides">, box: Box): readonly Mark[] {
  const middle = box.height / 2;
  const y = middle - (gain / GAIN_RANGE) * (middle - 2);
  const [left, right] = [box.width * 0.34, box.width * 0.66];
  const half = Math.min(8, box.width / 9);
  const bar = (x: number, isTurned: boolean): string => {
    const top = lineOf([x - half, y], [x + half, y]);
    return isTurned ? `${top}${lineOf([x - half, box.height - 2], [x + half, 2])}` : top + lineOf([x, middle], [x, y]);
  };
  return [
    { kind: "axis", path: lineOf([0, middle], [box.width, middle]) },
    {
      kind: "faint",
      path: swapped ? lineOf([left, 3], [right, box.height - 3]) + lineOf([right, 3], [left, box.height - 3]) : "",
    },
    { kind: "line", path: bar(left, turned[0]) + bar(right, turned[1]) },
  ];
}

/** A fan as wide as the sound, leaning with the balance. */
function fanMarks({ width, lean }: Of<"fan">, box: Box): readonly Mark[] {
  const foot: Point = [box.width / 2, box.height - 2];
  const reach = box.height - 5;
  const angle = lean * (Math.PI / 5);
  const spread = (width / 2) * (Math.PI / 2.4);
  const at = (to: number): Point => [
    foot[0] + Math.sin(to) * reach * Math.min(1.6, box.width / (2 * reach)),
    foot[1] - Math.cos(to) * reach,
  ];
  const arc = Array.from({ length: 17 }, (_, i) => at(angle - spread + (i / 16) * 2 * spread));
  const path = pathOf([foot, ...arc, foot]);
  return [
    { kind: "axis", path: lineOf(foot, [foot[0], 2]) },
    { kind: "area", path: `${path}Z` },
    { kind: "line", path },
  ];
}

/** A scale with a mark on it. */
function scaleMarks({ place }: Of<"scale">, box: Box): readonly Mark[] {
  const ticks = Array.from({ length: 11 }, (_, i) => {
    const x = 3 + (i / 10) * (box.width - 6);
    return lineOf([x, box.height - 3], [x, box.height - (i % 5 === 0 ? 11 : 7)]);
  });
  const x = 3 + place * (box.width - 6);
  return [
    { kind: "axis", path: ticks.join("") },
    { kind: "line", path: lineOf([x, box.height - 3], [x, 4]) },
  ];
}

export function utilityMarks(model: Model, values: HeardValues, box: Box): readonly Mark[] {
  const picture = designOf(model, "utility").picture(values);
  switch (picture.kind) {
    case "sides":
      return sidesMarks(picture, box);
    case "fan":
      return fanMarks(picture, box);
    case "scale":
      return scaleMarks(picture, box);
  }
}
