import type { FiledChange, FiledProject } from "@/core/archive/documents";
import { type JoinedHistories, joinHistories } from "@/core/archive/join-histories";
import { renumberVersions } from "@/core/archive/renumber";
import { wordsOfProblem } from "@/core/documents/problem";
import type { Result } from "@/core/result";
import type { ReadProject } from "../../archive/incoming";
import { findMarks, goOn, insertFiled } from "../../repositories/filed-projects";
import { findProject } from "../../repositories/projects";
import { type Bringing, chosen } from "./bringing";
import { NotTaken } from "../../archive/zip-in";

interface Whole {
  readonly filed: FiledProject;
  readonly changes: readonly FiledChange[];
}

/** What cannot be walked is no past of this project: all of it is thrown out, and said. */
function must(result: Result<null, string>, { filed }: Whole): void {
  if (!result.ok) throw new NotTaken(`The project “${filed.project.name}”: ${result.error}`);
}

/** A project with its past, by the numbers of versions here; null, and said, where it cannot be read. */
async function wholeOf({ numbers, problem }: Bringing, read: ReadProject): Promise<Whole | null> {
  const { where, document } = read;
  const past = await read.changes();
  if (document.ok && past.ok)
    return { filed: renumberVersions(document.value, numbers), changes: renumberVersions(past.value, numbers) };
  for (const part of [document, past]) if (!part.ok) problem(wordsOfProblem(where, part.error));
  return null;
}

/** Brings in one project; whether anything came of it. */
export async function bringProject(bringing: Bringing, read: ReadProject): Promise<boolean> {
  const { statement, isRestore } = bringing;
  if (!isRestore && chosen(bringing, `project:${read.id}`) === "leave") return false;
  const whole = await wholeOf(bringing, read);
  if (!whole) return false;
  if (whole.filed.revision !== whole.changes.length)
    throw new NotTaken(`“${read.where}” speaks of ${whole.filed.revision} changes, and has ${whole.changes.length}.`);
  const marks = findMarks(statement, read.id);
  if (!marks) return insertNew(bringing, whole, read.id);
  const joined = joinHistories(read.id, marks, whole.changes);
  if (joined.standing === "forked") return layBeside(bringing, whole, joined);
  const isFurther =
    joined.standing === "newer" && (await follow(bringing, whole, { id: read.id, common: joined.common }));
  return (await takeOut(bringing, read.id, whole)) || isFurther;
}

async function insertNew({ filing: { tx, note }, at, take }: Bringing, whole: Whole, id: string): Promise<boolean> {
  const { filed, changes } = whole;
  must(await insertFiled(tx, { ...filed, binnedAt: filed.draft ? null : (filed.binnedAt ?? at) }, changes, id), whole);
  note({ kind: "project", id });
  if (filed.binnedAt === null && !filed.draft) await take({ kind: "projectBin", project: id, from: true, to: false });
  return true;
}

/** Goes on from where both are the same. */
async function follow(
  { filing: { tx, note }, keep }: Bringing,
  whole: Whole,
  { id, common }: { readonly id: string; readonly common: number },
): Promise<boolean> {
  const record = await findProject(tx, id);
  if (!record) throw new Error(`There is no project ${id}`);
  const filed = { ...whole.filed, project: { ...whole.filed.project, id } };
  must(await goOn(tx, record, filed, whole.changes.slice(common)), whole);
  note({ kind: "project", id });
  keep({ kind: "projectHead", project: id, from: record.revision, to: whole.changes.length });
  return true;
}

/** Takes a project out of the bin, where it lies there and does not there. */
async function takeOut({ statement, take }: Bringing, id: string, { filed }: Whole): Promise<boolean> {
  const isBinned = statement("SELECT 1 FROM projects WHERE id = ? AND binned_at IS NOT NULL").get(id) !== undefined;
  if (!isBinned || filed.binnedAt !== null) return false;
  await take({ kind: "projectBin", project: id, from: true, to: false });
  return true;
}

/** Both went on: the one that set out first keeps the id, the other stands beside it, under one that is the same on every machine. */
async function layBeside(bringing: Bringing, whole: Whole, { trunk, aside }: JoinedHistories): Promise<boolean> {
  const { id, name } = whole.filed.project;
  const beside = findMarks(bringing.statement, aside);
  const again = beside && joinHistories(aside, beside, whole.changes);
  if (again?.standing === "forked") {
    bringing.problem(`The project “${name}” is here twice already, and went its own way once more.`);
    return false;
  }
  if (!again) await insertNew(bringing, whole, aside);
  else {
    const isFurther =
      again.standing === "newer" && (await follow(bringing, whole, { id: aside, common: again.common }));
    const isOut = await takeOut(bringing, aside, whole);
    if (trunk === "own") return isFurther || isOut;
  }
  if (trunk === "theirs") await bringing.take({ kind: "projectSwap", project: id, from: aside, to: aside });
  return true;
}
