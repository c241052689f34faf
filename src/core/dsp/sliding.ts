/* Over the last samples of a stream: the least of them, and their mean, each with constant work a sample. */

/** The next power of two that is not less. */
const powerOver = (n: number): number => 2 ** Math.ceil(Math.log2(n));

/** The least of the last `span` values; 1 for those before the first. A queue of rising candidates (D. Lemire, "Streaming maximum-minimum filter", 2006). */
export class SlidingLeast {
  private readonly values: Float64Array;
  private readonly times: Float64Array;
  private readonly mask: number;
  private head = 0;
  private tail = 0;
  private time = 0;

  constructor(private readonly span: number) {
    const room = powerOver(span + 1);
    this.values = new Float64Array(room);
    this.times = new Float64Array(room);
    this.mask = room - 1;
  }

  reset(): void {
    this.head = this.tail = this.time = 0;
  }

  push(value: number): number {
    const { values, times, mask, time } = this;
    while (this.tail !== this.head && values[(this.tail - 1) & mask]! >= value) this.tail = (this.tail - 1) & mask;
    values[this.tail] = value;
    times[this.tail] = time;
    this.tail = (this.tail + 1) & mask;
    while (times[this.head]! <= time - this.span) this.head = (this.head + 1) & mask;
    this.time = time + 1;
    return values[this.head]!;
  }
}

/** The mean of the last `span` values, none above 1; 1 for those before the first. */
export class SlidingMean {
  private readonly window: Float64Array;
  private at = 0;
  private sum: number;

  constructor(span: number) {
    this.window = new Float64Array(span).fill(1);
    this.sum = span;
  }

  reset(): void {
    this.window.fill(1);
    this.at = 0;
    this.sum = this.window.length;
  }

  push(value: number): number {
    const { window } = this;
    this.sum += value - window[this.at]!;
    window[this.at] = value;
    this.at += 1;
    if (this.at === window.length) {
      this.at = 0;
      // A running sum drifts by the last bit: it is counted anew once around.
      let sum = 0;
      for (let i = 0; i < window.length; i++) sum += window[i]!;
      this.sum = sum;
    }
    return Math.min(1, this.sum / window.length);
  }
}
