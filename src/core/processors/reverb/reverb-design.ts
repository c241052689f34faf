import type { HeardValues, ParamId } from "../../units/param-spec";

/** How a space fades, as it is drawn. */
export interface ReverbDesign<Id extends ParamId = ParamId> {
  /** Seconds until a frequency in Hz has fallen by 60 dB. */
  decay(values: HeardValues<Id>, sampleRate: number): (freq: number) => number;
}
