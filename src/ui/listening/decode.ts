"use client";

import { type Result, fail, ok } from "@/core/result";

/** Two channels of samples, as they are kept. */
interface Samples {
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly sampleRate: number;
}

/** A file that can be read: how long it is, and any stretch of it. */
export interface OpenSound {
  readonly seconds: number;
  /** At most as long as is kept, from this second on. Rejects where it cannot be read there. */
  readonly cut: (from: number) => Promise<Samples>;
}

/** In seconds: more than a loop to judge by needs. */
export const LONGEST = 30;
/** Other files are decoded whole, where they are no larger than this. In bytes. */
const LARGEST = 60 * 1024 * 1024;
/** Of larger ones the beginning is tried: most kinds are made of pieces that stand for themselves. In bytes. */
const BEGINNING = 8 * 1024 * 1024;
/** Where the header of a WAV file ends at the latest. In bytes. */
const HEADER = 256 * 1024;

interface WavLayout {
  readonly begin: number;
  readonly bytesASecond: number;
  readonly frame: number;
  readonly length: number;
}

/** Where the samples of a WAV file stand, by its beginning; null where it is none. Little endian, as RIFF is. */
function layoutOf(bytes: ArrayBuffer): WavLayout | null {
  const view = new DataView(bytes);
  const word = (at: number) => String.fromCharCode(...[0, 1, 2, 3].map((n) => view.getUint8(at + n)));
  if (bytes.byteLength < 44 || word(0) !== "RIFF" || word(8) !== "WAVE") return null;
  let [bytesASecond, frame] = [0, 0];
  for (let at = 12; at + 8 <= bytes.byteLength; ) {
    const size = view.getUint32(at + 4, true);
    if (word(at) === "fmt " && at + 24 <= bytes.byteLength) {
      bytesASecond = view.getUint32(at + 16, true);
      frame = view.getUint16(at + 20, true);
    }
    if (word(at) === "data")
      return bytesASecond > 0 && frame > 0 ? { begin: at + 8, bytesASecond, frame, length: size } : null;
    at += 8 + size + (size % 2);
  }
  return null;
}

/** A stretch of a WAV file, as a file of its own: two hours are never read into memory. */
async function wavOf(file: File, head: ArrayBuffer, { begin, bytesASecond, frame, length }: WavLayout, from: number) {
  const whole = (bytes: number) => Math.floor(bytes / frame) * frame;
  const first = Math.min(whole(from * bytesASecond), Math.max(0, length - frame));
  const size = Math.min(length - first, whole(LONGEST * bytesASecond));
  const bytes = new Uint8Array(begin + size);
  bytes.set(new Uint8Array(head).subarray(0, begin));
  bytes.set(new Uint8Array(await file.slice(begin + first, begin + first + size).arrayBuffer()), begin);
  const sizes = new DataView(bytes.buffer);
  sizes.setUint32(4, bytes.byteLength - 8, true);
  sizes.setUint32(begin - 4, size, true);
  return bytes.buffer;
}

const decode = (bytes: ArrayBuffer): Promise<AudioBuffer> =>
  new OfflineAudioContext(2, 1, 48_000).decodeAudioData(bytes);

/** The samples of a decoded sound from a second on. */
function samplesFrom(buffer: AudioBuffer, from: number): Samples {
  const { sampleRate } = buffer;
  const begin = Math.min(Math.round(from * sampleRate), Math.max(0, buffer.length - 1));
  const end = Math.min(buffer.length, begin + Math.round(LONGEST * sampleRate));
  const left = buffer.getChannelData(0).slice(begin, end);
  const right = buffer.numberOfChannels > 1 ? buffer.getChannelData(1).slice(begin, end) : left.slice();
  return { left, right, sampleRate };
}

async function openWav(file: File): Promise<OpenSound | null> {
  const head = await file.slice(0, HEADER).arrayBuffer();
  const found = layoutOf(head);
  if (!found) return null;
  const layout = { ...found, length: Math.min(found.length, file.size - found.begin) };
  const cut = async (from: number) => samplesFrom(await decode(await wavOf(file, head, layout, from)), 0);
  // What the browser cannot decode is found out now, not when the stretch has been chosen.
  await cut(0);
  return { seconds: layout.length / layout.bytesASecond, cut };
}

const opened = (buffer: AudioBuffer): OpenSound => ({
  seconds: buffer.duration,
  cut: (from) => Promise.resolve(samplesFrom(buffer, from)),
});

/** A file that is no WAV: whole, or, where it is too large for that, what of its beginning can be decoded by itself. */
async function openOther(file: File): Promise<OpenSound | null> {
  if (file.size <= LARGEST) return opened(await decode(await file.arrayBuffer()));
  const beginning = await decode(await file.slice(0, BEGINNING).arrayBuffer()).catch(() => null);
  return beginning && beginning.duration >= LONGEST ? opened(beginning) : null;
}

/** Any sound that the browser decodes. The error is a sentence. */
export async function openSound(file: File): Promise<Result<OpenSound, string>> {
  try {
    const sound = (await openWav(file).catch(() => null)) ?? (await openOther(file));
    if (!sound)
      return fail(
        `“${file.name}” is larger than ${LARGEST / 1024 / 1024} MB. Cut it shorter, or take a WAV file of it.`,
      );
    return sound.seconds > 0 ? ok(sound) : fail(`“${file.name}” holds no sound.`);
  } catch {
    return fail(`“${file.name}” is no sound that can be read here.`);
  }
}
