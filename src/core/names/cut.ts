const signs = new Intl.Segmenter(undefined, { granularity: "grapheme" });

/**
 * The beginning of a text, so long at the most (in UTF-16 units, as schemas count), cut between whole signs: never through an
 * emoji, nor between a letter and its accents.
 */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  let end = 0;
  for (const { index, segment } of signs.segment(text.slice(0, most + LONGEST_SIGN))) {
    if (index + segment.length > most) break;
    end = index + segment.length;
  }
  return text.slice(0, end);
}

/** Signs of several people with their skins and ties are this long, in UTF-16 units; longer ones are left out whole. */
const LONGEST_SIGN = 64;

/** Signs that show nothing, by themselves: spaces, controls, joiners, fillers, and the blank of Braille. */
const UNSEEN = /[\p{C}\p{Z}\p{Default_Ignorable_Code_Point}\u2800]/gu;

/** Whether there is anything in a text that can be seen. */
export const isVisible = (text: string): boolean => text.replace(UNSEEN, "") !== "";
