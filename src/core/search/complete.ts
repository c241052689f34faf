import { FIELDS, FIELD_NAMES, type Field } from "./fields";
import { openField } from "./written";
import { fold, wordsOf } from "../names/words";

/** A way to go on with what is being typed. */
export interface Completion {
  /** The whole text as it would then stand. */
  readonly text: string;
  readonly label: string;
  /** What it is, or how many have it. */
  readonly aside: string;
  /** Of a value: the hand is within a field. Of a field's name: it may as well be a word. */
  readonly of: "value" | "field";
}

/** As a hand would write it. */
const asPhrase = (value: string): string => `"${value.replaceAll('"', "")}"`;

type Counts = Readonly<Partial<Record<string, readonly { readonly value: string; readonly n: number }[]>>>;

const MOST = 7;

function valuesOf(field: Field, begun: string, counts: Counts) {
  const sought = wordsOf(begun);
  return (counts[field] ?? []).filter(({ value }) => {
    if (fold(value) === fold(begun)) return false;
    const words = wordsOf(value);
    return sought.every((s) => words.some((w) => w.startsWith(s)));
  });
}

/**
 * How the text in the field may go on at its end: with a value of the field that is being typed, of those in what is
 * listed, or with the name of a field.
 */
export function completionsOf(text: string, counts: Counts): readonly Completion[] {
  const open = openField(text);
  if (open)
    return valuesOf(open.field, open.begun, counts)
      .slice(0, MOST)
      .map(({ value, n }) => ({
        text: `${text.slice(0, open.from)}${asPhrase(value)} `,
        label: value,
        aside: String(n),
        of: "value",
      }));
  const begun = /(?:^|\s)-?(\p{L}{2,})$/u.exec(text)?.[1]?.toLowerCase();
  if (begun === undefined) return [];
  return FIELD_NAMES.filter((field) => field.startsWith(begun)).map((field) => ({
    text: `${text.slice(0, text.length - begun.length)}${field}:`,
    label: `${field}:`,
    aside: FIELDS[field],
    of: "field",
  }));
}
