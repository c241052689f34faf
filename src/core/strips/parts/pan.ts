import { z } from "zod";
import { formatPan } from "../../units/format";
import { PAN as PAN_SPEC, WIDTH } from "../params";
import { part } from "./part";

const PanSchema = z.strictObject({
  pan: z.number().min(PAN_SPEC.min).max(PAN_SPEC.max),
  width: z.number().min(WIDTH.min).max(WIDTH.max),
});
export type Pan = Readonly<z.infer<typeof PanSchema>>;

export const describePan = ({ pan, width }: Pan): string =>
  width === 100 ? formatPan(pan) : `${formatPan(pan)}, width ${width} %`;

export const PAN = part<Pan>({
  title: "Pan",
  phrase: "the pan",
  schema: PanSchema,
  empty: () => ({ pan: 0, width: 100 }),
  isOneValue: true,
  words: describePan,
  change: (from, to) => `pan ${describePan(from)} → ${describePan(to)}`,
});
