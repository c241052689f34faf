"use client";

import type { QueryClient } from "@tanstack/react-query";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import { touch } from "../actions/last-touched";
import { errorText } from "../kit/error-text";
import { sayError } from "../kit/say";

/** Gestures on their way to the server, project by project, in the order in which they were made. */
interface Line {
  tail: Promise<unknown>;
  waiting: number;
  /** How many of them are shown already: until the last of these is answered, what is shown is ahead of the server. */
  ahead: number;
  revision: number;
}

/** Of each window, by what it keeps of the server. */
const LINES = new WeakMap<QueryClient, Map<string, Line>>();

function linesOf(queries: QueryClient): Map<string, Line> {
  const lines = LINES.get(queries) ?? new Map<string, Line>();
  LINES.set(queries, lines);
  return lines;
}

/** Whether this window has changes of its own on their way, which no one else's news may overtake. */
export const isOnItsWay = (queries: QueryClient, project: string): boolean =>
  (linesOf(queries).get(project)?.waiting ?? 0) > 0;

/** Whether something is on its way whose effect is not shown yet, as an undo: what is done next must be done on what it leaves. */
export const isHidden = (queries: QueryClient, project: string): boolean => {
  const line = linesOf(queries).get(project);
  return line !== undefined && line.waiting > line.ahead;
};

/** Resolves when all that was done in this window has been answered. */
export const whenSent = (queries: QueryClient, project: string): Promise<unknown> =>
  linesOf(queries).get(project)?.tail ?? Promise.resolve();

function lineOf(queries: QueryClient, id: string, revision: number): Line {
  const lines = linesOf(queries);
  const line = lines.get(id) ?? { tail: Promise.resolve(), waiting: 0, ahead: 0, revision };
  if (line.waiting === 0) line.revision = Math.max(line.revision, revision);
  lines.set(id, line);
  return line;
}

interface Gesture {
  /** Null where, at its turn, there is nothing to do any more. */
  readonly call: (base: number) => Promise<ProjectBody | null>;
  /** Whether what it does is shown before it is answered, as with all but undo and redo. */
  readonly isShown: boolean;
}

/**
 * Sends a gesture after those before it: what it has led to, or null. When it is refused, the project is shown as the server
 * has it, and why.
 */
export async function send(queries: QueryClient, id: string, { call, isShown }: Gesture): Promise<ProjectBody | null> {
  touch("project");
  const key = KEYS.project(id);
  const line = lineOf(queries, id, queries.getQueryData<ProjectBody>(key)?.revision ?? 0);
  const count = (one: 1 | -1) => {
    line.waiting += one;
    if (isShown) line.ahead += one;
  };
  count(1);
  const turn = line.tail.then(async () => {
    try {
      const body = await call(line.revision);
      count(-1);
      if (!body) return null;
      line.revision = body.revision;
      queries.setQueryData<ProjectBody>(key, (shown) =>
        line.ahead === 0 || !shown
          ? body
          : { ...shown, revision: body.revision, history: body.history, draft: body.draft },
      );
      return body;
    } catch (error) {
      count(-1);
      sayError(errorText(error));
      await queries.refetchQueries({ queryKey: key });
      line.revision = queries.getQueryData<ProjectBody>(key)?.revision ?? line.revision;
      return null;
    }
  });
  line.tail = turn;
  return turn;
}
