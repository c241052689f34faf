import equal from "fast-deep-equal";
import { withFields } from "../library/step";
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

/** Fields of a pack's card that the person keeps as they like, beside the pack: how it is rated, tagged and filed. */
export const BESIDE = ["folder", "alsoIn", "rating", "tags", "dismissed"] as const satisfies readonly (keyof Card)[];

const isBeside = (name: string): boolean => (BESIDE as readonly string[]).includes(name);

/** What of some fields is the person's own to set on a pack's card. */
export const besideOf = <Fields extends object>(fields: Fields): Partial<Fields> =>
  Object.fromEntries(Object.entries(fields).filter(([name]) => isBeside(name))) as Partial<Fields>;

export const isAllBeside = (fields: object): boolean => Object.keys(fields).every(isBeside);

/**
 * A newer card of a pack with what the person has set beside the one before. `came`: as that one came, `stands`: as it stands
 * here. Law: what they have not touched is as the newer pack says, what they have is as they left it.
 */
export function withBeside(newer: Card, { came, stands }: { readonly came: Card; readonly stands: Card }): Card {
  const touched = BESIDE.filter((name) => !equal(came[name], stands[name]));
  return withFields(newer, Object.fromEntries(touched.map((name) => [name, stands[name] ?? null])));
}

/** What the pack facet says of a preset that is the person's own. */
export const OWN = "own";
