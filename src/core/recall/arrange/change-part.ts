import equal from "fast-deep-equal";
import { PART, type PartName, type PartValues } from "../../strips/parts";
import type { Strip } from "../../strips/strip";
import { sendsBetween } from "../sends-between";
import type { Step } from "../steps";

/** The steps that give a strip another value of a part; none where it is the same. A chain is set as a whole. */
export function changePart<N extends PartName>(
  strip: Strip,
  part: N,
  to: PartValues[N],
  mint: () => string,
): readonly Step[] {
  const from: PartValues[N] = strip[part];
  if (equal(from, to)) return [];
  if (part === "sends") {
    const then = to as PartValues["sends"];
    return sendsBetween({ strip: strip.id, now: strip.sends, then, mint });
  }
  const step =
    part === "inserts"
      ? { id: mint(), kind: "setChain", strip: strip.id, from, to }
      : { id: mint(), kind: "setPart", strip: strip.id, part, from, to };
  return [step as Step];
}

/** The same change of a part on several strips; those that cannot have it stay as they are. */
export const changeParts = <N extends PartName>(
  strips: readonly Strip[],
  part: N,
  change: (value: PartValues[N], strip: Strip) => PartValues[N],
  mint: () => string,
): readonly Step[] =>
  strips.flatMap((strip) =>
    PART[part].misfit(strip.kind) === null ? changePart(strip, part, change(strip[part], strip), mint) : [],
  );
