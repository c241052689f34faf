export const BANDS = [1, 2, 3, 4, 5, 6] as const;
export type BandNumber = (typeof BANDS)[number];

export const BAND_TYPES = ["bell", "low shelf", "high shelf", "low cut", "high cut", "notch", "band pass"] as const;
export type BandType = (typeof BAND_TYPES)[number];

/** What a band's seven parameters are. */
export type BandWhat = "used" | "on" | "type" | "freq" | "gain" | "q" | "slope";
export type BandParam = `band${BandNumber}.${BandWhat}`;

/** The id of one of them, which has one spelling. */
export const bandParam = <B extends BandNumber, W extends BandWhat>(band: B, what: W) => `band${band}.${what}` as const;
