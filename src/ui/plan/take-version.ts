import type { QueryClient } from "@tanstack/react-query";
import type { PresetRef } from "@/core/chains/chain";
import { SOUND } from "@/core/recall/choices";
import { commitTo } from "../projects/editing";
import { planNow } from "./plan-now";

interface Taken {
  readonly queries: QueryClient;
  readonly project: string;
  readonly strips: readonly string[];
  /** The preset and the version of it that is wanted. */
  readonly from: Pick<PresetRef, "preset" | "version">;
  readonly label: string;
}

/** Lets strips sound as a version of the preset that they came from: the revision that it made, null where nothing changed. */
export async function takeVersion({ queries, project, strips, from, label }: Taken): Promise<number | null> {
  const plan = await planNow(queries, project, {
    requests: [{ source: from, parts: [...SOUND], targets: { strips: [...strips] }, mode: "itself" }],
  });
  return commitTo(queries, project, { label, make: () => plan.steps });
}
