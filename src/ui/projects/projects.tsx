"use client";

import { counted } from "@/core/names/count";
import { useQuery } from "@tanstack/react-query";
import { Plus } from "lucide-react";
import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { useActions } from "../actions/actions";
import { Empty, Key, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { cx } from "../kit/class-names";
import { formatDay } from "../kit/dates";
import { NewProject } from "./new-project";

const COLUMNS = "grid grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)_90px_80px_90px] items-center gap-[10px] px-[18px]";

export function Projects() {
  const router = useRouter();
  const query = useQuery({ queryKey: KEYS.projects, queryFn: api.listProjects });
  const projects = query.data?.projects ?? [];
  const [at, setAt] = useState(0);
  const [making, setMaking] = useState(false);
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => list.current?.focus(), [projects.length]);
  const chosen = projects[Math.min(at, projects.length - 1)];
  const open = () => chosen && router.push(`/projects/${chosen.id}`);
  const group = "Projects";
  useActions([
    {
      id: "down",
      title: "Next project",
      group,
      keys: ["ArrowDown"],
      keyOnly: true,
      run: () => setAt(Math.min(projects.length - 1, at + 1)),
    },
    {
      id: "up",
      title: "Previous project",
      group,
      keys: ["ArrowUp"],
      keyOnly: true,
      run: () => setAt(Math.max(0, at - 1)),
    },
    { id: "open", title: "Open the project", group, keys: ["Enter"], enabled: Boolean(chosen), run: () => void open() },
    { id: "new-project", title: "New project", group, keys: ["Ctrl+Alt+N"], run: () => setMaking(true) },
  ]);
  return (
    <section aria-label="Projects" className="flex h-full flex-col">
      <header className="flex items-center gap-3 px-[18px] pt-[14px] pb-3">
        <h1 className="h1">Projects</h1>
        <Button main className="ml-auto" onClick={() => setMaking(true)}>
          <Plus size={16} aria-hidden="true" />
          New project
        </Button>
      </header>
      <div className={cx(COLUMNS, "h-[30px] flex-none border-edge border-y text-small text-soft")} aria-hidden="true">
        <span>Name</span>
        <span>For</span>
        <span className="text-right">Tempo</span>
        <span className="text-right">Strips</span>
        <span className="text-right">Changed</span>
      </div>
      {query.isPending && <Loading what="Opening" />}
      {query.error && (
        <Empty title="The projects could not be read">
          <p role="alert">{query.error.message}</p>
        </Empty>
      )}
      {query.data && projects.length === 0 && (
        <Empty title="No projects yet" className="flex-1">
          <p>
            A project holds strips; sounds are applied to them. Start with an empty one: a sound brings its own strip.
          </p>
          <Button main onClick={() => setMaking(true)}>
            New project
          </Button>
        </Empty>
      )}
      {projects.length > 0 && (
        <div
          ref={list}
          role="listbox"
          tabIndex={0}
          aria-label="Projects"
          aria-activedescendant={chosen ? `project-${chosen.id}` : undefined}
          className="group min-h-0 flex-1 overflow-auto outline-none"
        >
          {projects.map((project, index) => (
            <div
              key={project.id}
              id={`project-${project.id}`}
              role="option"
              aria-selected={project.id === chosen?.id}
              onClick={() => {
                setAt(index);
                router.push(`/projects/${project.id}`);
              }}
              className={cx(
                COLUMNS,
                "h-[44px] cursor-pointer border-rule border-b",
                project.id === chosen?.id
                  ? "row-chosen -outline-offset-2 outline-live group-focus-visible:outline-2"
                  : "hover:bg-sunk/60",
              )}
            >
              <span className="name truncate">{project.name}</span>
              <span className="truncate text-soft">{project.starter ? "a project starter" : project.artist}</span>
              <span className="num text-right">
                {project.tempo}
                <span className="unit">bpm</span>
              </span>
              <span className="num text-right">{project.strips}</span>
              <span className="num text-right text-soft">{formatDay(project.changedAt, new Date())}</span>
            </div>
          ))}
        </div>
      )}
      <p className="flex h-8 flex-none items-center gap-[6px] border-edge border-t px-[18px] text-small text-soft">
        {counted(projects.length, "project")} · <Key>Enter</Key> open
      </p>
      {making && <NewProject projects={projects} onClose={() => setMaking(false)} />}
    </section>
  );
}
