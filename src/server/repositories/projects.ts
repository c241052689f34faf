import equal from "fast-deep-equal";
import type { ProjectRow } from "@/contracts/records";
import type { Project } from "@/core/projects/project";
import { liftProject } from "@/core/projects/migrations";
import { aboutOf } from "@/core/history/about";
import { Unreadable } from "../data/faults";
import type { Executor } from "../data/executor";
import type { DocumentTable, ProjectTable, UseTable } from "../data/tables";
import { insertDocument, readDocument, replaceDocument } from "./documents";
import { type Unkept, keepSometimes } from "./moments";
import { deleteStrips, headOf, withStrips, writeStrips } from "./project-strips";
import { type NewRevision, insertRevision } from "./revisions";

type StoredProject = Pick<
  ProjectTable,
  | "id"
  | "name"
  | "kind"
  | "revision"
  | "draft_preset"
  | "draft_version"
  | "document"
  | "binned_at"
  | "kept_size"
  | "unkept"
> &
  Pick<DocumentTable, "body"> & { readonly strip_bodies: string | null };

/** A project, or a draft, which is a project of one strip that no list shows. */
export interface ProjectRecord {
  readonly project: Project;
  readonly revision: number;
  readonly draft: { readonly preset: string | null; readonly version: number | null } | null;
  /** When it was put into the bin; null where it is not in it. */
  readonly binnedAt: string | null;
  /** Number of its document. */
  readonly document: number;
  readonly unkept: Unkept;
}

/** As `findProject`, where one that cannot be read is passed over among many. */
export const findReadable = (db: Executor, id: string): Promise<ProjectRecord | null> =>
  findProject(db, id).catch((error: unknown) => {
    if (error instanceof Unreadable) return null;
    throw error;
  });

/** `known`: as somebody knows it; where it is of the same revision still, nothing of it is read. */
export async function findProject(db: Executor, id: string, known?: ProjectRecord): Promise<ProjectRecord | null> {
  if (known) {
    const now = await db("projects").where({ id }).first("revision", "document", "binned_at");
    if (now?.revision === known.revision && now.document === known.document)
      return now.binned_at === known.binnedAt ? known : { ...known, binnedAt: now.binned_at };
  }
  const stored = await db("projects as p")
    .join("documents as d", "d.id", "p.document")
    .where("p.id", id)
    .select<StoredProject[]>(
      "p.id",
      "p.name",
      "p.kind",
      "p.revision",
      "p.draft_preset",
      "p.draft_version",
      "p.document",
      "p.binned_at",
      "p.kept_size",
      "p.unkept",
      "d.body",
      // In one statement, so that the two are of one revision.
      db.raw("(SELECT group_concat(s.body) FROM project_strips s WHERE s.project = p.id) AS strip_bodies"),
    )
    .first();
  if (!stored) return null;
  const draft = stored.kind === "draft" ? { preset: stored.draft_preset, version: stored.draft_version } : null;
  return {
    project: readDocument(stored.body, liftWith(stored.strip_bodies), `The project “${stored.name}”`),
    revision: stored.revision,
    draft,
    binnedAt: stored.binned_at,
    document: stored.document,
    unkept: { size: stored.kept_size, written: stored.unkept },
  };
}

/** Lifts a project with its strips, which are kept beside it. */
export const liftWith =
  (strips: string | null) =>
  (head: unknown): Project =>
    liftProject(withStrips(head, JSON.parse(`[${strips ?? ""}]`)));

export const columnsOf = (project: Project) => ({
  name: project.name,
  artist: project.artist,
  client: project.client,
  song: project.song,
  tempo: project.tempo,
  sample_rate: project.sampleRate,
  starter: project.starter ? (1 as const) : (0 as const),
  strips: project.strips.length,
});

export interface NewProjectRecord {
  readonly project: Project;
  readonly at: string;
  readonly draft?: { readonly preset: string | null; readonly version: number | null };
}

export async function insertProject(db: Executor, { project, at, draft }: NewProjectRecord): Promise<void> {
  const document = await insertDocument(db, headOf(project));
  await db("projects").insert({
    id: project.id,
    kind: draft ? "draft" : "project",
    ...columnsOf(project),
    revision: 0,
    changed_at: at,
    draft_preset: draft?.preset ?? null,
    draft_version: draft?.version ?? null,
    document,
  });
  await writeStrips(db, project, null, draft !== undefined);
}

/** Writes the project as it is after a change, and the change. */
export async function appendRevision(
  db: Executor,
  record: ProjectRecord,
  project: Project,
  revision: NewRevision,
): Promise<ProjectRecord> {
  const n = record.revision + 1;
  const head = headOf(project);
  if (!equal(head, headOf(record.project))) await replaceDocument(db, record.document, head);
  const [before, after] = [record.project, project];
  const about = aboutOf(revision.steps, { before, after });
  const written = await insertRevision(db, { ...revision, project: project.id, n, about });
  const unkept = record.draft
    ? record.unkept
    : await keepSometimes(db, record.unkept, {
        before: { n: record.revision, project: before },
        after: { n, project: after },
        written,
      });
  await db("projects")
    .where({ id: project.id })
    .update({
      ...columnsOf(project),
      revision: n,
      changed_at: revision.at,
      draft_preset: record.draft?.preset ?? null,
      draft_version: record.draft?.version ?? null,
      kept_size: unkept.size,
      unkept: unkept.written,
    });
  await writeStrips(db, project, before, record.draft !== null);
  return { ...record, project, revision: n, unkept };
}

