import * as wavefile from "wavefile";
import type { StereoSound } from "../../dsp/render";
import { type Result, fail, ok } from "../../result";

/** The package gives its class by name to a bundler, and as a whole to Node. */
const { WaveFile } = ("default" in wavefile ? wavefile.default : wavefile) as typeof wavefile;

/** Reads 16, 24 and 32 bit WAV, one or two channels; mono stands on both sides. The error is a sentence. */
export function readWav(bytes: Uint8Array): Result<StereoSound, string> {
  try {
    const file = new WaveFile(bytes);
    const { numChannels, sampleRate } = file.fmt as { numChannels: number; sampleRate: number };
    if (numChannels < 1 || numChannels > 2)
      return fail(`The file has ${numChannels} channels; one or two can be read.`);
    file.toBitDepth("32f");
    const samples: unknown = file.getSamples(false, Float32Array);
    const [left, right] = (numChannels === 1 ? [samples, samples] : samples) as Float32Array[];
    if (!left || !right) return fail("The file holds no sound.");
    return ok({ left: Float32Array.from(left), right: Float32Array.from(right), sampleRate });
  } catch {
    return fail("This is no WAV file that can be read.");
  }
}

/** 24-bit whole numbers, for what is kept: half the size of floats would be heard, a quarter more would not. */
export function writeWav24({ left, right, sampleRate }: StereoSound): Uint8Array {
  const file = new WaveFile();
  const whole = (samples: Float32Array) => samples.map((x) => Math.round(Math.min(1, Math.max(-1, x)) * 8_388_607));
  file.fromScratch(2, sampleRate, "24", [whole(left), whole(right)]);
  return file.toBuffer();
}

/** 32-bit float: nothing is lost and nothing clips. */
export function writeWav({ left, right, sampleRate }: StereoSound): Uint8Array {
  const file = new WaveFile();
  file.fromScratch(2, sampleRate, "32f", [left, right]);
  return file.toBuffer();
}
