import { levelGain, loopTime, tapsOf } from "../processors/delay/multitap-delay/design";
import type { HeardValues, Model } from "../processors/model";
import { type Box, lineOf } from "./axes";
import type { Mark } from "./mark";

/** Something that comes back: when in ms, how loud as a factor, and from where. */
export interface Return {
  readonly ms: number;
  readonly gain: number;
  readonly pan: number;
}

export interface DelayPicture {
  readonly taps: readonly Return[];
  /** What the feedback makes of them. */
  readonly repeats: readonly Return[];
  /** In ms: as far as the taps reach. */
  readonly reach: number;
}

/** A repeat quieter than this is not drawn. */
const FAINTEST = 0.04;
const MOST_REPEATS = 12;

const timesOver = (from: Return, every: number, factor: number): readonly Return[] =>
  every <= 0
    ? []
    : Array.from({ length: MOST_REPEATS }, (_, n) => ({
        ...from,
        ms: from.ms + (n + 1) * every,
        gain: from.gain * factor ** (n + 1),
      })).filter((r) => r.gain >= FAINTEST);

function multitapPicture(values: HeardValues): DelayPicture {
  const used = tapsOf(values).filter((t) => t.on && t.level > Number.NEGATIVE_INFINITY);
  const reach = loopTime(used);
  const taps = used.map(({ time, level, pan }) => ({ ms: time, gain: levelGain(level), pan }));
  return { taps, repeats: taps.flatMap((tap) => timesOver(tap, reach, (values.feedback ?? 0) / 100)), reach };
}

/** Crossed over, the sides take turns: left, then right after both times, and so on. */
function echoPicture({ left = 500, right = 375, cross = 0, feedback = 0 }: HeardValues): DelayPicture {
  const factor = feedback / 100;
  const reach = Math.max(left, right);
  if (cross !== 1) {
    const taps = [
      { ms: left, gain: 1, pan: -100 },
      { ms: right, gain: 1, pan: 100 },
    ];
    return { taps, repeats: [...timesOver(taps[0]!, left, factor), ...timesOver(taps[1]!, right, factor)], reach };
  }
  const taps = [
    { ms: left, gain: 1, pan: -100 },
    { ms: left + right, gain: factor, pan: 100 },
  ];
  return { taps, repeats: taps.flatMap((tap) => timesOver(tap, left + right, factor ** 2)), reach: left + right };
}

/** When what comes back, of any delay. */
export const delayPicture = (model: Model, values: HeardValues): DelayPicture =>
  model.id === "echo" ? echoPicture(values) : multitapPicture(values);

const SPANS = [250, 500, 1000, 2000, 4000];

/** The time that a delay's plot shows, in ms: a round number with room behind the last tap. */
export const delaySpan = (model: Model, values: HeardValues): number => {
  const { reach } = delayPicture(model, values);
  return SPANS.find((span) => span >= reach * 1.2) ?? Math.max(4800, reach * 1.2);
};

export const delayX = (ms: number, span: number, { width }: Box): number => 4 + (ms / span) * (width - 8);

/** A tap to the left rises, one to the right hangs, one in the centre does both. */
export function tapEnds(pan: number, gain: number, { height }: Box): readonly [top: number, bottom: number] {
  const reach = Math.min(1, gain) * (height / 2 - 3);
  const up = reach * Math.min(1, 1 - pan / 100);
  const down = reach * Math.min(1, 1 + pan / 100);
  return [height / 2 - up, height / 2 + down];
}

export function delayMarks(model: Model, values: HeardValues, box: Box): readonly Mark[] {
  const span = delaySpan(model, values);
  const stem = ({ ms, gain, pan }: Return): string => {
    if (ms > span) return "";
    const x = delayX(ms, span, box);
    const [top, bottom] = tapEnds(pan, gain, box);
    return lineOf([x, top], [x, bottom]);
  };
  const { taps, repeats } = delayPicture(model, values);
  const middle = box.height / 2;
  return [
    { kind: "axis", path: lineOf([0, middle], [box.width, middle]) },
    { kind: "faint", path: repeats.map(stem).join("") },
    { kind: "line", path: taps.map(stem).join("") },
  ];
}
