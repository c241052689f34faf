import type { StereoSound } from "../../dsp/stereo-sound";
import { type Result, fail, ok } from "../../result";

/*
 * RIFF WAVE, little endian: the chunks "fmt " and "data", any others passed by. After the Multimedia Programming
 * Interface and Data Specifications 1.0 (IBM and Microsoft, 1991), and WAVE_FORMAT_EXTENSIBLE.
 */

/** Bytes before the samples of a file without other chunks. */
const HEADER = 44;

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;

interface Format {
  readonly tag: number;
  readonly channels: number;
  readonly sampleRate: number;
  readonly bits: number;
}

const word = (view: DataView, at: number): string =>
  String.fromCharCode(view.getUint8(at), view.getUint8(at + 1), view.getUint8(at + 2), view.getUint8(at + 3));

function readFormat(view: DataView, at: number, size: number): Format {
  const tag = view.getUint16(at, true);
  return {
    // An extensible format names the real one in the first two bytes of its identifier.
    tag: tag === EXTENSIBLE && size >= 26 ? view.getUint16(at + 24, true) : tag,
    channels: view.getUint16(at + 2, true),
    sampleRate: view.getUint32(at + 4, true),
    bits: view.getUint16(at + 14, true),
  };
}

type ReadSample = (view: DataView, at: number) => number;

const SAMPLES: Readonly<Record<string, ReadSample>> = {
  [`${PCM} 16`]: (view, at) => view.getInt16(at, true) / 2 ** 15,
  [`${PCM} 24`]: (view, at) => (view.getUint16(at, true) + view.getInt8(at + 2) * 2 ** 16) / 2 ** 23,
  [`${PCM} 32`]: (view, at) => view.getInt32(at, true) / 2 ** 31,
  [`${FLOAT} 32`]: (view, at) => view.getFloat32(at, true),
  [`${FLOAT} 64`]: (view, at) => view.getFloat64(at, true),
};

interface Chunks {
  readonly format: Format | null;
  readonly data: { readonly at: number; readonly size: number } | null;
}

/** A chunk that says it is longer than the file is as long as the file. */
function findChunks(view: DataView): Chunks {
  let format: Format | null = null;
  let at = 12;
  while (at + 8 <= view.byteLength) {
    const size = Math.min(view.getUint32(at + 4, true), view.byteLength - at - 8);
    const name = word(view, at);
    if (name === "fmt " && size >= 16) format = readFormat(view, at + 8, size);
    if (name === "data") return { format, data: { at: at + 8, size } };
    at += 8 + size + (size % 2);
  }
  return { format, data: null };
}

const NO_CHUNKS: Chunks = { format: null, data: null };

/** Kinds of samples that are not read, by the number of their format (RFC 2361). */
const OTHER_KINDS: Readonly<Record<number, string>> = {
  2: "ADPCM",
  6: "A-law",
  7: "µ-law",
  17: "IMA ADPCM",
  80: "MPEG",
  85: "MP3",
};

/** What stands at the head of files that are no plain WAV. */
const OTHER_FILES: Readonly<Record<string, string>> = {
  RF64: "This is an RF64 file, which is WAV beyond 4 GB.",
  BW64: "This is a BW64 file, which is WAV beyond 4 GB.",
  RIFX: "This is a RIFX file, which is WAV with its bytes the other way round.",
  FORM: "This is an AIFF file.",
  fLaC: "This is a FLAC file.",
  OggS: "This is an Ogg file.",
};

const SAVE_AS = "Save it as plain WAV of 16, 24 or 32 bit.";

/** Why samples of a format are not read; null where they are. */
function whyNotRead({ tag, bits, sampleRate, channels }: Format): string | null {
  const kind = OTHER_KINDS[tag] ?? (tag === PCM || tag === FLOAT ? `${bits} bit` : `format ${tag}`);
  if (!SAMPLES[`${tag} ${bits}`]) return `This WAV file is of a kind that is not read: ${kind}. ${SAVE_AS}`;
  if (sampleRate < 1000 || sampleRate > 768_000) return `A sample rate of ${sampleRate} Hz is not read.`;
  return channels < 1 || channels > 2 ? `The file has ${channels} channels; one or two can be read.` : null;
}

const isWave = (view: DataView): boolean =>
  view.byteLength >= HEADER && word(view, 0) === "RIFF" && word(view, 8) === "WAVE";

/** Reads 16, 24 and 32 bit WAV and floats, one or two channels; mono stands on both sides. The error is a sentence. */
export function readWav(bytes: Uint8Array): Result<StereoSound, string> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const other = view.byteLength >= 4 ? OTHER_FILES[word(view, 0)] : undefined;
  if (other) return fail(`${other} ${SAVE_AS}`);
  const { format, data } = isWave(view) ? findChunks(view) : NO_CHUNKS;
  if (!format || !data) return fail("This is no WAV file that can be read.");
  const why = whyNotRead(format);
  if (why !== null) return fail(why);
  const { tag, channels, sampleRate, bits } = format;
  const read = SAMPLES[`${tag} ${bits}`]!;
  const frame = (channels * bits) / 8;
  const length = Math.floor(data.size / frame);
  const [left, right] = [new Float32Array(length), new Float32Array(length)];
  const second = channels === 2 ? bits / 8 : 0;
  for (let i = 0; i < length; i++) {
    const at = data.at + i * frame;
    left[i] = finite(read(view, at));
    right[i] = finite(read(view, at + second));
  }
  return ok({ left, right, sampleRate });
}

/** A file of floats may hold anything. */
const finite = (x: number): number => (Number.isFinite(x) ? x : 0);

interface Layout {
  readonly tag: number;
  readonly bits: number;
  readonly write: (file: DataView, at: number, sample: number) => void;
}

function write({ left, right, sampleRate }: StereoSound, { tag, bits, write: put }: Layout): Uint8Array {
  const frame = (2 * bits) / 8;
  const size = left.length * frame;
  const bytes = new Uint8Array(HEADER + size);
  const file = new DataView(bytes.buffer);
  const name = (at: number, text: string) =>
    bytes.set(
      [...text].map((letter) => letter.charCodeAt(0)),
      at,
    );
  name(0, "RIFF");
  file.setUint32(4, HEADER - 8 + size, true);
  name(8, "WAVE");
  name(12, "fmt ");
  file.setUint32(16, 16, true);
  file.setUint16(20, tag, true);
  file.setUint16(22, 2, true);
  file.setUint32(24, sampleRate, true);
  file.setUint32(28, sampleRate * frame, true);
  file.setUint16(32, frame, true);
  file.setUint16(34, bits, true);
  name(36, "data");
  file.setUint32(40, size, true);
  for (let i = 0; i < left.length; i++) {
    put(file, HEADER + i * frame, left[i]!);
    put(file, HEADER + i * frame + bits / 8, right[i]!);
  }
  return bytes;
}

/** 24-bit whole numbers, for what is kept: what they leave out is below what is heard. */
export const writeWav24 = (sound: StereoSound): Uint8Array =>
  write(sound, {
    tag: PCM,
    bits: 24,
    write: (file, at, sample) => {
      const whole = Math.round(Math.min(1, Math.max(-1, sample)) * (2 ** 23 - 1));
      file.setUint16(at, whole & 0xffff, true);
      file.setInt8(at + 2, whole >> 16);
    },
  });

/** 32-bit float: nothing is lost and nothing clips. */
export const writeWav = (sound: StereoSound): Uint8Array =>
  write(sound, { tag: FLOAT, bits: 32, write: (file, at, sample) => file.setFloat32(at, sample, true) });
