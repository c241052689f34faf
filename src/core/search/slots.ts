/** Slots of the index, of which the first `count` are meant. */
export interface Slots {
  readonly slots: Int32Array;
  readonly count: number;
}
