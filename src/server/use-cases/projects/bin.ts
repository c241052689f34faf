import { ok } from "@/core/result";
import { type Outcome, refuse } from "../../failure";
import * as projects from "../../repositories/projects";
import type { Context } from "../../store/context";
import { transact } from "../../store/transact";
import { wordsOfNone } from "./body";

/**
 * Puts a project into the bin, or takes it out. In the bin it is as it was left, with its past and its kept mixes: it can be looked at
 * and taken from, and not changed; no list and no search shows it, and what is used in it stays used.
 */
export async function setBinned(context: Context, id: string, binned: boolean): Promise<Outcome<{ ok: true }>> {
  const done = await transact(context, async (tx, note) => {
    const record = await projects.findProject(tx, id);
    if (!record || record.draft) return refuse("notFound", wordsOfNone(id));
    // Once more is nothing: it lies there since it was put there first.
    if ((record.binnedAt !== null) === binned) return null;
    await projects.setBinned(tx, id, binned ? context.now().toISOString() : null);
    note({ kind: "project", id });
    return null;
  });
  return done.ok ? ok({ ok: true }) : done;
}
