import type { HeardValues, ParamId } from "../../units/param-spec";
import { type StaticCurve, automaticMakeupOf, gainAt } from "./static-curve";

/** A transfer line as it is drawn and pulled. Levels in dB below full scale. */
export interface TransferLine {
  /** What stands beside it where there are several. */
  readonly name?: string;
  /** Output level at a steady input level, make-up left out. */
  readonly at: (level: number) => number;
  /** Where it bends. */
  readonly threshold: number;
  readonly params: { readonly threshold: ParamId; readonly ratio?: ParamId };
}

/** What a dynamics model does to a steady level, from the values that are heard. */
export interface DynamicsDesign<Id extends ParamId = ParamId> {
  lines(values: HeardValues<Id>): readonly TransferLine[];
  /** The make-up that the model adds by itself, in dB; null where it is set by hand. */
  automaticMakeup?(values: HeardValues<Id>): number | null;
}

/** One line, by the curve that a threshold and a ratio make. */
export const curveDesign = <Id extends ParamId>(
  curveOf: (values: HeardValues<Id>) => StaticCurve,
): DynamicsDesign<Id> => ({
  lines(values) {
    const curve = curveOf(values);
    return [
      {
        at: (level) => level + gainAt(curve, level),
        threshold: curve.threshold,
        params: { threshold: "threshold", ratio: "ratio" },
      },
    ];
  },
});

/** As `curveDesign`, of a model that can make up by itself for what it takes. */
export const compressorDesign = <Id extends ParamId>(
  curveOf: (values: HeardValues<Id>) => StaticCurve,
): DynamicsDesign<Id | "makeupMode"> => ({
  ...curveDesign(curveOf),
  automaticMakeup: (values) => automaticMakeupOf(values, curveOf(values)),
});
