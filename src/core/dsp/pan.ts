/** The gains of left and right. */
export interface PanGains {
  readonly left: number;
  readonly right: number;
}

const angleOf = (pan: number): number => ((pan + 100) / 200) * (Math.PI / 2);

/** The one pan law: constant power, −3 dB on each side in the centre. `pan` from −100 (left) to 100 (right). */
export const panLeft = (pan: number): number => Math.cos(angleOf(pan));
export const panRight = (pan: number): number => Math.sin(angleOf(pan));

/** How a sound of two sides is moved to one of them: a balance turns the other down, a pan takes it along. */
export type PanLaw = "pan" | "balance";

/** What of each side goes to each side. */
export interface PanMatrix {
  readonly leftToLeft: number;
  readonly leftToRight: number;
  readonly rightToLeft: number;
  readonly rightToRight: number;
}

/** A balance: the side that it is turned from gets quieter, the other louder, with nothing changed in the centre. */
export const balanceMatrix = (pan: number): PanMatrix => ({
  leftToLeft: Math.SQRT2 * panLeft(pan),
  leftToRight: 0,
  rightToLeft: 0,
  rightToRight: Math.SQRT2 * panRight(pan),
});

/**
 * A pan of both sides: the side that it is turned from goes over to the other by constant power, which stays as it is.
 * After the StereoPannerNode of the Web Audio API (W3C, 2021).
 */
export function panMatrix(pan: number): PanMatrix {
  const angle = ((100 - Math.abs(pan)) / 100) * (Math.PI / 2);
  const [kept, over] = [Math.sin(angle), pan === 0 ? 0 : Math.cos(angle)];
  return pan > 0
    ? { leftToLeft: kept, leftToRight: over, rightToLeft: 0, rightToRight: 1 }
    : { leftToLeft: 1, leftToRight: 0, rightToLeft: over, rightToRight: kept };
}

export const panGains = (pan: number): PanGains => ({ left: panLeft(pan), right: panRight(pan) });
