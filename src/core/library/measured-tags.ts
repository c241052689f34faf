import type { Card } from "../presets/preset";

/** Tags that were found by measuring, without those that the person took off. */
export const measuredTags = (
  { dismissed = [] }: Card,
  { found }: { readonly found: readonly string[] },
): readonly string[] => found.filter((tag) => !dismissed.includes(tag));
