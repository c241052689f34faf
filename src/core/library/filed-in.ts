import type { Card } from "../presets/preset";

/*
 * Where a sound lies: in one folder, its home, and in others that only refer to it. Laws: a sound without a home is in no folder at all;
 * its home does not refer to it as well, and no folder does so twice.
 */

export type FiledIn = Pick<Card, "folder" | "alsoIn">;

/** The fields of a card that say so. */
interface Filed {
  readonly folder: string | null;
  readonly alsoIn: string[];
}

/** Its home first; then, in the order in which they were added, those that refer to it. */
export const foldersOf = ({ folder, alsoIn = [] }: FiledIn): readonly string[] =>
  folder === null ? [] : [folder, ...alsoIn];

const filed = ([home, ...others]: readonly string[]): Filed => ({ folder: home ?? null, alsoIn: others });

/** With another home; what referred to it still does. Out of its home and into none it is in no folder at all. */
export const movedTo = (card: FiledIn, home: string | null): Filed =>
  filed(home === null ? [] : [home, ...(card.alsoIn ?? []).filter((one) => one !== home)]);

/** What of a card is another once its home is: only what there is. */
export const homeOf = (card: FiledIn, home: string | null): Partial<Filed> =>
  card.alsoIn ? movedTo(card, home) : { folder: home };

/** In one folder more, which refers to it; its home where it had none. */
export const alsoIn = (card: FiledIn, folder: string): Filed => filed([...new Set([...foldersOf(card), folder])]);

/** Out of one folder. Where that was its home, the first that refers to it is its home from then on. */
export const outOf = (card: FiledIn, folder: string): Filed => filed(foldersOf(card).filter((one) => one !== folder));

/** Whether the laws hold. */
export const isFiledWell = ({ folder, alsoIn = [] }: FiledIn): boolean =>
  new Set([folder, ...alsoIn]).size === alsoIn.length + 1 && (folder !== null || alsoIn.length === 0);
