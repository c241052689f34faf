import type { QueryClient } from "@tanstack/react-query";
import { type PresetRef, isOneSound, versionOf } from "@/core/chains/chain";
import { SOUND } from "@/core/recall/choices";
import { commitTo } from "../projects/editing";
import { planNow } from "./plan-now";

/** A strip, and the preset that it came from; of a set the strip of it. */
export interface Follower {
  readonly strip: string;
  readonly reference: PresetRef;
}

interface Taken {
  readonly queries: QueryClient;
  readonly project: string;
  readonly followers: readonly Follower[];
  readonly version: number;
  readonly label: string;
}

/** Lets strips sound as a version of what they came from, as one change: the revision that it made, null where nothing changed. */
export async function takeVersion({ queries, project, followers, version, label }: Taken): Promise<number | null> {
  const sounds = followers.filter(
    ({ reference }, at) => followers.findIndex((other) => isOneSound(other.reference, reference)) === at,
  );
  const plan = await planNow(queries, project, {
    requests: sounds.map(({ reference }) => {
      const strips = followers.filter((one) => isOneSound(one.reference, reference)).map(({ strip }) => strip);
      return { source: versionOf(reference, version), parts: [...SOUND], targets: { strips }, mode: "itself" };
    }),
  });
  return commitTo(queries, project, { label, make: () => plan.steps });
}
