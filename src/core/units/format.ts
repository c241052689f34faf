import { type ParamSpec, type Unit, type Value, clampTo } from "./param-spec";
import { type Result, fail, ok } from "../result";
import { beatsOf, findNoteLength, formatNoteLength, isNoteLength } from "./note-length";
import { type BeatsPerMinute, millisecondsOf } from "./quantities";

/** A number as it stands on screen: the digits, and the unit that is set lighter beside them. */
export interface Written {
  readonly text: string;
  readonly unit: string;
}

const MINUS = "\u2212";
const SILENT = `${MINUS}∞`;

/** A number with a true minus sign, no negative zero. */
export function formatNumber(value: number, decimals: number): string {
  const text = Math.abs(value).toFixed(decimals);
  return value < 0 && Number(text) !== 0 ? `${MINUS}${text}` : text;
}

const signed = (value: number, decimals: number): string => {
  const text = formatNumber(value, decimals);
  return value > 0 && Number(text) !== 0 ? `+${text}` : text;
};

/** Three figures at the most, so that a column of them stays narrow. */
const figures = (value: number): string => {
  const size = Math.abs(value);
  return formatNumber(value, size >= 99.95 ? 0 : size >= 9.995 ? 1 : 2);
};

const trimmed = (text: string): string => (text.includes(".") ? text.replace(/\.?0+$/, "") : text);

const FORMATS: Record<Unit, (value: number) => Written> = {
  dB: (v) => ({ text: formatNumber(v, 1), unit: "dB" }),
  Hz: (v) =>
    v >= 999.5 ? { text: trimmed(figures(v / 1000)), unit: "kHz" } : { text: trimmed(figures(v)), unit: "Hz" },
  ms: (v) => ({ text: trimmed(figures(v)), unit: "ms" }),
  s: (v) => ({ text: trimmed(figures(v)), unit: "s" }),
  "%": (v) => ({ text: trimmed(formatNumber(v, 1)), unit: "%" }),
  ":1": (v) => ({ text: formatNumber(v, 1), unit: ":1" }),
  Q: (v) => ({ text: formatNumber(v, 2), unit: "" }),
  "dB/oct": (v) => ({ text: formatNumber(v, 0), unit: "dB/oct" }),
  pan: (v) => ({ text: formatPan(v), unit: "" }),
  "": (v) => ({ text: trimmed(formatNumber(v, 2)), unit: "" }),
};

/** −100 is L 100, 0 is C, 100 is R 100. */
export function formatPan(pan: number): string {
  const amount = Math.round(Math.abs(pan));
  return amount === 0 ? "C" : `${pan < 0 ? "L" : "R"} ${amount}`;
}

/** A level in dB, with −∞ at and below `silence`. */
export const formatLevel = (level: number, silence: number): string => (level <= silence ? SILENT : signed(level, 1));

/** Writes a value of a parameter. A note length is written as such; `formatHeard` adds its milliseconds. */
export function formatValue(spec: ParamSpec, value: Value): Written {
  if (isNoteLength(value)) return { text: formatNoteLength(value), unit: "" };
  const choice = spec.choices?.find((c) => c.value === value);
  if (choice) return { text: choice.label, unit: "" };
  if (spec.silentAtMin && value <= spec.min) return { text: SILENT, unit: spec.unit };
  // A plus tells a gain from a loss: only where there can be both.
  if (spec.unit === "dB" && spec.min < 0 && spec.max > 0) return { text: signed(value, 1), unit: "dB" };
  return FORMATS[spec.unit](value);
}

/** For a value that follows the tempo: its milliseconds or hertz there; null for one that does not. */
export function formatHeard(spec: ParamSpec, value: Value, tempo: BeatsPerMinute): Written | null {
  if (!isNoteLength(value)) return null;
  const ms = millisecondsOf(beatsOf(value), tempo);
  return spec.unit === "Hz" ? FORMATS.Hz(1000 / ms) : FORMATS.ms(ms);
}

export const formatPlain = (spec: ParamSpec, value: Value): string => {
  const { text, unit } = formatValue(spec, value);
  return unit === "" || unit === ":1" ? text + unit : `${text} ${unit}`;
};

