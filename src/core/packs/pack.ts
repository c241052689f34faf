import type { Card, Content } from "../presets/preset";

/** A preset of a pack. Its id is its own for good: by it a newer pack finds what an older one brought. */
export interface PackPreset {
  readonly id: string;
  readonly card: Card;
  readonly content: Content;
}

/** A set of presets that comes as a whole and is not changed: what a person makes of one is saved as their own. */
export interface Pack {
  readonly name: string;
  readonly presets: readonly PackPreset[];
}

/** What the pack facet says of a preset that is the person's own. */
export const OWN = "own";
