const COUNT = new Intl.NumberFormat("en-GB");

/** "154", "100,061". */
export const formatCount = (n: number): string => COUNT.format(n);

/** The word for so many: `plural(1, "is", "are")`; with an s where no other is given. */
export const plural = (n: number, one: string, many = `${one}s`): string => (n === 1 ? one : many);

/** "1 strip", "0 plugins", "5,200 sounds". */
export const counted = (n: number, one: string, many?: string): string => `${formatCount(n)} ${plural(n, one, many)}`;
