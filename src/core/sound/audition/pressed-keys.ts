/** In seconds: how long after the last key an instrument may ring while nothing plays. */
const RING_FOR = 8;

/** Keys that are held down: while there are some, and a while after, there is sound though nothing plays. */
export class PressedKeys {
  /** The velocity of each. */
  private readonly held = new Map<number, number>();
  private left = 0;
  private readonly ringFor: number;

  constructor(sampleRate: number) {
    this.ringFor = RING_FOR * sampleRate;
  }

  get ringing(): boolean {
    return this.left > 0;
  }

  get notes(): Iterable<readonly [note: number, velocity: number]> {
    return this.held;
  }

  press(note: number, velocity: number): void {
    this.held.set(note, velocity);
    this.left = this.ringFor;
  }

  release(note: number): void {
    this.held.delete(note);
  }

  releaseAll(): void {
    this.held.clear();
  }

  pass(samples: number): void {
    if (this.held.size === 0 && this.left > 0) this.left = Math.max(0, this.left - samples);
  }
}
