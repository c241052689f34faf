import { INSERTS } from "./inserts";
import { LEVEL } from "./level";
import { LOOK } from "./look";
import { MEDIA } from "./media";
import { PAN } from "./pan";
import type { Part } from "./part";
import { ROUTING } from "./routing";
import { SENDS } from "./sends";
import { SOURCE } from "./source";

/** Every part that a strip has, that can be saved and applied, in the order of the columns. */
const RECORDS = {
  source: SOURCE,
  inserts: INSERTS,
  sends: SENDS,
  level: LEVEL,
  pan: PAN,
  routing: ROUTING,
  look: LOOK,
  media: MEDIA,
};

export type PartName = keyof typeof RECORDS;
/** What a strip holds of each part. */
export type PartValues = { [N in PartName]: (typeof RECORDS)[N] extends Part<infer V> ? V : never };

export const PART: { readonly [N in PartName]: Part<PartValues[N]> } = RECORDS;

export const PARTS = Object.keys(RECORDS) as unknown as readonly [PartName, ...PartName[]];

type ValuesOf<N extends PartName> = { readonly [P in N]?: PartValues[P] | undefined };

/**
 * Calls with the record of each part that a strip, or a saved one, has, and with what it has of it. The compiler cannot see
 * that the two belong together; here is the one place that says so.
 */
export function eachPart<T>(
  values: ValuesOf<PartName>,
  call: <V>(name: PartName, record: Part<V>, value: V) => T,
): readonly T[] {
  return PARTS.flatMap((name) => {
    const value = values[name];
    return value === undefined ? [] : [call(name, PART[name] as Part<unknown>, value)];
  });
}
