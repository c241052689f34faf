import { crc32 } from "node:zlib";
import yauzl from "yauzl";
import { type ListedEntry, MOST_ENTRIES, checkList } from "@/core/archive/manifest";

/** An archive, or a document, that is not taken, in words that name what is wrong and where. Nothing was changed. */
export class NotTaken extends Error {
  /** Its words are for people. */
  readonly inWords = true;
}

/** A ZIP that is open to be read, of which the list was checked. */
export interface ZipIn {
  readonly entries: readonly ListedEntry[];
  /** The bytes of a file, a piece at a time. Throws `NotTaken` where they are not those that were put in. */
  stream(path: string): AsyncGenerator<Uint8Array>;
  close(): void;
}

const LINK = 0xa000;
const KIND_OF_FILE = 0xf000;

const listed = (entry: yauzl.Entry): ListedEntry => ({
  path: yauzl.getFileNameLowLevel(entry.generalPurposeBitFlag, entry.fileNameRaw, entry.extraFields, true),
  bytes: entry.uncompressedSize,
  packedBytes: entry.compressedSize,
  isLink: ((entry.externalFileAttributes >>> 16) & KIND_OF_FILE) === LINK,
  isLocked: entry.isEncrypted(),
});

/** What the reader says, in our words. */
function wordsOf(error: unknown): string {
  const said = error instanceof Error ? error.message : String(error);
  if (/end of central directory|not a zip file/i.test(said))
    return "This is no archive, or it is cut short: its list of files is missing.";
  return `This archive is damaged: ${said}.`;
}

async function listAll(zip: yauzl.ZipFile): Promise<ReadonlyMap<string, yauzl.Entry>> {
  if (zip.entryCount > MOST_ENTRIES)
    throw new NotTaken(`This archive lists ${zip.entryCount} files; no library has so many. Nothing of it was read.`);
  const found: { readonly entry: yauzl.Entry; readonly said: ListedEntry }[] = [];
  for await (const entry of zip.eachEntry()) {
    const said = listed(entry);
    // Folders by themselves hold nothing; other programs list them.
    if (said.path.endsWith("/") && said.bytes === 0) continue;
    found.push({ entry, said });
  }
  const checked = checkList(found.map(({ said }) => said));
  if (!checked.ok) throw new NotTaken(checked.error);
  return new Map(found.map(({ entry, said }) => [said.path, entry]));
}

async function* streamOf(zip: yauzl.ZipFile, entry: yauzl.Entry, path: string): AsyncGenerator<Uint8Array> {
  let sum = 0;
  try {
    for await (const chunk of await zip.openReadStreamPromise(entry)) {
      const bytes = chunk as Buffer;
      sum = crc32(bytes, sum);
      yield bytes;
    }
  } catch (error) {
    throw new NotTaken(`“${path}” is damaged: ${error instanceof Error ? error.message : String(error)}.`);
  }
  if (sum !== entry.crc32) throw new NotTaken(`“${path}” is damaged: its CRC is not the one that it was packed with.`);
}

/** Opens a ZIP and checks what it lists. Throws `NotTaken`, with nothing read, for what is none or would do harm. */
export async function openZip(file: string): Promise<ZipIn> {
  // Names are judged by our own rules, which say what is wrong with them.
  const options = { lazyEntries: true, autoClose: false, decodeStrings: false };
  const zip = await yauzl.openPromise(file, options).catch((error: unknown) => {
    if (error instanceof Error && "code" in error) throw error;
    throw new NotTaken(wordsOf(error));
  });
  try {
    const entries = await listAll(zip).catch((error: unknown) => {
      throw error instanceof NotTaken ? error : new NotTaken(wordsOf(error));
    });
    return {
      entries: [...entries.values()].map(listed),
      stream: (path) => {
        const entry = entries.get(path);
        if (!entry) throw new NotTaken(`“${path}” is missing in the archive.`);
        return streamOf(zip, entry, path);
      },
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}
