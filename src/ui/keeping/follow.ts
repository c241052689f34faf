import * as archive from "@/clients/archive";
import { InWords } from "@/clients/api";
import type { Job, JobResult } from "@/contracts/archive";

/** Between one look at how far it is and the next, in milliseconds. */
const OFTEN = 250;

const wait = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, OFTEN));

/** Waits for long work to come to its end; `onHeard` hears how far it is. Throws, in words, where it failed or was stopped. */
export async function follow(begun: Job, onHeard: (job: Job) => void): Promise<JobResult> {
  let job = begun;
  while (job.state === "running") {
    onHeard(job);
    await wait();
    ({ job } = await archive.getJob(job.id));
  }
  if (job.error) throw new InWords(job.error.message);
  if (!job.result) throw new InWords("It came to its end, and nothing came of it.");
  return job.result;
}
