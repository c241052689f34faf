import type { PresetRow } from "@/contracts/records";

type Named = Pick<PresetRow, "version" | "card">;

export const nothingNew = ({ version, card }: Named): string =>
  `“${card.name}” is as it was saved in version ${version}.`;

/** What came of saving behind a version: a new one, or none where nothing is another. */
export const wordsOfSave = (before: number, saved: Named, heldBy: readonly { readonly name: string }[]): string =>
  saved.version === before
    ? nothingNew(saved)
    : `Saved version ${saved.version} of “${saved.card.name}”. Earlier ones are kept.${holdersOf(heldBy)}`;

/** Which presets still have an earlier version inside, in words. */
function holdersOf(heldBy: readonly { readonly name: string }[]): string {
  if (heldBy.length === 0) return "";
  const names = heldBy.map(({ name }) => `“${name}”`).join(", ");
  return heldBy.length === 1
    ? ` ${names} has an earlier one inside, and stays as it is.`
    : ` ${names} have an earlier one inside, and stay as they are.`;
}
