import type { HeardValues } from "../model";
import type { ParamId } from "../../units/param-spec";

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
export interface DynamicsDesign {
  readonly lines: (values: HeardValues) => readonly TransferLine[];
  /** The make-up that the model adds by itself, in dB; null where it is set by hand. */
  readonly automaticMakeup?: (values: HeardValues) => number | null;
}
