/** The last seconds of a sound, so that what comes later can have heard them. */
export class Past {
  private readonly left: Float32Array;
  private readonly right: Float32Array;
  private readonly mask: number;
  private written = 0;

  /** Holds at least so many samples. */
  constructor(samples: number) {
    const size = 2 ** Math.ceil(Math.log2(samples));
    this.left = new Float32Array(size);
    this.right = new Float32Array(size);
    this.mask = size - 1;
  }

  write(left: Float32Array, right: Float32Array, count: number): void {
    for (let i = 0; i < count; i++) {
      const at = (this.written + i) & this.mask;
      this.left[at] = left[i]!;
      this.right[at] = right[i]!;
    }
    this.written = (this.written + count) & this.mask;
  }

  /** The `count` samples that begin `back` samples before the next that is written. */
  read(left: Float32Array, right: Float32Array, count: number, back: number): void {
    const from = this.written - back;
    for (let i = 0; i < count; i++) {
      const at = (from + i) & this.mask;
      left[i] = this.left[at]!;
      right[i] = this.right[at]!;
    }
  }
}
