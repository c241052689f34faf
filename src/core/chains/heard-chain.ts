import type { HeardValues } from "../processors/model";

/**
 * A chain as the audio thread takes it: processors in series, their values in numbers, in plain data that travels to a
 * worklet. Made from a chain by `hearChain`.
 */
export interface HeardProcessor {
  readonly key: string;
  readonly model: string;
  readonly enabled: boolean;
  readonly values: HeardValues;
}

export type HeardChain = readonly HeardProcessor[];