const FACTORS: Record<string, Partial<Record<Unit, number>>> = {
  k: { Hz: 1000, "": 1000 },
  khz: { Hz: 1000 },
  hz: { Hz: 1 },
  s: { ms: 1000, s: 1 },
  ms: { ms: 1, s: 0.001 },
  db: { dB: 1 },
  "%": { "%": 1 },
  ":1": { ":1": 1 },
  "db/oct": { "dB/oct": 1 },
};

/** "L 30", "30 L", "R", "C". */
function parsePan(text: string): number | null {
  const match = /^(?:(c)|(?:([lr])\s*(\d+(?:\.\d+)?)?)|(?:(\d+(?:\.\d+)?)\s*([lr])))$/.exec(text);
  if (!match) return null;
  if (match[1]) return 0;
  return ((match[2] ?? match[5]) === "l" ? -1 : 1) * Number(match[3] ?? match[4] ?? 100);
}

const SEMITONES: Record<string, number> = { c: 0, d: 2, e: 4, f: 5, g: 7, a: 9, b: 11 };

/** The frequency of a note of the equally tempered scale by its name, in hertz: a4 is 440, c4 the one in the middle. */
function parseNote(text: string): number | null {
  const match = /^([a-g])([#♯b♭]?)\s*(-?\d)$/.exec(text);
  const above = SEMITONES[match?.[1] ?? ""];
  if (!match || above === undefined) return null;
  const sign = match[2] === "" ? 0 : /[#♯]/.test(match[2] ?? "") ? 1 : -1;
  return 440 * 2 ** ((above + sign - 9 + 12 * (Number(match[3]) - 4)) / 12);
}

function parseQuantity(spec: ParamSpec, text: string): number | null {
  // "1k2", "2s5": the unit in the place of the point.
  const within = /^([+-]?\d+)(k|s)(\d+)$/.exec(text);
  const match = within
    ? ["", `${within[1]}.${within[3]}`, within[2]]
    : /^([+-]?(?:\d+\.?\d*|\.\d+))\s*([a-z%:/1]*)$/.exec(text);
  if (!match) return null;
  const factor = match[2] ? FACTORS[match[2]]?.[spec.unit] : 1;
  return factor === undefined ? null : Number(match[1]) * factor;
}

const oneOf = ({ name, choices = [] }: ParamSpec): string =>
  `${name} is one of ${choices.map((c) => c.label).join(", ")}.`;

function parseChoice(spec: ParamSpec, text: string): Result<Value, string> | null {
  const choice = spec.choices?.find((c) => c.label.toLowerCase() === text);
  if (choice) return ok(choice.value);
  // Slopes are choices that are numbers: those may be typed as such.
  if (!spec.choices || spec.unit !== "") return null;
  return fail(oneOf(spec));
}

/** What reads as the end of the range is the end: half a figure beyond it, or below where it is silent. */
function settle(spec: ParamSpec, number: number, typed: string): Result<Value, string> {
  if (spec.choices) return spec.choices.some((c) => c.value === number) ? ok(number) : fail(oneOf(spec));
  const end = clampTo(spec, number);
  if (end === number || formatPlain(spec, end) === formatPlain(spec, number)) return ok(end);
  const [from, to] = [formatPlain(spec, spec.min), formatPlain(spec, spec.max)];
  return fail(`${typed} is out of range: ${spec.name} goes from ${from} to ${to}.`);
}

const SILENCE = /^(-(inf|∞)( db)?|off)$/;

/**
 * Reads what a person typed for a parameter: "1.5k", "1k2", "A4", "−3", "2:1", "L 30", "1/8 dotted", "-inf", "off". What is
 * not understood or out of range is refused. The error is a sentence, with the range or an example.
 */
export function parseValue(spec: ParamSpec, typed: string): Result<Value, string> {
  const text = typed
    .trim()
    .toLowerCase()
    .replaceAll(MINUS, "-")
    .replace(/(\d),(\d)/, "$1.$2");
  const choice = parseChoice(spec, text);
  if (choice) return choice;
  const note = spec.mayFollowTempo ? findNoteLength(text) : null;
  if (note) return ok(note);
  if (spec.silentAtMin && SILENCE.test(text)) return ok(spec.min);
  const number =
    (spec.unit === "pan" ? parsePan(text) : null) ??
    (spec.unit === "Hz" ? parseNote(text) : null) ??
    parseQuantity(spec, text);
  return number === null
    ? fail(`“${typed.trim()}” is not a value for ${spec.name}; try ${formatPlain(spec, spec.default)}.`)
    : settle(spec, number, typed.trim());
}
