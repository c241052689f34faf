import { areBegun, fold, wordsOf } from "../names/words";
import { PART } from "../strips/parts";
import type { About } from "./about";

/*
 * The history of a project is narrowed by words: "level of Cello", "applied presets", "since yesterday", "on 2026-11-24 reverb". What
 * says when is taken out of them; every other word must begin one of those that tell of a change.
 */

export interface Narrowed {
  /** Folded. */
  readonly words: readonly string[];
  /** From this moment on; null for from the beginning. */
  readonly since: Date | null;
  /** Before this moment; null for up to now. */
  readonly until: Date | null;
}

/** Words that join others, and say nothing. */
const JOINING: ReadonlySet<string> = new Set(["of", "the", "in", "on", "to", "a"]);

/** What is written, by what it is cut into: a dash, a colon and letters of any script belong to a word. */
const TOKENS = /[^\s,]+/gu;

/** Reads what was typed; `now` says what "yesterday" is. Law: every text is read, and of no words everything is left. */
export function readNarrowing(text: string, now: Date): Narrowed {
  const tokens = text.match(TOKENS) ?? [];
  const rest: string[] = [];
  let [since, until]: [Date | null, Date | null] = [null, null];
  for (let at = 0; at < tokens.length; ) {
    const when = readWhen(tokens.slice(at).map(fold), now);
    if (when) {
      since = latest(since, when.since);
      until = earliest(until, when.until);
      at += when.length;
    } else rest.push(tokens[at++]!);
  }
  return { words: wordsOf(rest.join(" ")).filter((word) => !JOINING.has(word)), since, until };
}

const latest = (a: Date | null, b: Date | null): Date | null => (a && b ? (a > b ? a : b) : (a ?? b));
const earliest = (a: Date | null, b: Date | null): Date | null => (a && b ? (a < b ? a : b) : (a ?? b));

interface Stretch {
  readonly since: Date | null;
  readonly until: Date | null;
}

interface When extends Stretch {
  /** How many words said so. */
  readonly length: number;
}

/** "today", "since yesterday", "since 14:30", "before 2026-11-20", "on 2026-11-24"; null where the first word says nothing of it. */
function readWhen([first = "", second]: readonly string[], now: Date): When | null {
  const plain = dayIn(first, now);
  // A clock time by itself may be a name.
  if (plain) return { ...plain, length: 1 };
  const joined = second === undefined ? null : (dayIn(second, now) ?? timeIn(second, now));
  if (!joined) return null;
  switch (first) {
    case "since":
    case "after":
      return { since: joined.since, until: null, length: 2 };
    case "before":
    case "until":
      return { since: null, until: joined.since, length: 2 };
    case "on":
      return { ...joined, length: 2 };
    default:
      return null;
  }
}

const startOfDay = (date: Date, offset = 0): Date =>
  new Date(date.getFullYear(), date.getMonth(), date.getDate() + offset);

const WEEKDAYS = ["sunday", "monday", "tuesday", "wednesday", "thursday", "friday", "saturday"];

const oneDay = (date: Date): Stretch => ({ since: startOfDay(date), until: startOfDay(date, 1) });

/** "today", "yesterday", "monday" (the last one that was), "2026-11-24". */
function dayIn(word: string, now: Date): Stretch | null {
  if (word === "today") return oneDay(now);
  if (word === "yesterday") return oneDay(startOfDay(now, -1));
  const weekday = WEEKDAYS.indexOf(word);
  if (weekday >= 0) return oneDay(startOfDay(now, -((now.getDay() - weekday + 7) % 7 || 7)));
  const [, year, month, day] = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(word) ?? [];
  if (year === undefined) return null;
  const date = new Date(Number(year), Number(month) - 1, Number(day));
  // The 31st of February is no day.
  return date.getDate() === Number(day) && date.getMonth() === Number(month) - 1 ? oneDay(date) : null;
}

/** "14:30", of today. */
function timeIn(word: string, now: Date): Stretch | null {
  const [, hours, minutes] = /^(\d{1,2}):(\d{2})$/.exec(word) ?? [];
  if (hours === undefined || Number(hours) > 23 || Number(minutes) > 59) return null;
  const today = startOfDay(now);
  return {
    since: new Date(today.getFullYear(), today.getMonth(), today.getDate(), Number(hours), Number(minutes)),
    until: null,
  };
}

interface Told {
  readonly at: Date;
  readonly label: string;
  readonly about: About;
}

/** Much is done again and again to the same: its words are made once. */
const WORDS = new WeakMap<About, Map<string, readonly string[]>>();

function toldOf(told: Told): readonly string[] {
  const { about, label } = told;
  const known = WORDS.get(about) ?? new Map<string, readonly string[]>();
  WORDS.set(about, known);
  const words = known.get(label) ?? wordsTold(told);
  known.set(label, words);
  return words;
}

/** All by which a change is found: its words, its strips, the titles of its parts, the presets that it brought in. */
const wordsTold = ({ label, about: { strips, parts, presets } }: Told): readonly string[] =>
  wordsOf(
    [
      label,
      ...strips.map(({ name }) => name),
      ...parts.map((part) => PART[part].title),
      ...(presets.length > 0 ? ["applied presets", ...presets] : []),
    ].join(" "),
  );

/** Whether a change is one of those that are looked for. */
export const isWithin = ({ words, since, until }: Narrowed, told: Told): boolean =>
  (since === null || told.at >= since) &&
  (until === null || told.at < until) &&
  (words.length === 0 || areBegun(words, toldOf(told)));
