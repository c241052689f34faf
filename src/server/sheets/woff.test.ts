import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { create } from "fontkit";
import { describe, expect, it } from "vitest";
import { unpackWoff } from "./woff";

const { resolve } = createRequire(import.meta.url);
const packed = readFileSync(
  resolve("@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff"),
);

/** Of a table of bytes, as OpenType says: the sum of its 32-bit words. */
function sumOf(table: Buffer): number {
  const padded = Buffer.concat([table, Buffer.alloc((4 - (table.length % 4)) % 4)]);
  let sum = 0;
  for (let at = 0; at < padded.length; at += 4) sum = (sum + padded.readUInt32BE(at)) >>> 0;
  return sum;
}

describe("a font out of a WOFF file", () => {
  const font = unpackWoff(packed);

  it("is as long as the file says, and each of its tables has the sum that stands beside it", () => {
    expect(font.length).toBe(packed.readUInt32BE(16));
    const count = font.readUInt16BE(4);
    expect(count).toBeGreaterThan(8);
    for (let n = 0; n < count; n++) {
      const entry = 12 + 16 * n;
      const tag = font.toString("latin1", entry, entry + 4);
      const [sum, offset, length] = [4, 8, 12].map((at) => font.readUInt32BE(entry + at)) as [number, number, number];
      expect(offset % 4).toBe(0);
      // The head's own sum is made with one of its fields left out.
      if (tag !== "head") expect(sumOf(font.subarray(offset, offset + length)), tag).toBe(sum);
    }
  });

  it("has the letters of the file", () => {
    const [before, after] = [create(packed), create(font)];
    if (!("characterSet" in before) || !("characterSet" in after)) throw new Error("a collection");
    expect(after.characterSet).toEqual(before.characterSet);
    expect(after.glyphForCodePoint(0x52).path.toSVG()).toBe(before.glyphForCodePoint(0x52).path.toSVG());
  });

  it("refuses what is no WOFF file", () => {
    expect(() => unpackWoff(font)).toThrow("no WOFF");
  });
});
