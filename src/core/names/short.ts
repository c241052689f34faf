/** As many letters as a short name has at the most. */
export const LONGEST_SHORT = 24;

/** Words that carry nothing in a name with few letters. */
const EMPTY = new Set(["a", "an", "and", "for", "in", "of", "on", "the", "to", "with"]);

/**
 * A name for a device that shows only `most` letters: words without weight go first, then vowels within words from the
 * last on, then letters at the ends of the longest words. Letters beyond ASCII lose their accents.
 */
export function shortName(name: string, most: number): string {
  const plain = name
    .normalize("NFKD")
    .replace(/[^\x20-\x7e]/g, "")
    .replace(/[^A-Za-z0-9]+/g, " ")
    .trim();
  let words = plain.split(" ");
  const length = () => words.join(" ").length;
  if (length() > most) {
    const heavy = words.filter((word) => !EMPTY.has(word.toLowerCase()));
    if (heavy.length > 0) words = heavy;
  }
  for (let at = words.length - 1; at >= 0 && length() > most; at--)
    words[at] = words[at]!.replace(/(?<=.)[aeiou](?=.)/gi, "");
  while (length() > most && words.some((word) => word.length > 2)) {
    const longest = words.reduce((best, word, at) => (word.length > words[best]!.length ? at : best), 0);
    words[longest] = words[longest]!.slice(0, -1);
  }
  return words.join(" ").slice(0, most).trim();
}

/**
 * Short names for several at once, none longer than `most` letters (4 at the least) and no two of them the same, whatever their case: those
 * that would meet end in a number. What has no letter that a display shows gets none.
 */
export function shortNames(names: readonly string[], most: number): readonly string[] {
  const seen = new Set<string>();
  const reached = new Map<string, number>();
  return names.map((name) => {
    const wished = shortName(name, most);
    if (wished === "") return "";
    let short = wished;
    let n = reached.get(wished) ?? 2;
    for (; seen.has(short.toLowerCase()); n++) short = shortName(name, most - String(n).length) + n;
    reached.set(wished, n);
    seen.add(short.toLowerCase());
    return short;
  });
}
