import equal from "fast-deep-equal";
import type { ProjectRow, RevisionRow } from "@/contracts/records";
import type { Project } from "@/core/projects/project";
import { liftProject } from "@/core/projects/migrations";
import { liftSteps } from "@/core/recall/migrations";
import type { Step } from "@/core/recall/steps";
import { Unreadable } from "../data/faults";
import type { Executor } from "../data/executor";
import type { DocumentTable, ProjectTable, RevisionTable, UseTable } from "../data/tables";
import { insertDocument, readDocument, replaceDocument } from "./documents";
import { deleteStrips, headOf, withStrips, writeStrips } from "./project-strips";

type StoredProject = Pick<
  ProjectTable,
  "id" | "name" | "kind" | "revision" | "draft_preset" | "draft_version" | "document"
> &
  Pick<DocumentTable, "body"> & { readonly strip_bodies: string | null };

/** A project, or a draft, which is a project of one strip that no list shows. */
export interface ProjectRecord {
  readonly project: Project;
  readonly revision: number;
  readonly draft: { readonly preset: string | null; readonly version: number | null } | null;
  /** Number of its document. */
  readonly document: number;
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
    const now = await db("projects").where({ id }).first("revision", "document");
    if (now?.revision === known.revision && now.document === known.document) return known;
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
    document: stored.document,
  };
}

/** Lifts a project with its strips, which are kept beside it. */
export const liftWith =
  (strips: string | null) =>
  (head: unknown): Project =>
    liftProject(withStrips(head, JSON.parse(`[${strips ?? ""}]`)));

const columnsOf = (project: Project) => ({
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

export interface NewRevision {
  readonly label: string;
  readonly steps: readonly Step[];
  readonly at: string;
  readonly undoes?: number;
  readonly redoes?: number;
  readonly window: string | null;
}

/** Writes the project as it is after a revision, and the revision. Returns its number. */
export async function appendRevision(
  db: Executor,
  record: ProjectRecord,
  project: Project,
  revision: NewRevision,
): Promise<number> {
  const n = record.revision + 1;
  const head = headOf(project);
  if (!equal(head, headOf(record.project))) await replaceDocument(db, record.document, head);
  await db("projects")
    .where({ id: project.id })
    .update({
      ...columnsOf(project),
      revision: n,
      changed_at: revision.at,
      draft_preset: record.draft?.preset ?? null,
      draft_version: record.draft?.version ?? null,
    });
  await db("revisions").insert({
    project: project.id,
    n,
    at: revision.at,
    label: revision.label,
    steps: JSON.stringify(revision.steps),
    undoes: revision.undoes ?? null,
    redoes: revision.redoes ?? null,
    window: revision.window,
  });
  await writeStrips(db, project, record.project, record.draft !== null);
  return n;
}

/** Whether a strip of a project goes by a version, or a draft does. */
export async function isUsed(db: Executor, preset: string, version: number): Promise<boolean> {
  if (await db("uses").where({ preset, version }).first("strip")) return true;
  return (await db("projects").where({ draft_preset: preset, draft_version: version }).first("id")) !== undefined;
}

export type UseRow = Omit<UseTable, "preset">;

export const listUses = (db: Executor, preset: string): Promise<UseRow[]> =>
  db("uses").where({ preset }).select("project", "strip", "version");

export async function listProjects(db: Executor): Promise<readonly ProjectRow[]> {
  const rows = await db("projects")
    .where({ kind: "project" })
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
    );
  return rows.map(({ sample_rate, changed_at, starter, ...row }) => ({
    ...row,
    starter: starter === 1,
    sampleRate: sample_rate,
    changedAt: changed_at,
  }));
}

/** Numbers only, for finding what an undo undoes. */
export type RevisionLink = Pick<RevisionTable, "n" | "label" | "undoes" | "redoes" | "window">;

export const listLinks = (db: Executor, project: string): Promise<RevisionLink[]> =>
  db("revisions").where({ project }).orderBy("n").select("n", "label", "undoes", "redoes", "window");

/** Newest first. */
export async function listRevisions(db: Executor, project: string, above = 0): Promise<readonly RevisionRow[]> {
  const rows = await db("revisions")
    .where({ project })
    .andWhere("n", ">", above)
    .orderBy("n", "desc")
    .select("n", "at", "label", "undoes", "redoes", "steps");
  return rows.map((row) => ({ ...row, steps: [...liftSteps(JSON.parse(row.steps))] }));
}

export async function getSteps(db: Executor, project: string, n: number): Promise<readonly Step[]> {
  const row = await db("revisions").where({ project, n }).first("steps");
  if (!row) throw new Error(`${project} has no revision ${n}`);
  return liftSteps(JSON.parse(row.steps));
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

export async function countProjects(db: Executor): Promise<number> {
  const [{ n } = { n: 0 }] = await db("projects").where({ kind: "project" }).count({ n: "*" });
  return Number(n);
}
