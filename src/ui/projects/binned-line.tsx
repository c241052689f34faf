"use client";

import { useQueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import { Button } from "../kit/button";
import { formatDate } from "../kit/dates";
import { orSay } from "../kit/say";

/** That a project lies in the bin, and the way out; nothing for one that does not. */
export function BinnedLine({ body: { project, binnedAt } }: { readonly body: ProjectBody }) {
  const queries = useQueryClient();
  if (binnedAt === null) return null;
  const restore = async () => {
    await api.binProject(project.id, false);
    await queries.invalidateQueries({ queryKey: KEYS.project(project.id) });
    await queries.invalidateQueries({ queryKey: KEYS.projects });
  };
  return (
    <p
      role="status"
      className="flex flex-none items-center gap-3 border-edge border-t bg-alert-tint px-[14px] py-[6px]"
    >
      <span className="min-w-0 flex-1">
        In the bin since {formatDate(binnedAt)}: it can be looked at and taken from, not changed.
      </span>
      <Button className="flex-none" onClick={() => orSay(restore())}>
        Take out of the bin
      </Button>
    </p>
  );
}
