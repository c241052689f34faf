import { writeWav } from "@/core/formats/wav/wav";

/** A second of a tone, as a WAV file; another for each pitch. */
export function toneFile(pitch: number): Uint8Array {
  const samples = Float32Array.from({ length: 48_000 }, (_, n) => Math.sin(n * pitch) / 2);
  return writeWav({ left: samples, right: samples, sampleRate: 48_000 });
}
