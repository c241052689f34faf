import type { Figures } from "@/contracts/projects";
import { isUnsaved } from "@/core/presets/standing";
import type { Executor } from "../../data/executor";
import * as projects from "../../repositories/projects";
import type { Context } from "../../store/context";
import { takingTurns } from "../../turns";
import { type ReadSaved, meantBy, readingSaved } from "./saved";

type Figure = Figures["figures"][number];

/** What was counted of a project, at one of its revisions; a version of a preset never changes, but it may go for good. */
const COUNTED = new WeakMap<Context["writer"], Map<string, { readonly revision: number; readonly figure: Figure }>>();

/** Counts anew from now on: presets have gone for good. */
export const forgetFigures = ({ writer }: Context): unknown => COUNTED.delete(writer);

/** How much room some projects take, and how many of their sounds are saved nowhere; of what is not there, nothing. */
export async function listFigures({ db, writer }: Context, ids: readonly string[]): Promise<Figures> {
  const counted = COUNTED.get(writer) ?? new Map<string, { readonly revision: number; readonly figure: Figure }>();
  COUNTED.set(writer, counted);
  const saved = readingSaved(db);
  const figures: Figure[] = [];
  const turn = takingTurns();
  const revisions = await projects.revisionsOf(db, ids);
  for (const id of new Set(ids)) {
    const revision = revisions.get(id);
    const before = counted.get(id);
    if (revision === undefined) continue;
    if (before?.revision === revision) {
      figures.push(before.figure);
      continue;
    }
    const figure = { id, bytes: await projects.sizeOf(db, id), unsaved: await countUnsaved(db, id, saved) };
    counted.set(id, { revision, figure });
    figures.push(figure);
    await turn();
  }
  return { figures };
}

async function countUnsaved(db: Executor, id: string, saved: ReadSaved): Promise<number> {
  const record = await projects.findReadable(db, id);
  let count = 0;
  for (const strip of record?.project.strips ?? []) if (isUnsaved(strip, await meantBy(strip, saved))) count += 1;
  return count;
}
