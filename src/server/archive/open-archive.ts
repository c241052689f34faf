import { createHash } from "node:crypto";
import { parseFiled } from "@/core/archive/documents";
import { MANIFEST, type Manifest, ManifestSchema, checkManifest, whyNotRead } from "@/core/archive/manifest";
import { NotTaken, type ZipIn, openZip } from "./zip-in";

/** A document that is read in one piece is not larger than this, in bytes. */
const MOST_WHOLE = 256 * 2 ** 20;

/** An archive that is open to be read: its list and its manifest were checked. */
export interface OpenedArchive {
  readonly manifest: Manifest;
  /** Reads everything once and holds it against its sums. `onBytes` hears how many bytes were read since it heard last. */
  verify(onBytes: (bytes: number) => void): Promise<void>;
  /** A document. */
  json(path: string): Promise<unknown>;
  /** The lines of a file, each with its number, from 1. */
  lines(path: string): AsyncGenerator<{ readonly n: number; readonly text: string }>;
  bytes(path: string): Promise<Buffer>;
  paths(folder: string, ending: string): readonly string[];
  close(): void;
}

async function wholeOf(zip: ZipIn, path: string): Promise<Buffer> {
  const entry = zip.entries.find((one) => one.path === path);
  if (!entry) throw new NotTaken(`“${path}” is missing in the archive.`);
  if (entry.bytes > MOST_WHOLE) throw new NotTaken(`“${path}” is not read: it is larger than any document.`);
  const chunks: Uint8Array[] = [];
  for await (const chunk of zip.stream(path)) chunks.push(chunk);
  return Buffer.concat(chunks);
}

function parsed(text: Buffer, path: string): unknown {
  try {
    return JSON.parse(new TextDecoder("utf-8", { fatal: true }).decode(text));
  } catch {
    throw new NotTaken(`“${path}” is no JSON.`);
  }
}

async function* linesOf(zip: ZipIn, path: string): AsyncGenerator<{ readonly n: number; readonly text: string }> {
  const decoder = new TextDecoder("utf-8");
  let [rest, n] = ["", 0];
  for await (const chunk of zip.stream(path)) {
    const pieces = (rest + decoder.decode(chunk, { stream: true })).split("\n");
    rest = pieces.pop() ?? "";
    if (rest.length > MOST_WHOLE)
      throw new NotTaken(`“${path}” is not read: a line of it is larger than any document.`);
    for (const text of pieces) yield { n: ++n, text };
  }
  if (rest !== "") yield { n: ++n, text: rest };
}

async function verifyAll(zip: ZipIn, manifest: Manifest, onBytes: (bytes: number) => void): Promise<void> {
  for (const { path, sha256 } of manifest.entries) {
    const sum = createHash("sha256");
    for await (const chunk of zip.stream(path)) {
      sum.update(chunk);
      onBytes(chunk.length);
    }
    if (sum.digest("hex") !== sha256)
      throw new NotTaken(`“${path}” is not what was archived: its SHA-256 is another than “${MANIFEST}” says.`);
  }
}

/** Opens an archive. Throws `NotTaken`, in words that name the file and the reason, for what is none, or not whole. */
export async function openArchive(file: string): Promise<OpenedArchive> {
  const zip = await openZip(file);
  try {
    if (!zip.entries.some(({ path }) => path === MANIFEST))
      throw new NotTaken(`This is no archive of Diathesis: “${MANIFEST}” is missing in it.`);
    const given = parsed(await wholeOf(zip, MANIFEST), MANIFEST);
    const read = parseFiled(ManifestSchema, given);
    if (!read.ok) throw new NotTaken(`“${MANIFEST}” is not understood: ${read.error.path}: ${read.error.message}`);
    const newer = whyNotRead(read.value);
    if (newer !== null) throw new NotTaken(newer);
    const checked = checkManifest(read.value, zip.entries);
    if (!checked.ok) throw new NotTaken(checked.error);
    return {
      manifest: read.value,
      verify: (onBytes) => verifyAll(zip, read.value, onBytes),
      json: async (path) => parsed(await wholeOf(zip, path), path),
      lines: (path) => linesOf(zip, path),
      bytes: (path) => wholeOf(zip, path),
      paths: (folder, ending) =>
        zip.entries
          .map(({ path }) => path)
          .filter((path) => path.startsWith(folder) && path.endsWith(ending))
          .sort(),
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}
