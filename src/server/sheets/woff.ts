import { inflateSync } from "node:zlib";

/* WOFF 1.0 (W3C Recommendation, 2012): the tables of a font, each deflated. A reader of fonts would inflate them again for each letter. */

const WOFF_HEADER = 44;
const WOFF_ENTRY = 20;
const SFNT_HEADER = 12;
const SFNT_ENTRY = 16;
const SIGNATURE = 0x774f_4646;

const aligned = (length: number): number => (length + 3) & ~3;

/** The font within a WOFF file, as it was before it was packed: the same tables in the same order. Throws for any other file. */
export function unpackWoff(woff: Buffer): Buffer {
  if (woff.readUInt32BE(0) !== SIGNATURE) throw new Error("This is no WOFF 1.0 file.");
  const count = woff.readUInt16BE(12);
  const power = Math.floor(Math.log2(count));
  const head = Buffer.alloc(SFNT_HEADER + SFNT_ENTRY * count);
  woff.copy(head, 0, 4, 8);
  head.writeUInt16BE(count, 4);
  head.writeUInt16BE(16 * 2 ** power, 6);
  head.writeUInt16BE(power, 8);
  head.writeUInt16BE(16 * (count - 2 ** power), 10);
  const tables: Buffer[] = [];
  let place = head.length;
  for (let n = 0; n < count; n++) {
    const entry = WOFF_HEADER + WOFF_ENTRY * n;
    const [offset, packed, length] = [4, 8, 12].map((at) => woff.readUInt32BE(entry + at)) as [number, number, number];
    const data = woff.subarray(offset, offset + packed);
    const table = packed < length ? inflateSync(data) : data;
    if (table.length !== length) throw new Error("A table of this WOFF file is not as long as it says.");
    const at = SFNT_HEADER + SFNT_ENTRY * n;
    woff.copy(head, at, entry, entry + 4);
    woff.copy(head, at + 4, entry + 16, entry + 20);
    head.writeUInt32BE(place, at + 8);
    head.writeUInt32BE(length, at + 12);
    tables.push(Buffer.concat([table, Buffer.alloc(aligned(length) - length)]));
    place += aligned(length);
  }
  return Buffer.concat([head, ...tables]);
}
