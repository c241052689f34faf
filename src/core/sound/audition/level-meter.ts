/** What a sound shows while it runs, from one reading to the next: its peak, and how like its sides are. */
export class LevelMeter {
  private peak = 0;
  private leftLeft = 0;
  private rightRight = 0;
  private leftRight = 0;

  add(left: number, right: number): void {
    this.peak = Math.max(this.peak, Math.abs(left), Math.abs(right));
    this.leftLeft += left * left;
    this.rightRight += right * right;
    this.leftRight += left * right;
  }

  /** Reads and begins anew. The correlation is −1 to 1; 1 for silence. */
  read(): { readonly peak: number; readonly correlation: number } {
    const { peak, leftLeft, rightRight, leftRight } = this;
    const power = leftLeft * rightRight;
    this.peak = this.leftLeft = this.rightRight = this.leftRight = 0;
    return { peak, correlation: power > 0 ? leftRight / Math.sqrt(power) : 1 };
  }
}
