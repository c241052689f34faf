/** The gains of left and right. */
export interface PanGains {
  readonly left: number;
  readonly right: number;
}

const angleOf = (pan: number): number => ((pan + 100) / 200) * (Math.PI / 2);

/** The one pan law: constant power, −3 dB on each side in the centre. `pan` from −100 (left) to 100 (right). */
export const panLeft = (pan: number): number => Math.cos(angleOf(pan));
export const panRight = (pan: number): number => Math.sin(angleOf(pan));

export const panGains = (pan: number): PanGains => ({ left: panLeft(pan), right: panRight(pan) });