/** Whether a strip of a project goes by a version, or a draft does. */
export async function isUsed(db: Executor, preset: string, version: number): Promise<boolean> {
  if (await db("uses").where({ preset, version }).first("strip")) return true;
  return (await db("projects").where({ draft_preset: preset, draft_version: version }).first("id")) !== undefined;
}

export type UseRow = Omit<UseTable, "preset">;

export const listUses = (db: Executor, preset: string): Promise<UseRow[]> =>
  db("uses").where({ preset }).select("project", "strip", "version");

/** Projects, the last changed first: those that are in the bin, or those that are not. */
export async function listProjects(db: Executor, binned = false): Promise<readonly ProjectRow[]> {
  const rows = await db("projects")
    .where({ kind: "project" })
    [binned ? "whereNotNull" : "whereNull"]("binned_at")
    .orderBy("changed_at", "desc")
    .select(
      "id",
      "name",
      "artist",
      "client",
      "song",
      "tempo",
      "sample_rate",
      "starter",
      "strips",
      "revision",
      "changed_at",
      "binned_at",
    );
  return rows.map(({ sample_rate, changed_at, binned_at, starter, ...row }) => ({
    ...row,
    binnedAt: binned_at,
    starter: starter === 1,
    sampleRate: sample_rate,
    changedAt: changed_at,
  }));
}

/** Scratch drafts that something was done to, the last changed first. */
export async function listChangedDrafts(db: Executor): Promise<readonly { id: string; changedAt: string }[]> {
  const rows = await db("projects")
    .where({ kind: "draft", draft_preset: null })
    .andWhere("revision", ">", 0)
    .orderBy("changed_at", "desc")
    .select("id", "changed_at");
  return rows.map(({ id, changed_at }) => ({ id, changedAt: changed_at }));
}

/** Drafts of a version of a preset, or scratch drafts; the last opened first. */
export async function findDrafts(
  db: Executor,
  preset: string | null,
  version: number | null,
): Promise<readonly string[]> {
  const rows = await db("projects")
    .where({ kind: "draft", draft_preset: preset, draft_version: version })
    .orderBy("changed_at", "desc")
    .select("id");
  return rows.map((row) => row.id);
}

export async function deleteDraft(db: Executor, id: string): Promise<boolean> {
  const draft = await db("projects").where({ id, kind: "draft" }).first("document");
  if (!draft) return false;
  await db("revisions").where({ project: id }).delete();
  await deleteStrips(db, id);
  await db("projects").where({ id }).delete();
  await db("documents").where({ id: draft.document }).delete();
  return true;
}

/** Puts a project into the bin, or takes it out. */
export async function setBinned(db: Executor, id: string, at: string | null): Promise<void> {
  await db("projects").where({ id, kind: "project" }).update({ binned_at: at });
}

/** What some projects are called, wherever they are, by id. */
export async function projectNames(db: Executor, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const rows = await db("projects")
    .whereIn("id", [...ids])
    .select("id", "name");
  return new Map(rows.map(({ id, name }) => [id, name]));
}

/** At which revision some projects are. */
export async function revisionsOf(db: Executor, ids: readonly string[]): Promise<ReadonlyMap<string, number>> {
  const rows = await db("projects")
    .where({ kind: "project" })
    .whereIn("id", [...ids])
    .select("id", "revision");
  return new Map(rows.map(({ id, revision }) => [id, revision]));
}

/** When a project was changed last; null where it is not there. */
export const changedAt = async (db: Executor, id: string): Promise<string | null> =>
  (await db("projects").where({ id }).first("changed_at"))?.changed_at ?? null;

/** How much room a project takes with all that was ever done to it, in bytes. */
export async function sizeOf(db: Executor, id: string): Promise<number> {
  const [row] = await db.raw<{ readonly size: number }[]>(
    `SELECT
       (SELECT octet_length(d.body) FROM projects p JOIN documents d ON d.id = p.document WHERE p.id = :id)
       + (SELECT coalesce(sum(octet_length(body) + octet_length(face)), 0) FROM project_strips WHERE project = :id)
       + (SELECT coalesce(sum(octet_length(steps) + octet_length(label) + coalesce(octet_length(about), 0)), 0)
          FROM revisions WHERE project = :id)
       + (SELECT coalesce(sum(length(packed)), 0) FROM moments WHERE project = :id) AS size`,
    { id },
  );
  return row?.size ?? 0;
}

export async function countProjects(db: Executor): Promise<number> {
  const [{ n } = { n: 0 }] = await db("projects").where({ kind: "project" }).whereNull("binned_at").count({ n: "*" });
  return Number(n);
}
