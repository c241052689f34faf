import { z } from "zod";
import { type Result, fail, ok } from "../result";
import { FORM } from "./documents";

export const MANIFEST = "manifest.json";
export const README = "READ ME.txt";

/** What was archived: everything, or a part, in words. */
export const ScopeSchema = z.union([
  z.strictObject({ kind: z.literal("all") }),
  z.strictObject({ kind: z.literal("part"), words: z.string().min(1).max(400) }),
]);
export type Scope = z.infer<typeof ScopeSchema>;

const Sha256 = z.string().regex(/^[0-9a-f]{64}$/);

export const ManifestSchema = z.strictObject({
  diathesis: z.literal("archive"),
  form: z.int().min(1),
  madeAt: z.iso.datetime(),
  /** The Diathesis that wrote it. */
  madeBy: z.string().max(80),
  scope: ScopeSchema,
  counts: z.strictObject({
    presets: z.int().min(0),
    versions: z.int().min(0),
    folders: z.int().min(0),
    projects: z.int().min(0),
    drafts: z.int().min(0),
    media: z.int().min(0),
  }),
  /** Every file of the archive but this one, with its size and the SHA-256 of its bytes. */
  entries: z.array(z.strictObject({ path: z.string().min(1).max(300), bytes: z.int().min(0), sha256: Sha256 })),
});
export type Manifest = z.infer<typeof ManifestSchema>;

/** Files of an archive, far more than one of any library has. */
export const MOST_ENTRIES = 100_000;

/** A file that takes so much more room when it is unpacked was made to fill the disk. */
const MOST_GROWTH = 400;
/** Below this size nothing is filled, however much it grows; in bytes. */
const SMALL = 1_000_000;
/** All files together, unpacked; in bytes. */
const MOST_BYTES = 64 * 2 ** 30;

/** A file as an archive's own list says that it is. */
export interface ListedEntry {
  readonly path: string;
  readonly bytes: number;
  readonly packedBytes: number;
  readonly isLink: boolean;
  readonly isLocked: boolean;
}

const SEGMENT = /^[\p{L}\p{N}_][\p{L}\p{N} ._-]*$/u;

/** Why a file of an archive is not touched; null for one that may be read. */
function whyNot({ path, bytes, packedBytes, isLink, isLocked }: ListedEntry): string | null {
  if (path.startsWith("/") || /^[A-Za-z]:/.test(path)) return "it has an absolute path";
  if (path.includes("\\")) return "its path has a backslash";
  const segments = path.split("/");
  if (segments.some((segment) => segment === ".." || segment === ".")) return "its path leads out of the archive";
  if (!segments.every((segment) => SEGMENT.test(segment))) return "its path has signs that no archive of ours has";
  if (isLink) return "it is a link to another file";
  if (isLocked) return "it is locked by a password";
  if (bytes > SMALL && bytes > MOST_GROWTH * Math.max(1, packedBytes))
    return "unpacked it would take far more room than any document does";
  return null;
}

/** Checks what an archive lists before anything of it is read. The error is a sentence that names the file. */
export function checkList(entries: readonly ListedEntry[]): Result<null, string> {
  const seen = new Map<string, string>();
  let total = 0;
  for (const entry of entries) {
    const why = whyNot(entry);
    if (why !== null) return fail(`“${entry.path}” is not read: ${why}.`);
    const folded = entry.path.normalize("NFC").toLowerCase();
    const before = seen.get(folded);
    if (before === entry.path) return fail(`“${entry.path}” is in the archive twice.`);
    if (before !== undefined) return fail(`“${before}” and “${entry.path}” differ only in capitals.`);
    seen.set(folded, entry.path);
    total += entry.bytes;
  }
  return total > MOST_BYTES ? fail("Unpacked it would take more room than any library does.") : ok(null);
}

/** Whether an archive holds what its manifest says, file by file. The error is a sentence that names the file. */
export function checkManifest(
  manifest: Manifest,
  entries: readonly Pick<ListedEntry, "path" | "bytes">[],
): Result<null, string> {
  const listed = new Map(manifest.entries.map((entry) => [entry.path, entry]));
  if (listed.size !== manifest.entries.length) return fail(`“${MANIFEST}” names a file twice.`);
  for (const { path, bytes } of entries) {
    if (path === MANIFEST) continue;
    const said = listed.get(path);
    if (!said) return fail(`“${path}” is in the archive, and its “${MANIFEST}” does not know it.`);
    if (said.bytes !== bytes) return fail(`“${path}” has ${bytes} bytes, and should have ${said.bytes}.`);
    listed.delete(path);
  }
  const [missing] = listed.keys();
  return missing === undefined ? ok(null) : fail(`“${missing}” is missing in the archive.`);
}

/** Why a manifest is not ours to read; null where it is. */
export const whyNotRead = ({ form }: Pick<Manifest, "form">): string | null =>
  form > FORM ? "This archive was written by a newer Diathesis; use that one." : null;
