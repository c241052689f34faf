/** Joins class names, leaving out what is false. */
export const cx = (...names: readonly (string | false | null | undefined)[]): string => names.filter(Boolean).join(" ");
