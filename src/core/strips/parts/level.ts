import type { z } from "zod";
import { formatLevel } from "../../units/format";
import { FADER } from "../params";
import { part } from "./part";
import type { LevelSchema } from "./schemas";

export type Level = Readonly<z.infer<typeof LevelSchema>>;

/** "−6.0, muted", for where the unit stands over the column. */
export const formatFader = ({ fader, mute }: Level): string =>
  `${formatLevel(fader, FADER.min)}${mute ? ", muted" : ""}`;

/** "−6.0 dB, muted". */
export const describeLevel = ({ fader, mute }: Level): string =>
  `${formatLevel(fader, FADER.min)} dB${mute ? ", muted" : ""}`;

export const LEVEL = part<Level>({
  title: "Level",
  phrase: "the level",
  empty: () => ({ fader: 0, mute: false }),
  isOneValue: true,
  words: describeLevel,
  change: (from, to) => `level ${formatFader(from)} → ${describeLevel(to)}`,
});
