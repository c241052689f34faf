import { type FileHandle, open } from "node:fs/promises";
import { createHash } from "node:crypto";
import { promisify } from "node:util";
import { crc32, deflateRaw } from "node:zlib";
import { Zip, type ZipInputFile } from "fflate";

/** A file that goes into a ZIP. */
export interface OutFile {
  readonly path: string;
  readonly bytes: Uint8Array;
  /** What hardly gets smaller lies in it as it is. */
  readonly isPacked: boolean;
}

/** What was written of a file. */
export interface WrittenFile {
  readonly path: string;
  readonly bytes: number;
  readonly sha256: string;
}

/** Thrown for what a ZIP without extensions cannot hold. */
export class TooMuchForAZip extends Error {
  /** Its words are for people. */
  readonly inWords = true;
}

/** A ZIP without extensions has 32 bits for a place in it. */
const MOST_BYTES = 2 ** 32 - 2 ** 20;
const MOST_FILES = 65_000;

/** What waits to be written, in bytes, before it is waited for. */
const MOST_WAITING = 2 ** 22;

const deflate = promisify<Uint8Array, Buffer>(deflateRaw);

/** Writes a ZIP into a file that is open, one file after the other. */
export class ZipOut {
  private readonly zip: Zip;
  private waiting: Uint8Array[] = [];
  private waitingBytes = 0;
  private written = 0;
  private files = 0;
  private isEnded = false;
  /** Files that are being packed, in their order: others are gathered meanwhile. */
  private packing: Promise<void> = Promise.resolve();
  private underWay = 0;

  private constructor(
    private readonly file: FileHandle,
    private readonly at: Date,
  ) {
    this.zip = new Zip((error, chunk) => {
      if (error) throw error;
      this.waiting.push(chunk);
      this.waitingBytes += chunk.length;
    });
  }

  /** Begins a ZIP in a new file. `at`: when all in it was made. Throws where there is a file of the name. */
  static async begin(path: string, at: Date): Promise<ZipOut> {
    return new ZipOut(await open(path, "wx"), at);
  }

  /** Hands over a file; it is waited for only where several are being packed. */
  async add({ path, bytes, isPacked }: OutFile): Promise<WrittenFile> {
    const packed = isPacked ? deflate(bytes) : Promise.resolve(bytes);
    // Whoever waits for those before it hears of a fault in their turn.
    packed.catch(() => undefined);
    this.underWay += 1;
    this.packing = this.packing.then(async () => this.put(path, bytes, { packed: await packed, isPacked }));
    this.packing.catch(() => undefined);
    if (this.underWay > MOST_UNDER_WAY) await this.packing;
    return { path, bytes: bytes.length, sha256: createHash("sha256").update(bytes).digest("hex") };
  }

  private async put(
    path: string,
    bytes: Uint8Array,
    { packed, isPacked }: { readonly packed: Uint8Array; readonly isPacked: boolean },
  ): Promise<void> {
    this.underWay -= 1;
    this.files += 1;
    if (this.written + this.waitingBytes + packed.length > MOST_BYTES || this.files > MOST_FILES)
      throw new TooMuchForAZip("This is more than one archive holds: 4 GB. Archive it in parts, folder by folder.");
    const entry: ZipInputFile & { ondata?: (error: null, chunk: Uint8Array, isLast: boolean) => void } = {
      filename: path,
      size: bytes.length,
      crc: crc32(bytes),
      compression: isPacked ? 8 : 0,
      mtime: this.at,
    };
    this.zip.add(entry);
    entry.ondata?.(null, packed, true);
    if (this.waitingBytes > MOST_WAITING) await this.flush();
  }

  /** Ends the ZIP; what is in it is on the disk by then. */
  async end(): Promise<void> {
    await this.packing;
    this.zip.end();
    await this.flush();
    await this.file.sync();
    this.isEnded = true;
    await this.file.close();
  }

  /** Lets go of the file, where it has come to no end. */
  async giveUp(): Promise<void> {
    if (this.isEnded) return;
    this.isEnded = true;
    await this.packing.catch(() => undefined);
    await this.file.close().catch(() => undefined);
  }

  private async flush(): Promise<void> {
    const chunks = this.waiting;
    this.waiting = [];
    this.written += this.waitingBytes;
    this.waitingBytes = 0;
    // On a disk that is nearly full a system writes a part and says so, without a fault: this goes on until all is written, or none can be.
    await this.file.appendFile(Buffer.concat(chunks));
  }
}

/** Files that are packed at once. */
const MOST_UNDER_WAY = 3;
