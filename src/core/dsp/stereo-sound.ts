/** Two channels of the same length, samples from −1 to 1. */
export interface StereoSound {
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly sampleRate: number;
}
