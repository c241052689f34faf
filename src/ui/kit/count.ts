const COUNT = new Intl.NumberFormat("en-GB");

/** "154", "100,061". */
export const formatCount = (n: number): string => COUNT.format(n);
