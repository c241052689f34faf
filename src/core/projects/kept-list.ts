/** A list with the one of that id set, or taken out where it is null; the order follows from what they are, not from when they came. */
export const withOne = <T extends { readonly id: string }>(
  list: readonly T[],
  { id, one }: { readonly id: string; readonly one: T | null },
  inOrder: (a: T, b: T) => number,
): T[] => [...list.filter((other) => other.id !== id), ...(one ? [one] : [])].toSorted(inOrder);
