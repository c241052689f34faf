import { on } from "node:events";
import type { ProjectBody } from "@/contracts/projects";
import type { ChangedRecord } from "../../data/changes";
import type { Outcome } from "../../failure";
import type { Context } from "../../store/context";
import { type Made, commit, refuseStale } from "./commit";

/** A revision that is still to come is waited for so long, in milliseconds. */
const COMES_WITHIN = 2000;

type Heard = readonly [{ readonly records: readonly ChangedRecord[] }];

/** Waits until a project has a revision; no longer than it may take. */
async function untilThere({ events }: Context, id: string, revision: number): Promise<void> {
  const signal = AbortSignal.timeout(COMES_WITHIN);
  const changes = on(events, "change", { signal }) as AsyncIterable<Heard>;
  try {
    for await (const [{ records }] of changes)
      if (records.some((r) => r.kind === "project" && r.id === id && (r.revision ?? 0) >= revision)) return;
  } catch (error) {
    if (!signal.aborted) throw error;
  }
}

/** What a gesture stands on. */
interface Ground {
  readonly base: number;
  /** Whether it may stand on what came since, too. */
  readonly orLater?: boolean;
}

/**
 * Commits what was made for a revision, and refuses it where another is the newest. Where its own is still to come it is waited for:
 * a window that is closed says all that it has still to say at once, each on what the one before it will have made, and over several
 * lines what is later may come first.
 */
export async function commitOn(
  context: Context,
  id: string,
  { base, orLater = false }: Ground,
  gesture: Made,
): Promise<Outcome<ProjectBody>> {
  let isToCome = false;
  const made: Made = (record, tx) => {
    isToCome = base > record.revision;
    if (isToCome || (base < record.revision && !orLater)) refuseStale(record, base);
    return gesture(record, tx);
  };
  const outcome = await commit(context, id, made);
  if (!isToCome) return outcome;
  await untilThere(context, id, base);
  return commit(context, id, made);
}
