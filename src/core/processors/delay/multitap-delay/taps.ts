export const TAPS = [1, 2, 3, 4] as const;
export type TapNumber = (typeof TAPS)[number];

type TapWhat = "on" | "time" | "level" | "pan";
export type TapParam = `tap${TapNumber}.${TapWhat}`;

/** The id of one of a tap's four parameters, which has one spelling. */
export const tapParam = <T extends TapNumber, W extends TapWhat>(tap: T, what: W) => `tap${tap}.${what}` as const;
