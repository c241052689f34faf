import { fold } from "../names/words";
import { PATTERN_FIELDS, type PatternField } from "./pattern";
import { NUMBER_OPTIONS, TEXT_OPTIONS } from "./pattern-options";

/** A way to go on with a field that is being typed. */
interface Offer {
  /** How it is written. */
  readonly label: string;
  readonly meaning: string;
  /** What stands between `from` and `to` of the pattern once it is taken; the hand goes on behind it. */
  readonly insert: string;
  /** The field as it would be, to show what it gives; null where the hand has yet to say something. */
  readonly shows: string | null;
}

export interface PatternHelp {
  readonly from: number;
  readonly to: number;
  readonly offers: readonly Offer[];
}

/** Where the hand has something to give. */
const GAP = "…";

/** What follows the hand in the same braces: its letters, and whether they are closed. */
const restOf = (behind: string) => {
  const rest = /^[^{},:]*/.exec(behind)?.[0] ?? "";
  return { length: rest.length, isClosed: behind[rest.length] === "}", goesOn: /[,:]/.test(behind[rest.length] ?? "") };
};

const beginsWith = (label: string, begun: string): boolean => fold(label).startsWith(fold(begun));

/** What a pattern can go on with at the hand; null where that is not between braces. */
export function patternHelp(pattern: string, hand: number): PatternHelp | null {
  const open = pattern.slice(0, hand).lastIndexOf("{");
  const inside = pattern.slice(open + 1, hand);
  if (open < 0 || inside.includes("}")) return null;
  const rest = restOf(pattern.slice(hand));
  const colon = inside.indexOf(":");
  const close = rest.isClosed || rest.goesOn ? "" : "}";
  if (colon < 0) {
    const offers = Object.entries(PATTERN_FIELDS)
      .filter(([field]) => beginsWith(field, inside))
      .map(([field, meaning]) => ({ label: field, meaning, insert: field + close, shows: `{${field}}` }));
    return { from: open + 1, to: hand + rest.length, offers };
  }
  const field = inside.slice(0, colon);
  if (!Object.hasOwn(PATTERN_FIELDS, field)) return null;
  const before = Math.max(colon, inside.lastIndexOf(","));
  const begun = inside.slice(before + 1).trimStart();
  const from = hand - begun.length;
  const asked = pattern.slice(open, from);
  const offers = Object.entries(optionsOf(field as PatternField))
    .filter(([label]) => beginsWith(label, begun))
    .map(([label, meaning]) => {
      const [words = ""] = label.split(GAP);
      const isWhole = !label.includes(GAP);
      return isWhole
        ? { label, meaning, insert: label + close, shows: `${asked}${label}}` }
        : { label, meaning, insert: words, shows: null };
    });
  return { from, to: hand + rest.length, offers };
}

const optionsOf = (field: PatternField): Readonly<Record<string, string>> =>
  field === "number" ? NUMBER_OPTIONS : TEXT_OPTIONS;
