import { GRID, isSilent } from "./grid";

/** Samples between one ring and the next: at powers of two apart they would drive each other out of the processor's cache. */
const APART = 72;

/**
 * Rings of samples behind each other that are written and read in segments of the grid, each of which lies in one piece: where a
 * segment is written never goes round the end, since a ring is whole stretches of the grid; and the first stretch of a ring stands
 * once more behind its end, so that what is read does not go round either. Law: a segment crosses no point of the grid.
 */
export class Rings {
  readonly samples: Float64Array;
  /** From one ring to the next. */
  readonly pitch: number;
  private readonly size: number;
  private written = 0;

  /** `longest`: the greatest distance at which one is read, in samples. */
  constructor(
    private readonly count: number,
    longest: number,
  ) {
    this.size = GRID * 2 ** Math.ceil(Math.log2((longest + GRID) / GRID));
    this.pitch = this.size + GRID + APART;
    this.samples = new Float64Array(count * this.pitch);
  }

  get isSilent(): boolean {
    return isSilent(this.samples);
  }

  clear(): void {
    this.samples.fill(0);
  }

  /** Where the segment that is written now begins in a ring. */
  at(ring: number): number {
    return ring * this.pitch + this.written;
  }

  /** Where the segment that was written so many samples ago begins in a ring. */
  behind(ring: number, delay: number): number {
    return ring * this.pitch + ((this.written - delay) & (this.size - 1));
  }

  /** Rings have been written: what lies in their first stretch is put behind their ends. Before they are read without delay. */
  close(first: number, count: number, length: number): void {
    if (this.written >= GRID) return;
    const { samples, pitch, size, written } = this;
    for (let ring = first; ring < first + count; ring++) {
      const from = ring * pitch + written;
      for (let i = from; i < from + length; i++) samples[i + size] = samples[i]!;
    }
  }

  /** The next segment follows. Rings that are silent may go by any number of samples. */
  go(length: number): void {
    this.written = (this.written + length) & (this.size - 1);
  }
}
