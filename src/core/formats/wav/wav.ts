import wavefile from "wavefile";
import type { StereoSound } from "../../dsp/render";
import { type Result, fail, ok } from "../../result";

/** Reads 16, 24 and 32 bit WAV, one or two channels; mono stands on both sides. The error is a sentence. */
export function readWav(bytes: Uint8Array): Result<StereoSound, string> {
  try {
    const file = new wavefile.WaveFile(bytes);
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

/** 32-bit float: nothing is lost and nothing clips. */
export function writeWav({ left, right, sampleRate }: StereoSound): Uint8Array {
  const file = new wavefile.WaveFile();
  file.fromScratch(2, sampleRate, "32f", [left, right]);
  return file.toBuffer();
}
