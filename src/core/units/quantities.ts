declare const unit: unique symbol;
type Quantity<U extends string> = number & { readonly [unit]: U };

export type Decibels = Quantity<"dB">;
export type Hertz = Quantity<"Hz">;
export type Milliseconds = Quantity<"ms">;
export type Beats = Quantity<"beats">;
export type BeatsPerMinute = Quantity<"bpm">;
/** A factor on amplitude, 1 being unchanged. */
export type Gain = Quantity<"gain">;

export const decibels = (n: number) => n as Decibels;
export const hertz = (n: number) => n as Hertz;
export const beats = (n: number) => n as Beats;
export const beatsPerMinute = (n: number) => n as BeatsPerMinute;

const PER_DECIBEL = Math.LN10 / 20;

export const gainOf = (level: Decibels): Gain => Math.exp(level * PER_DECIBEL) as Gain;

/** −∞ for a gain of zero. */
export const decibelsOf = (gain: number): Decibels => (20 * Math.log10(gain)) as Decibels;

/** ms = 60000 / bpm × beats */
export const millisecondsOf = (length: Beats, tempo: BeatsPerMinute): Milliseconds =>
  ((60_000 / tempo) * length) as Milliseconds;
