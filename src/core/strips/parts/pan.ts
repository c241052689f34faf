import type { z } from "zod";
import { formatPan } from "../../units/format";
import { part } from "./part";
import type { PanSchema } from "./schemas";

export type Pan = Readonly<z.infer<typeof PanSchema>>;

export const describePan = ({ pan, width }: Pan): string =>
  width === 100 ? formatPan(pan) : `${formatPan(pan)}, width ${width} %`;

export const PAN = part<Pan>({
  title: "Pan",
  phrase: "the pan",
  empty: () => ({ pan: 0, width: 100 }),
  isOneValue: true,
  words: describePan,
  change: (from, to) => `pan ${describePan(from)} → ${describePan(to)}`,
});
