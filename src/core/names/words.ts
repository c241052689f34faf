/** Letters that are no letter with an accent, as people write them who have not got them. */
const PLAIN: Readonly<Record<string, string>> = {
  ß: "ss",
  æ: "ae",
  œ: "oe",
  ø: "o",
  ł: "l",
  đ: "d",
  ð: "d",
  þ: "th",
  ħ: "h",
  ŧ: "t",
  ŋ: "n",
  ĸ: "k",
  ı: "i",
};
const PLAINED = new RegExp(`[${Object.keys(PLAIN).join("")}]`, "gu");

/** Most names: without accents, nothing of them is to be taken apart. */
const BARE = /^[\0-\x7f]*$/;

const foldWhole = (text: string): string =>
  text
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(PLAINED, (letter) => PLAIN[letter]!);

/** Letters without case and accents, as names are compared and searched. Law: what is folded stays so. */
export const fold = (text: string): string => (BARE.test(text) ? text.toLowerCase() : foldWhole(text));

/** Letters of scripts that put no spaces between words. */
const UNSPACED = String.raw`\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}`;
const RUN = new RegExp(`[${UNSPACED}]+|[^${UNSPACED}]+`, "gu");
const IS_UNSPACED = new RegExp(`^[${UNSPACED}]`, "u");

/** Whether a word is of a script that puts no spaces between words: a piece of a longer run of letters. */
export const isUnspaced = (word: string): boolean => IS_UNSPACED.test(word);

/** A run of letters without spaces, by every two that stand beside each other, and the last alone: each begins one of them. */
function pairsOf(run: string): readonly string[] {
  const letters = [...run];
  return letters.map((letter, at) => letter + (letters[at + 1] ?? ""));
}

/**
 * The words of a text, folded, in order. Of scripts that put no spaces between words every two letters are one, so that what stands
 * inside a longer run is found.
 */
export const wordsOf = (text: string): readonly string[] =>
  BARE.test(text)
    ? (text.toLowerCase().match(/[a-z0-9]+/g) ?? [])
    : (foldWhole(text).match(/[\p{L}\p{N}\p{Co}]+/gu) ?? []).flatMap((word) =>
        (word.match(RUN) ?? []).flatMap((run) => (isUnspaced(run) ? pairsOf(run) : [run])),
      );

/** Whether each of some words begins one of those that are told. Law: with no words, always. */
export const areBegun = (words: readonly string[], told: readonly string[]): boolean =>
  words.every((word) => told.some((one) => one.startsWith(word)));

/** The words of a phrase: as `wordsOf`, but of a run without spaces only the pairs, which stand beside each other inside a longer one. */
export const phraseOf = (text: string): readonly string[] => {
  const words = wordsOf(text);
  return words.filter((word, at) => !(isUnspaced(word) && [...word].length === 1 && isPairBefore(word, words[at - 1])));
};

const isPairBefore = (last: string, before: string | undefined): boolean =>
  before !== undefined && isUnspaced(before) && [...before].length === 2 && before.endsWith(last);

/** Letters of a word for each slip that is forgiven in it; shorter words must be right. */
const LETTERS_A_SLIP = 4;

/** How many slips are forgiven in a word: none up to three letters, one up to seven, two beyond. */
export const slipsAllowed = (word: string): number => Math.min(2, Math.floor(word.length / LETTERS_A_SLIP));

/**
 * The fewest slips by which `typed` begins `word`: letters left out, put in or exchanged (V. Levenshtein, 1966), and
 * neighbours that changed places (F. Damerau, 1964). More than `most` is Infinity.
 */
export function slipsToBegin(typed: string, word: string, most: number): number {
  // Columns beyond this cannot be reached with so few slips.
  const length = Math.min(word.length, typed.length + most);
  let before: number[] = [];
  let row = Array.from({ length: length + 1 }, (_, at) => at);
  for (let i = 1; i <= typed.length; i++) {
    const next = [i];
    for (let j = 1; j <= length; j++) {
      const exchanged = row[j - 1]! + (typed[i - 1] === word[j - 1] ? 0 : 1);
      let best = Math.min(exchanged, row[j]! + 1, next[j - 1]! + 1);
      const turned = i > 1 && j > 1 && typed[i - 1] === word[j - 2] && typed[i - 2] === word[j - 1];
      if (turned) best = Math.min(best, before[j - 2]! + 1);
      next.push(best);
    }
    if (Math.min(...next) > most) return Number.POSITIVE_INFINITY;
    before = row;
    row = next;
  }
  // The word may go on where the typed one ends.
  const fewest = Math.min(...row);
  return fewest <= most ? fewest : Number.POSITIVE_INFINITY;
}
