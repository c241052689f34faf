import { createHash } from "node:crypto";
import type { Fault, Job, Mended } from "@/contracts/archive";
import { readWav } from "@/core/formats/wav/wav";
import { ok } from "@/core/result";
import { contentIn } from "../../check/check";
import { incomingFrom } from "../../archive/incoming";
import { type OpenedArchive, openArchive } from "../../archive/open-archive";
import { statementsOf } from "../../data/statements";
import type { Note } from "../../data/changes";
import type { Executor } from "../../data/executor";
import type { VersionTable } from "../../data/tables";
import type { Outcome } from "../../failure";
import { deriveProject, deriveSound, listUnindexed } from "../../repositories/derived";
import { replaceDocument } from "../../repositories/documents";
import { findMedia, insertMedia } from "../../repositories/media";
import type { Context } from "../../store/context";
import { startJob } from "../../store/jobs";
import { inTransaction } from "../../store/transaction";
import { listFiles, pathOf } from "./files";

/** Begins to check everything, in a thread of its own. */
export const beginCheck = (context: Context): Job =>
  startJob({ title: "Check everything" }, async (onProgress) => {
    const { faults, counts } = await context.runCheck({ folder: context.folder }, onProgress);
    return ok({ kind: "checked", checked: { at: context.now().toISOString(), faults: [...faults], counts } });
  });

interface Mending {
  readonly context: Context;
  readonly tx: Executor;
  readonly note: Note;
  /** Backups and archives of everything, the newest first. */
  readonly copies: readonly OpenedArchive[];
}

/** A version that cannot be read is taken from the newest copy in which the same sound can be. */
async function mendVersion({ tx, note, copies }: Mending, { id, version = 0 }: Fault): Promise<boolean> {
  const row = (await statementsOf(tx))<Pick<VersionTable, "document" | "fingerprint"> & { readonly body: string }>(
    `SELECT v.document, v.fingerprint, d.body FROM preset_versions v JOIN documents d ON d.id = v.document
     WHERE v.preset = ? AND v.version = ?`,
  ).get(id, version);
  // One that can be read by now stays as it is.
  if (!row || contentIn(row.body).ok) return false;
  for (const archive of copies)
    for await (const { document } of incomingFrom(archive).presets()) {
      if (!document.ok || document.value.id !== id) continue;
      const good = document.value.versions.find(({ fingerprint }) => fingerprint === row.fingerprint);
      if (!good) break;
      await replaceDocument(tx, row.document, good.content);
      await deriveSound(tx, id);
      note({ kind: "preset", id });
      return true;
    }
  return false;
}

/** A sound file that is not what it is kept as, or is missing, is taken from the newest copy that has it. */
async function mendMedia({ tx, note, copies, context }: Mending, { id: hash }: Fault): Promise<boolean> {
  for (const archive of copies) {
    const head = (await incomingFrom(archive).media()).find((one) => one.hash === hash);
    const bytes = head && (await incomingFrom(archive).mediaBytes(hash));
    if (!bytes || createHash("sha256").update(bytes).digest("hex") !== hash || !readWav(bytes).ok) continue;
    if (await findMedia(tx, hash)) await tx("media").where({ hash }).update({ bytes });
    else await insertMedia(tx, { ...head, addedAt: context.now().toISOString() }, bytes);
    note({ kind: "media", id: hash });
    return true;
  }
  return false;
}

async function mendDerived({ tx, note }: Mending, { of, id }: Fault): Promise<boolean> {
  const isProject = (await tx("projects").where({ id }).first("id")) !== undefined;
  if (of === "index" && isProject) {
    await deriveProject(tx, id);
    note({ kind: "project", id });
    return true;
  }
  const sounds = id === "" ? await listUnindexed(tx) : [id];
  for (const sound of sounds) {
    await deriveSound(tx, sound);
    note({ kind: "preset", id: sound });
  }
  return true;
}

async function mendOne(mending: Mending, fault: Fault): Promise<boolean> {
  if (fault.mend === "derive") return mendDerived(mending, fault);
  if (fault.mend !== "backup") return false;
  return fault.of === "media" ? mendMedia(mending, fault) : mendVersion(mending, fault);
}

/** Every archive here that can be opened, the newest first. */
async function openCopies(context: Context): Promise<readonly OpenedArchive[]> {
  const opened: OpenedArchive[] = [];
  for (const { name, kind } of listFiles(context)) {
    const path = kind === "copy" ? null : pathOf(context, name);
    const archive = path && (await openArchive(path).catch(() => null));
    if (archive) opened.push(archive);
  }
  return opened;
}

const nameOf = ({ name, id }: Fault): string => (name === "" ? id : `“${name}”`);

/** Mends what can be: what is derived is made anew, what cannot be read is taken from a backup. Nothing is thrown away. */
export async function mendFaults(context: Context, faults: readonly Fault[]): Promise<Outcome<Mended>> {
  const copies = faults.some(({ mend }) => mend === "backup") ? await openCopies(context) : [];
  try {
    return await inTransaction(context, async (tx, note) => {
      const left: string[] = [];
      for (const fault of faults)
        if (!(await mendOne({ context, tx, note, copies }, fault)))
          left.push(
            `${nameOf(fault)}: ${fault.mend === "backup" ? "no backup here has it" : "this can only be mended by hand"}.`,
          );
      return ok({ mended: faults.length - left.length, left });
    });
  } finally {
    for (const archive of copies) archive.close();
  }
}
