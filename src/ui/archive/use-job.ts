"use client";

import { useEffect, useState } from "react";
import * as archive from "@/clients/archive";
import type { Job, JobResult } from "@/contracts/archive";
import { follow } from "../keeping/follow";

export interface UsedJob {
  /** The work that is under way; null where none is. */
  readonly job: Job | null;
  /** Begins work, or goes on with what is under way, and waits for its end. */
  readonly run: (begin: () => Promise<{ job: Job }>) => Promise<JobResult>;
  readonly stop: () => void;
}

/** Long work of a screen: how far it is, and a way to stop it. */
export function useJob(): UsedJob {
  const [job, setJob] = useState<Job | null>(null);
  const run = async (begin: () => Promise<{ job: Job }>) => {
    const begun = await begin();
    setJob(begun.job);
    try {
      return await follow(begun.job, setJob);
    } finally {
      setJob(null);
    }
  };
  const stop = () => void (job && archive.stopJob(job.id));
  return { job, run, stop };
}

/** What goes on still, or brought a file in: that is gone by then, and only its work knows what came of it. */
const isToBeTold = ({ state, result }: Job): boolean => state === "running" || result?.kind === "brought";

/** Does something with work that was begun before this screen was opened, in this window or another. */
export function useUnderWay(about: string, take: (job: Job) => void): void {
  useEffect(() => {
    let isGone = false;
    void archive
      .listJobs()
      .then(({ jobs }) => {
        const begun = jobs.find((job) => job.about === about && isToBeTold(job));
        if (begun && !isGone) take(begun);
      })
      // Without an answer there is nothing to take up; what is wrong is said elsewhere.
      .catch(() => undefined);
    return () => void (isGone = true);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, when the screen opens
  }, [about]);
}
