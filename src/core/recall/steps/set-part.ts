import equal from "fast-deep-equal";
import { findStrip } from "../../projects/project";
import { fail, ok } from "../../result";
import { PART, type PartName, type PartValues } from "../../strips/parts";
import type { Part } from "../../strips/parts/part";
import { changeStrip, stepKind, surroundingsOf } from "./step-kind";

/** Parts that are set as a whole; inserts are a chain, and sends a list, which change in finer steps. */
export type WholePart = Exclude<PartName, "inserts" | "sends">;

export type SetPart = {
  [N in WholePart]: {
    readonly id: string;
    readonly kind: "setPart";
    readonly strip: string;
    readonly part: N;
    readonly from: PartValues[N];
    readonly to: PartValues[N];
  };
}[WholePart];

/** The compiler cannot see that the values of a step are those of its part; here is the one place that says so. */
const recordOf = ({ part }: SetPart) => PART[part] as Part<unknown>;

/** One part of a strip, as a whole. */
export const SET_PART = stepKind<SetPart>({
  cell: ({ strip, part }) => ({ strip, part }),
  apply: (project, { strip: id, part, from, to }) =>
    changeStrip(project, id, (strip) =>
      equal(strip[part], from) ? ok({ ...strip, [part]: to }) : fail({ why: "changed", what: PART[part].phrase }),
    ),
  words: (given, project) => {
    const strip = findStrip(project, given.strip);
    return strip ? recordOf(given).change(given.from, given.to, surroundingsOf(project, strip)) : "changes";
  },
  brings: (given) => recordOf(given).presets(given.to),
  complete: (given) => ({ ...given, to: recordOf(given).complete(given.to) }) as SetPart,
  isOneValue: (given) => recordOf(given).isOneValue,
});
