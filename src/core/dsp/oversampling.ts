/** How many samples come for each one where a curve is applied. */
export const OVERSAMPLING = 4;

/** What going up and coming down delays low frequencies by, in whole samples of the lower rate. */
export const OVERSAMPLING_LATENCY = 3;
