import type { Field } from "./fields";

/* Numbers and days in the language of the field: one, from there on, a stretch. */

/** From `least` to `most`, both within; `apart` where neither is. */
export interface Span {
  readonly is: "within";
  readonly least: number;
  readonly most: number;
  readonly apart?: boolean;
}

const ENDLESS = Number.POSITIVE_INFINITY;

type Bounds = readonly [least: number, most: number];

/** What is written, from the least to the most that it may mean: of a month all its days. Null for what is no such thing. */
type Read = (text: string) => Bounds | null;

/** A comma stands between two values. */
const NUMBER = /^[-−]?\d+(?:\.\d+)?$/u;

function numberIn(text: string): number | null {
  return NUMBER.test(text) ? Number(text.replace("−", "-")) : null;
}

/** A number with one of some units behind it, or with none: in the first of them. */
const quantity =
  (units: Readonly<Record<string, number>>): Read =>
  (text) => {
    const found = /^([-−]?[\d.]+)\s*(\p{L}*)$/u.exec(text);
    const value = numberIn(found?.[1] ?? "");
    const unit = found?.[2] === "" ? 1 : units[found?.[2]?.toLowerCase() ?? ""];
    return value === null || unit === undefined ? null : [value * unit, value * unit];
  };

const whole: Read = (text) => (/^\d{1,4}$/.test(text) ? [Number(text), Number(text)] : null);

/** A day as a number that is in order as days are: 2026-11-24 is 20261124. */
export const dayNumber = (day: string): number => Number(day.replaceAll("-", ""));

/** A year, a month or a day. */
const day: Read = (text) => {
  const found = /^(\d{4})(?:-(\d{1,2}))?(?:-(\d{1,2}))?$/.exec(text);
  if (!found) return null;
  const [year = "", month, date] = found.slice(1);
  const least = `${year}${(month ?? "0").padStart(2, "0")}${(date ?? "0").padStart(2, "0")}`;
  const most = `${year}${(month ?? "99").padStart(2, "0")}${(date ?? "99").padStart(2, "0")}`;
  return [Number(least), Number(most)];
};

const MEASURED = {
  rating: whole,
  year: whole,
  saved: day,
  loudness: quantity({ lufs: 1, lu: 1, db: 1 }),
  decay: quantity({ s: 1, ms: 0.001 }),
  tempo: quantity({ bpm: 1 }),
} as const satisfies Partial<Record<Field, Read>>;

type MeasuredField = keyof typeof MEASURED;

export const isMeasured = (field: Field): field is MeasuredField => Object.hasOwn(MEASURED, field);

/** What is stored of such a field, as a number to be held against a span. */
export const measureOf = (text: string): number => Number(text.includes("-", 1) ? dayNumber(text) : text);

const span = (least: number, most: number): Span => ({ is: "within", least, most });

/** What each sign of a comparison leaves of what is written behind it. */
const COMPARED: Readonly<Record<string, (bounds: Bounds) => Span>> = {
  ">": ([, most]) => ({ ...span(most, ENDLESS), apart: true }),
  "<": ([least]) => ({ ...span(-ENDLESS, least), apart: true }),
  ">=": ([least]) => span(least, ENDLESS),
  "≥": ([least]) => span(least, ENDLESS),
  "<=": ([, most]) => span(-ENDLESS, most),
  "≤": ([, most]) => span(-ENDLESS, most),
  "+": ([least]) => span(least, ENDLESS),
};

/** "2..4", "..4", "4.."; null for what has an end that cannot be read, and for none at all. */
function readStretch(read: Read, from: string, to: string): Span | null {
  if (from + to === "") return null;
  const [least, most] = [from === "" ? [-ENDLESS, 0] : read(from), to === "" ? [0, ENDLESS] : read(to)];
  return least && most ? span(least[0], most[1]) : null;
}

/** "4", "4+", ">=4", "<4"; null for what is none of them. */
function readCompared(read: Read, text: string): Span | null {
  const [, before = "", value = "", behind = ""] = /^([<>]=?|[≤≥])?\s*(.*?)(\+)?$/u.exec(text) ?? [];
  const bounds = before !== "" && behind !== "" ? null : read(value.trim());
  return bounds && (COMPARED[before + behind]?.(bounds) ?? span(...bounds));
}

/** A number or a day, compared or not, or a stretch; null for what is none of them. */
export function readSpan(field: MeasuredField, text: string): Span | null {
  const read = MEASURED[field];
  const [, from, to] = /^(.*?)(?:\.\.|…)(.*)$/u.exec(text) ?? [];
  return from === undefined || to === undefined ? readCompared(read, text) : readStretch(read, from.trim(), to.trim());
}

export const isWithin = (value: number, { least, most, apart = false }: Span): boolean =>
  apart ? value > least && value < most : value >= least && value <= most;
