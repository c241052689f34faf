"use client";

import type { QueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import { touch } from "../actions/last-touched";
import { sayError } from "../kit/say";

/** Gestures on their way to the server, project by project, in the order in which they were made. */
interface Line {
  tail: Promise<unknown>;
  waiting: number;
  revision: number;
}

const lines = new Map<string, Line>();

/** Whether this window has changes of its own on their way, which no one else's news may overtake. */
export const isOnItsWay = (project: string): boolean => (lines.get(project)?.waiting ?? 0) > 0;

function lineOf(id: string, revision: number): Line {
  const line = lines.get(id) ?? { tail: Promise.resolve(), waiting: 0, revision };
  if (line.waiting === 0) line.revision = Math.max(line.revision, revision);
  lines.set(id, line);
  return line;
}

/** Sends a gesture after those before it. When it is refused, the project is shown as the server has it, and why. */
export async function send(
  queries: QueryClient,
  id: string,
  call: (base: number) => Promise<ProjectBody>,
): Promise<boolean> {
  touch("project");
  const key = KEYS.project(id);
  const line = lineOf(id, queries.getQueryData<ProjectBody>(key)?.revision ?? 0);
  line.waiting += 1;
  const turn = line.tail.then(async () => {
    try {
      const body = await call(line.revision);
      line.revision = body.revision;
      line.waiting -= 1;
      queries.setQueryData<ProjectBody>(key, (shown) =>
        line.waiting === 0 || !shown ? body : { ...shown, revision: body.revision, history: body.history },
      );
      return true;
    } catch (error) {
      line.waiting -= 1;
      sayError(error instanceof api.ApiFailure ? error.message : "That could not be done. Nothing was changed.");
      await queries.refetchQueries({ queryKey: key });
      line.revision = queries.getQueryData<ProjectBody>(key)?.revision ?? line.revision;
      return false;
    }
  });
  line.tail = turn;
  return turn;
}
