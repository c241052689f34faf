/** In seconds: how long after the last key an instrument may ring while nothing plays. */
const RING_FOR = 8;

/** Keys that are held down: while there are some, and a while after, there is sound though nothing plays. */
export class PressedKeys {
  private held = 0;
  private left = 0;
  private readonly ringFor: number;

  constructor(sampleRate: number) {
    this.ringFor = RING_FOR * sampleRate;
  }

  get ringing(): boolean {
    return this.left > 0;
  }

  press(): void {
    this.held += 1;
    this.left = this.ringFor;
  }

  release(): void {
    this.held = Math.max(0, this.held - 1);
  }

  releaseAll(): void {
    this.held = 0;
  }

  pass(samples: number): void {
    if (this.held === 0 && this.left > 0) this.left = Math.max(0, this.left - samples);
  }
}
