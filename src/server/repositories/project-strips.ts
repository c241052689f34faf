import { groupOf } from "@/core/projects/nesting";
import type { Project } from "@/core/projects/project";
import { faceOf } from "@/core/search/strip-entry";
import { type Strip, presetsIn } from "@/core/strips/strip";
import { type Statements, statementsOf } from "../data/statements";
import type { UseTable } from "../data/tables";
import type { Executor } from "../data/executor";

/* The strips of a project, a row each, with what each is found by and which presets it came from. */

/** Which strip has something from which preset, and of which version: the index behind "used in". */
export const usesOn = (project: string, strip: Strip): readonly UseTable[] => {
  const newest = new Map(presetsIn(strip).map((from) => [from.preset, from.version]));
  return [...newest].map(([preset, version]) => ({ project, strip: strip.id, preset, version }));
};

/** As the project without its strips is kept: with their ids, in order. */
export const headOf = (project: Project): unknown => ({ ...project, strips: project.strips.map(({ id }) => id) });

/** The project that a head and its strips are together; in a form of before where these are. Throws where a strip is missing. */
export function withStrips(head: unknown, strips: unknown): unknown {
  if (typeof head !== "object" || head === null || !("strips" in head) || !Array.isArray(head.strips)) return head;
  if (!Array.isArray(strips)) throw new Error("its strips are no list.");
  const byId = new Map((strips as readonly { readonly id: string }[]).map((strip) => [strip.id, strip]));
  const inOrder = (head.strips as readonly string[]).map((id) => {
    const strip = byId.get(id);
    if (!strip) throw new Error(`its strip ${id} is missing.`);
    return strip;
  });
  return { ...head, strips: inOrder };
}

/** Whether what a strip is found by may be another: by itself, or by the name of its group. */
const isFoundOtherwise = (before: Project, after: Project, was: Strip, is: Strip): boolean =>
  was !== is || groupOf(before, was)?.look.name !== groupOf(after, is)?.look.name;

/** Writes the strips in which a project differs from what it was; without that, all. `isDraft`: nothing finds them, and they use nothing. */
export async function writeStrips(
  tx: Executor,
  after: Project,
  before: Project | null,
  isDraft: boolean,
): Promise<void> {
  const statement = await statementsOf(tx);
  const was = new Map(before?.strips.map((strip) => [strip.id, strip]));
  const write = writing(statement, after, isDraft);
  for (const strip of after.strips) {
    const own = was.get(strip.id);
    was.delete(strip.id);
    if (!own || !before) write.whole(strip);
    else if (own !== strip) write.whole(strip);
    else if (isFoundOtherwise(before, after, own, strip)) write.face(strip);
  }
  for (const id of was.keys()) {
    statement("DELETE FROM project_strips WHERE project = ? AND strip = ?").run(after.id, id);
    statement("DELETE FROM uses WHERE project = ? AND strip = ?").run(after.id, id);
  }
}

function writing(statement: Statements, project: Project, isDraft: boolean) {
  const faceText = (strip: Strip) => (isDraft ? "{}" : JSON.stringify(faceOf(project, strip)));
  return {
    whole: (strip: Strip) => {
      statement(
        `INSERT INTO project_strips (project, strip, body, face) VALUES (?, ?, ?, ?)
         ON CONFLICT (project, strip) DO UPDATE SET body = excluded.body, face = excluded.face`,
      ).run(project.id, strip.id, JSON.stringify(strip), faceText(strip));
      if (!isDraft) writeUses(statement, project.id, strip);
    },
    face: (strip: Strip) =>
      void statement("UPDATE project_strips SET face = ? WHERE project = ? AND strip = ?").run(
        faceText(strip),
        project.id,
        strip.id,
      ),
  };
}

export function writeUses(statement: Statements, project: string, strip: Strip): void {
  statement("DELETE FROM uses WHERE project = ? AND strip = ?").run(project, strip.id);
  const keep = statement("INSERT INTO uses (project, strip, preset, version) VALUES (?, ?, ?, ?)");
  for (const { preset, version } of usesOn(project, strip)) keep.run(project, strip.id, preset, version);
}

/** What is derived of the strips of a project, anew. */
export function writeFaces(statement: Statements, project: Project): void {
  const write = writing(statement, project, false);
  for (const strip of project.strips) {
    write.face(strip);
    writeUses(statement, project.id, strip);
  }
}

export async function deleteStrips(db: Executor, project: string): Promise<void> {
  await db("project_strips").where({ project }).delete();
}
