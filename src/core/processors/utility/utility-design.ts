import type { HeardValues, ParamId } from "../../units/param-spec";

/** What is drawn of a utility. */
export type UtilityPicture =
  /** The gain in dB, which side has its polarity turned, and whether they change places. */
  | {
      readonly kind: "sides";
      readonly gain: number;
      readonly turned: readonly [boolean, boolean];
      readonly swapped: boolean;
    }
  /** How wide the sound is, 0 to 2, and how far it leans, −1 to 1. */
  | { readonly kind: "fan"; readonly width: number; readonly lean: number }
  /** A place on a scale, 0 to 1. */
  | { readonly kind: "scale"; readonly place: number };

export interface UtilityDesign<Id extends ParamId = ParamId> {
  picture(values: HeardValues<Id>): UtilityPicture;
}
