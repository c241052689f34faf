"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectRow } from "@/contracts/records";
import { orSay } from "../kit/say";
import { useSingly } from "../kit/use-singly";

/** Begins to look through projects for what is worth keeping, and goes to where that stands. */
export function useSweeping(): (rows: readonly ProjectRow[], called: string) => void {
  const queries = useQueryClient();
  const router = useRouter();
  const singly = useSingly();
  return (rows, called) =>
    orSay(
      singly(async () => {
        const body = await api.beginSweep({ projects: rows.map(({ id }) => id), called });
        queries.setQueryData(KEYS.sweep, body);
        router.push("/projects/wrap-up");
      }),
    );
}
