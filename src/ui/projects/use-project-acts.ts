"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useRouter } from "next/navigation";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectRow } from "@/contracts/records";
import { orSay, say } from "../kit/say";

type Named = Pick<ProjectRow, "id" | "name">;

/** What is done with projects as wholes: into the bin and out, each with its undo, and one beside another. */
export function useProjectActs() {
  const queries = useQueryClient();
  const router = useRouter();
  /** The one that another is to be compared with. */
  const [held, hold] = useState<Named | null>(null);
  const put = async ({ id, name }: Named, binned: boolean) => {
    await api.binProject(id, binned);
    await queries.invalidateQueries({ queryKey: KEYS.projects });
    await queries.invalidateQueries({ queryKey: KEYS.project(id) });
    say(binned ? `Put “${name}” into the bin` : `Took “${name}” out of the bin`, {
      action: { label: "Undo", onClick: () => orSay(put({ id, name }, !binned)) },
    });
  };
  const compareWords = (row: Named | undefined): string => {
    if (!held) return "Compare with another…";
    return row?.id === held.id ? "Compare with none" : `Compare with “${held.name}”`;
  };
  const compare = (row: Named) => {
    if (!held) return hold(row);
    if (held.id === row.id) return hold(null);
    router.push(`/projects/${held.id}/beside?with=${encodeURIComponent(row.id)}`);
  };
  return {
    held,
    letGo: () => hold(null),
    compare,
    compareWords,
    bin: (row: Named) => orSay(put(row, true)),
    restore: (row: Named) => orSay(put(row, false)),
  };
}
