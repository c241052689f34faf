/** Which presets still have an earlier version inside, in words. */
export function holdersOf(heldBy: readonly { readonly name: string }[]): string {
  if (heldBy.length === 0) return "";
  const names = heldBy.map(({ name }) => `“${name}”`).join(", ");
  return heldBy.length === 1
    ? ` ${names} has an earlier one inside, and stays as it is.`
    : ` ${names} have an earlier one inside, and stay as they are.`;
}
