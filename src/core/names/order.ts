const collator = new Intl.Collator("en", { numeric: true, sensitivity: "base" });

/** In the order in which a person files names: no case, no accents, "Take 2" before "Take 10". Law: only the same are equal. */
export const inNameOrder = (a: string, b: string): number => collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0);
