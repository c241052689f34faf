"use client";

import { useQuery } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { INPUT } from "../kit/field";
import { formatMoment } from "../kit/dates";
import { EVERYWHERE, type Where } from "./use-strip-list";

interface Props {
  readonly where: Where;
  readonly onWhere: (where: Where) => void;
}

/** As many as a menu takes; the past of a project has all of them. */
const MOST_MOMENTS = 100;

/** In which project strips are looked for, and as they were when. */
export function WhereFrom({ where, onWhere }: Props) {
  const { project, revision } = where;
  const projects = useQuery({ queryKey: KEYS.projects, queryFn: () => api.listProjects() }).data?.projects ?? [];
  const moments = useQuery({
    queryKey: [...KEYS.project(project ?? ""), "newest"],
    queryFn: () => api.listHistory(project ?? "", { limit: MOST_MOMENTS }),
    enabled: project !== null,
  }).data?.items;
  return (
    <div className="grid flex-none gap-2 px-3 pb-3">
      <select
        aria-label="Of which project"
        className={INPUT}
        value={project ?? ""}
        onChange={({ target }) =>
          onWhere(target.value === "" ? EVERYWHERE : { project: target.value, revision: undefined })
        }
      >
        <option value="">All projects</option>
        {projects.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
      {moments && moments.length > 0 && (
        <select
          aria-label="As it was when"
          className={INPUT}
          value={revision ?? ""}
          onChange={({ target }) =>
            onWhere({ project, revision: target.value === "" ? undefined : Number(target.value) })
          }
        >
          <option value="">As it is now</option>
          {moments.slice(1).map(({ n, at, label }) => (
            <option key={n} value={n}>
              {formatMoment(at)}: {label}
            </option>
          ))}
          <option value={0}>At its beginning</option>
        </select>
      )}
    </div>
  );
}
