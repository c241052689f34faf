/*
 * What a field of a pattern can be asked to do, behind a colon and set apart by commas: `{number:2, from 10, by 5}`,
 * `{song:upper, replace Live with Stage, without (take 2)}`.
 */

/** What an option does, in words, and how it is written; `…` stands for what the hand gives. */
export const TEXT_OPTIONS = {
  upper: "IN CAPITALS",
  lower: "in small letters",
  title: "With A Capital In Each Word",
  sentence: "With one capital at the beginning",
  "replace … with …": "other words in the place of some",
  "without …": "some words left out",
} as const;

export const NUMBER_OPTIONS = {
  "2": "01, 02, 03: so many digits",
  "from …": "the first number",
  "by …": "from each number to the next",
} as const;

export interface Numbering {
  readonly digits: number;
  readonly from: number;
  readonly by: number;
}

type Change = (text: string) => string;

/** Whole and in small steps: a number that is counted on for thousands still counts right. */
const NUMBER = /^(?:(?<digits>[1-9])|from (?<from>\d{1,6})|by (?<by>-?\d{1,6}))$/;

/** How a list is numbered; null where one of the options is not understood. */
export function readNumbering(options: readonly string[]): Numbering | null {
  let numbering: Numbering = { digits: 1, from: 1, by: 1 };
  for (const option of options) {
    const found = NUMBER.exec(option)?.groups;
    if (!found) return null;
    const [[name, value] = ["digits", "1"]] = Object.entries(found).filter(([, text]) => text !== undefined);
    numbering = { ...numbering, [name]: Number(value) };
  }
  return numbering;
}

/** The number of the `at`th of a list, from 1. */
export function numberAt({ digits, from, by }: Numbering, at: number): string {
  const number = from + (at - 1) * by;
  return (number < 0 ? "-" : "") + String(Math.abs(number)).padStart(digits, "0");
}

const capital = (word: string): string => {
  const [first = "", ...rest] = word;
  return first.toLocaleUpperCase("en") + rest.join("");
};

const CASES: Readonly<Record<string, Change>> = {
  upper: (text) => text.toLocaleUpperCase("en"),
  lower: (text) => text.toLocaleLowerCase("en"),
  title: (text) => text.replaceAll(/[\p{L}\p{N}][\p{L}\p{N}\p{M}'’]*/gu, capital),
  sentence: (text) => text.toLocaleLowerCase("en").replace(/[\p{L}\p{N}]/u, capital),
};

/** Each place where `old` stands, whatever its case, becomes `next`. */
function replacing(old: string, next: string): Change {
  const wanted = new RegExp(old.replaceAll(/[\\^$.*+?()[\]{}|/-]/g, String.raw`\$&`), "giu");
  return (text) => text.replaceAll(wanted, () => next);
}

function readChange(option: string): Change | null {
  if (Object.hasOwn(CASES, option)) return CASES[option]!;
  const without = /^without (?<old>.+)$/.exec(option)?.groups;
  if (without) return replacing(without.old!, "");
  const replaced = /^replace (?<old>.+?) with(?: (?<next>.*))?$/.exec(option)?.groups;
  return replaced ? replacing(replaced.old!, replaced.next ?? "") : null;
}

/** What some options make of a text, one after the other; null where one of them is not understood. */
export function readChanges(options: readonly string[]): Change | null {
  const changes = options.map(readChange);
  if (changes.some((change) => change === null)) return null;
  return (text) => changes.reduce((now, change) => change!(now), text);
}
