/** Letters without case and accents, as names are compared and searched. */
export const fold = (text: string): string => text.normalize("NFKD").replace(/\p{M}/gu, "").toLowerCase();

/** The words of a text, folded, in order. */
export const wordsOf = (text: string): readonly string[] => fold(text).match(/[\p{L}\p{N}\p{Co}]+/gu) ?? [];

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
