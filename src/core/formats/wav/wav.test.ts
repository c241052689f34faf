import { describe, expect, it } from "vitest";
import { seededRandom } from "../../random";
import { readWav, writeWav, writeWav24 } from "./wav";

const random = seededRandom(3);
const SOUND = {
  left: Float32Array.from({ length: 999 }, () => random() * 2 - 1),
  right: new Float32Array(999).fill(-0.25),
  sampleRate: 44_100,
};

/** A file of another layout, put together byte by byte. */
function fileOf(
  [tag, channels, bits]: readonly [number, number, number],
  data: readonly number[],
  extra: readonly number[] = [],
) {
  const bytes = [
    ...[..."RIFF"].map((c) => c.charCodeAt(0)),
    ...[0, 0, 0, 0],
    ...[..."WAVE"].map((c) => c.charCodeAt(0)),
    ...extra,
    ...[..."fmt "].map((c) => c.charCodeAt(0)),
    ...[16, 0, 0, 0, tag, 0, channels, 0, 0x80, 0xbb, 0, 0, 0, 0, 0, 0, (channels * bits) / 8, 0, bits, 0],
    ...[..."data"].map((c) => c.charCodeAt(0)),
    ...[data.length, 0, 0, 0],
    ...data,
  ];
  return Uint8Array.from(bytes);
}

describe("a WAV file", () => {
  it("comes back as it went out, to the last bit", () => {
    expect(readWav(writeWav(SOUND))).toEqual({ ok: true, value: SOUND });
  });
  it("of 24 bits comes back within half of its last bit", () => {
    const read = readWav(writeWav24(SOUND));
    if (!read.ok) throw new Error(read.error);
    for (let i = 0; i < 999; i++) expect(Math.abs(read.value.left[i]! - SOUND.left[i]!)).toBeLessThan(1.3e-7);
  });
  it("of a kind that is not read is named", () => {
    const why = (bytes: Uint8Array) => {
      const read = readWav(bytes);
      return read.ok ? null : read.error;
    };
    expect(why(fileOf([1, 1, 8], [0, 1, 2, 3]))).toContain("not read: 8 bit. Save it as plain WAV");
    expect(why(fileOf([6, 1, 8], [0, 1]))).toContain("A-law");
    expect(why(fileOf([7, 1, 8], [0, 1]))).toContain("µ-law");
    expect(why(fileOf([99, 1, 16], [0, 1]))).toContain("format 99");
    expect(why(fileOf([1, 6, 16], [0, 1]))).toContain("6 channels");
    const rf64 = fileOf([1, 1, 16], [0, 1]);
    rf64.set([..."RF64"].map((c) => c.charCodeAt(0)));
    expect(why(rf64)).toContain("RF64");
    expect(why(Uint8Array.of(1, 2))).toContain("no WAV file");
  });
  it("of 16 bits and one channel stands on both sides; chunks that are not known are passed by", () => {
    const list = [..."LIST"].map((c) => c.charCodeAt(0)).concat([3, 0, 0, 0, 1, 2, 3, 0]);
    const read = readWav(fileOf([1, 1, 16], [0, 0x40, 0, 0xc0], list));
    expect(read).toEqual({
      ok: true,
      value: { left: Float32Array.from([0.5, -0.5]), right: Float32Array.from([0.5, -0.5]), sampleRate: 48_000 },
    });
  });
  it("that ends before its header says is read as far as it goes", () => {
    const read = readWav(writeWav(SOUND).slice(0, 44 + 8 * 100));
    expect(read.ok && read.value.left.length).toBe(100);
  });
  it("with numbers that are none is silent there", () => {
    const bytes = writeWav({
      ...SOUND,
      left: Float32Array.from([Number.NaN, 1, Number.POSITIVE_INFINITY]),
      right: new Float32Array(3),
    });
    const read = readWav(bytes);
    expect(read.ok && [...read.value.left]).toEqual([0, 1, 0]);
  });
  it("that is none, or of a kind that is not known, is refused in words", () => {
    for (const bytes of [
      new Uint8Array(0),
      new Uint8Array(60).fill(7),
      writeWav(SOUND).slice(0, 20),
      fileOf([2, 1, 4], [0]),
    ]) {
      const read = readWav(bytes);
      expect(!read.ok && read.error).toMatch(/\.$/);
    }
    expect(readWav(fileOf([1, 6, 16], []))).toMatchObject({
      error: "The file has 6 channels; one or two can be read.",
    });
  });
});
