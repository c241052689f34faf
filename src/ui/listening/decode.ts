"use client";

import { type Result, fail, ok } from "@/core/result";

export interface Decoded {
  readonly sound: { readonly left: Float32Array; readonly right: Float32Array; readonly sampleRate: number };
  /** The length in seconds of what was too long; null where all of it is there. */
  readonly cutFrom: number | null;
}

/** In seconds: more than a loop to judge by needs. */
const LONGEST = 30;
/** Of other files the beginning is tried first: more than half a minute of all but the least compressed. In bytes. */
const BEGINNING = 8 * 1024 * 1024;
/** What cannot be read by its beginning is decoded whole, where it is no larger than this. In bytes. */
const LARGEST = 60 * 1024 * 1024;
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

/** The first seconds of a long WAV file, as a file of their own: two hours are never read into memory. */
async function firstSeconds(file: File): Promise<{ bytes: ArrayBuffer; cutFrom: number | null } | null> {
  const head = await file.slice(0, HEADER).arrayBuffer();
  const layout = layoutOf(head);
  if (!layout) return null;
  const { begin, bytesASecond, frame } = layout;
  const length = Math.min(layout.length, file.size - begin);
  const wanted = Math.floor((LONGEST * bytesASecond) / frame) * frame;
  if (length <= wanted) return { bytes: await file.arrayBuffer(), cutFrom: null };
  const bytes = await file.slice(0, begin + wanted).arrayBuffer();
  const sizes = new DataView(bytes);
  sizes.setUint32(4, bytes.byteLength - 8, true);
  sizes.setUint32(begin - 4, wanted, true);
  return { bytes, cutFrom: length / bytesASecond };
}

const decode = (bytes: ArrayBuffer): Promise<AudioBuffer> =>
  new OfflineAudioContext(2, 1, 48_000).decodeAudioData(bytes);

/** A long file that is no WAV, by its beginning: most kinds are made of pieces that stand for themselves. Null where it is not. */
async function decodeBeginning(file: File): Promise<{ buffer: AudioBuffer; seconds: number } | null> {
  try {
    const buffer = await decode(await file.slice(0, BEGINNING).arrayBuffer());
    return buffer.duration < LONGEST ? null : { buffer, seconds: (buffer.duration * file.size) / BEGINNING };
  } catch {
    return null;
  }
}

/** Null for what is too large to be read whole. */
async function decodeFile(file: File): Promise<{ buffer: AudioBuffer; seconds: number } | null> {
  const wav = await firstSeconds(file).catch(() => null);
  const beginning = !wav && file.size > BEGINNING ? await decodeBeginning(file) : null;
  if (beginning) return beginning;
  if (!wav && file.size > LARGEST) return null;
  const buffer = await decode(wav?.bytes ?? (await file.arrayBuffer()));
  return { buffer, seconds: wav?.cutFrom ?? buffer.duration };
}

/** Any sound that the browser decodes, the first half minute of it. The error is a sentence. */
export async function decodeSound(file: File): Promise<Result<Decoded, string>> {
  try {
    const decoded = await decodeFile(file);
    if (!decoded)
      return fail(
        `“${file.name}” is larger than ${LARGEST / 1024 / 1024} MB. Cut it shorter, or take a WAV file of it.`,
      );
    const { buffer, seconds } = decoded;
    if (buffer.length === 0) return fail(`“${file.name}” holds no sound.`);
    const count = Math.min(buffer.length, Math.round(LONGEST * buffer.sampleRate));
    const left = buffer.getChannelData(0).slice(0, count);
    const right = buffer.numberOfChannels > 1 ? buffer.getChannelData(1).slice(0, count) : left.slice();
    return ok({ sound: { left, right, sampleRate: buffer.sampleRate }, cutFrom: seconds > LONGEST ? seconds : null });
  } catch {
    return fail(`“${file.name}” is no sound that can be read here.`);
  }
}
