/** The gains of left and right. */
export interface PanGains {
  readonly left: number;
  readonly right: number;
}

/** The one pan law: constant power, −3 dB on each side in the centre. `pan` from −100 (left) to 100 (right). */
export function panGains(pan: number): PanGains {
  const angle = ((pan + 100) / 200) * (Math.PI / 2);
  return { left: Math.cos(angle), right: Math.sin(angle) };
}
