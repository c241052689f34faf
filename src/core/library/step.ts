import type { Card } from "../presets/preset";

/** Fields of a card; null where an optional one is not there. */
export type CardFields = { readonly [K in keyof Card]?: Card[K] | null };

export interface FolderRecord {
  readonly id: string;
  readonly name: string;
  readonly parent: string | null;
}

/** A small change of how the library is filed, with what stood there and what stands there now. */
export type LibraryStep =
  | { readonly kind: "card"; readonly preset: string; readonly from: CardFields; readonly to: CardFields }
  | { readonly kind: "bin"; readonly preset: string; readonly from: boolean; readonly to: boolean }
  | {
      /** Put into another preset, with all its versions and uses; null for one that stands by itself. */
      readonly kind: "merge";
      readonly preset: string;
      readonly from: string | null;
      readonly to: string | null;
    }
  | { readonly kind: "folder"; readonly from: FolderRecord | null; readonly to: FolderRecord | null }
  | {
      readonly kind: "versionName";
      readonly preset: string;
      readonly version: number;
      readonly from: string | null;
      readonly to: string | null;
    };

/** The steps that take others back. */
export const invertLibrarySteps = (steps: readonly LibraryStep[]): readonly LibraryStep[] =>
  steps.toReversed().map((step): LibraryStep => ({ ...step, from: step.to, to: step.from }) as LibraryStep);

/** What some fields of a card say now, so that they can be put back. */
export const fieldsOf = (card: Card, names: readonly (keyof Card)[]): CardFields =>
  Object.fromEntries(names.map((name) => [name, card[name] ?? null]));

/** A card with some fields changed; an optional field that is null is taken out. */
export function withFields(card: Card, fields: CardFields): Card {
  const entries = Object.entries({ ...card, ...fields }).filter(([name, value]) => value !== null || name === "folder");
  return Object.fromEntries(entries) as unknown as Card;
}
