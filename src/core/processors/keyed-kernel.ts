import { GridKernel } from "./grid-kernel";
import type { KeySignal } from "./kernel";

/** A kernel whose detector may hear another sound than the one that it turns down. */
export abstract class KeyedKernel extends GridKernel {
  private key: KeySignal | null = null;
  /** Added to the place of a sample of the sound to find that of the key. */
  protected shift = 0;

  listen(key: KeySignal | null, shift: number): void {
    this.key = key;
    this.shift = key ? shift : 0;
  }

  protected heardLeft(left: Float32Array): Float32Array {
    return this.key ? this.key.left : left;
  }

  protected heardRight(right: Float32Array): Float32Array {
    return this.key ? this.key.right : right;
  }
}
