import type { HeardInstrument } from "../../chains/heard-instrument";
import type { StereoSound } from "../../dsp/stereo-sound";
import { InstrumentRuntime, type Samples } from "./instrument-runtime";

/** An instrument's phrase, twice: in the second half what rang on from the first is there. */
export function playPhrase(instrument: HeardInstrument, samples: Samples, sampleRate: number): StereoSound {
  const runtime = new InstrumentRuntime(instrument, samples, sampleRate);
  const length = 2 * runtime.length;
  const [left, right] = [new Float32Array(length), new Float32Array(length)];
  runtime.addTo(left, right, length);
  return { left, right, sampleRate };
}
