import type { Job, JobResult } from "@/contracts/archive";
import { type Failure, type Outcome, RolledBack, failure, outcomeOf, refuse } from "../failure";
import { findStorageFault } from "../data/faults";
import { messageOf } from "@/core/result";
import { mintId } from "./mint";
import { askingWindow, forWindow } from "./window";

/*
 * Long work that outlives the request that began it: it goes on whichever window is closed, says how far it is, and can be stopped, which
 * leaves nothing half. What came of it is kept for a while.
 */

/** Told by the work of a job: how far it is. Throws where it is to stop. */
export type OnProgress = (done: number, of: number) => void;

interface Known {
  job: Job;
  isStopped: boolean;
}

/** What came of so many is still known. */
const MOST_KEPT = 20;

const JOBS = new Map<string, Known>();

export const listJobs = (): Job[] => [...JOBS.values()].map(({ job }) => job);

export const findJob = (id: string): Job | null => JOBS.get(id)?.job ?? null;

/** Stops a job at its next step; false where none is under way. */
export function stopJob(id: string): boolean {
  const known = JOBS.get(id);
  if (known?.job.state !== "running") return false;
  known.isStopped = true;
  return true;
}

const STOPPED = "It was stopped. Nothing was changed.";

/** What is told of a failure that nobody expected: its words, where they are for people. */
function failureOf(error: unknown): Failure {
  const fault = findStorageFault(error);
  if (fault) return fault;
  if (error instanceof Error && "inWords" in error) return failure("refused", messageOf(error)).error;
  console.error(error);
  return failure("internal", "Something went wrong inside. Nothing was changed.").error;
}

function tidy(): void {
  const over = [...JOBS].filter(([, { job }]) => job.state !== "running").slice(0, Math.max(0, JOBS.size - MOST_KEPT));
  for (const [id] of over) JOBS.delete(id);
}

/** Begins work and answers at once. `work` throws what it refuses, or gives it as an outcome. */
export function startJob(
  { title, about = "" }: { readonly title: string; readonly about?: string },
  work: (onProgress: OnProgress) => Promise<Outcome<JobResult>>,
): Job {
  const id = mintId();
  const known: Known = { job: { id, title, about, done: 0, of: 0, state: "running" }, isStopped: false };
  JOBS.set(id, known);
  tidy();
  const onProgress: OnProgress = (done, of) => {
    if (known.isStopped) refuse("refused", STOPPED);
    known.job = { ...known.job, done, of };
  };
  const end = (end: Partial<Job>) => (known.job = { ...known.job, ...end });
  // For the window that asked: what is written says so.
  void forWindow(askingWindow(), () => outcomeOf(() => work(onProgress)))
    .then((outcome) => (outcome.ok ? outcome.value : outcome))
    .then((outcome) =>
      outcome.ok ? end({ state: "done", result: outcome.value }) : end({ state: "failed", error: outcome.error }),
    )
    .catch((error: unknown) =>
      end({ state: "failed", error: error instanceof RolledBack ? error.failure : failureOf(error) }),
    );
  return known.job;
}

/** Resolves when a job has come to its end. */
export async function settledJob(id: string): Promise<Job> {
  for (;;) {
    const job = findJob(id);
    if (!job) throw new Error(`There is no job ${id}`);
    if (job.state !== "running") return job;
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
}
