"use client";

import type { QueryClient } from "@tanstack/react-query";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { isLeaving, onLeaving } from "@/clients/leaving";
import type { ChangedBody, ProjectBody } from "@/contracts/projects";
import { touch } from "../actions/last-touched";
import { errorText } from "../kit/error-text";
import { sayError } from "../kit/say";

/** A gesture that is on its way. */
interface OnItsWay {
  /** Whether what it does is shown already. */
  shown: boolean;
  readonly call: Gesture["call"];
  /** What the server answers, once it was told; until then it stands in line. */
  told: Promise<Answer | null> | null;
}

/** Gestures on their way to the server, project by project, in the order in which they were made. */
interface Line {
  tail: Promise<unknown>;
  readonly waiting: Set<OnItsWay>;
  revision: number;
  /** Whether the server has told of something that is not shown yet, since what is shown is ahead of it. */
  isBehind: boolean;
  /** How many gestures have been answered. */
  answers: number;
  /** The newest revision that was heard of while something was on its way. */
  heard: number;
}

/** Of each window, by what it keeps of the server. */
const LINES = new WeakMap<QueryClient, Map<string, Line>>();

function linesOf(queries: QueryClient): Map<string, Line> {
  const known = LINES.get(queries);
  if (known) return known;
  const lines = new Map<string, Line>();
  LINES.set(queries, lines);
  onLeaving(() => lines.forEach(tellAll));
  return lines;
}

/** A page that is left hears no answer: what still stands in line is told at once, each on what those before it will have made. */
function tellAll(line: Line): void {
  const all = [...line.waiting];
  let base = line.revision + all.filter(({ told }) => told !== null).length;
  for (const one of all.filter(({ told }) => told === null)) {
    void tellOne(line, one, base);
    base += 1;
  }
}

function tellOne(line: Line, one: OnItsWay, base: number): Promise<Answer | null> {
  const told = one.call(base, { shown: one.shown, knows: !line.isBehind });
  // Heard at its turn, which may come later than the answer.
  told.catch(() => undefined);
  one.told = told;
  return told;
}

const waitingFor = (queries: QueryClient, project: string): readonly OnItsWay[] => [
  ...(linesOf(queries).get(project)?.waiting ?? []),
];

/**
 * Whether something is on its way whose effect is not shown, as an undo, or what was done behind a gesture that was refused: what is done
 * next must be done on what it leaves.
 */
export const isHidden = (queries: QueryClient, project: string): boolean =>
  waitingFor(queries, project).some(({ shown }) => !shown);

/** Until the last gesture that is shown is answered, what is shown is ahead of the server. */
const isAhead = (queries: QueryClient, project: string): boolean =>
  waitingFor(queries, project).some(({ shown }) => shown);

/** Resolves when all that was done in this window has been answered. */
export const whenSent = (queries: QueryClient, project: string): Promise<unknown> =>
  linesOf(queries).get(project)?.tail ?? Promise.resolve();

/** What is shown of a project where that is ahead of the server, else what the server has said. */
function newestBody(queries: QueryClient, body: ProjectBody): ProjectBody {
  const shown = queries.getQueryData<ProjectBody>(KEYS.project(body.project.id));
  return shown && isAhead(queries, body.project.id) ? shown : body;
}

/**
 * A project as the server has it; as it is shown where that is ahead of the server by now, or where a gesture was answered meanwhile with
 * something newer: what is asked for before an undo and comes after it must not bring back what was taken back.
 */
export async function fetchProject(queries: QueryClient, id: string): Promise<ProjectBody> {
  const answersOf = () => linesOf(queries).get(id)?.answers ?? 0;
  const before = answersOf();
  const body = await api.getProject(id);
  const shown = queries.getQueryData<ProjectBody>(KEYS.project(id));
  const isOvertaken = answersOf() !== before && shown !== undefined && shown.revision > body.revision;
  return isOvertaken ? shown : newestBody(queries, body);
}

/** Keeps a project that was opened. */
export const bring = (queries: QueryClient, body: ProjectBody): void =>
  void queries.setQueryData(KEYS.project(body.project.id), newestBody(queries, body));

/**
 * Whether a revision that one hears of is nothing to fetch: it is shown, or something is on its way from here. Of the latter the
 * answer may bring it; what it has not brought is fetched behind it.
 */
export function isKnown(queries: QueryClient, project: string, revision: number): boolean {
  const line = linesOf(queries).get(project);
  if (line && line.waiting.size > 0) {
    line.heard = Math.max(line.heard, revision);
    return true;
  }
  return (queries.getQueryData<ProjectBody>(KEYS.project(project))?.revision ?? -1) >= revision;
}

/** Behind the last that was on its way: fetches what others did meanwhile and no answer has brought. */
function catchUp(queries: QueryClient, id: string, line: Line): void {
  if (line.waiting.size > 0) return;
  if (line.heard > line.revision) void queries.invalidateQueries({ queryKey: KEYS.project(id), exact: true });
  line.heard = 0;
}

function lineOf(queries: QueryClient, id: string, revision: number): Line {
  const lines = linesOf(queries);
  const line = lines.get(id) ?? {
    tail: Promise.resolve(),
    waiting: new Set(),
    revision,
    isBehind: false,
    answers: 0,
    heard: 0,
  };
  if (line.waiting.size === 0) line.revision = Math.max(line.revision, revision);
  lines.set(id, line);
  return line;
}

/** What a gesture has led to; without the project where that is what is shown. */
type Answer = ChangedBody;

interface Gesture {
  /**
   * `knows`: whether what is shown is what the server has, but for what is done here, so that it needs not tell. `shown` is false where
   * what was shown of it was taken back, since one before it was refused: it is to be made anew. Null where, at its turn, there is
   * nothing to do any more.
   */
  readonly call: (base: number, is: { readonly shown: boolean; readonly knows: boolean }) => Promise<Answer | null>;
  /** Whether what it does is shown before it is answered, as with all but undo and redo. */
  readonly isShown: boolean;
}

/** Whether a project lies in the bin, where nothing of it is changed; says so, and how it comes out. */
export function isInBin(queries: QueryClient, id: string): boolean {
  const body = queries.getQueryData<ProjectBody>(KEYS.project(id));
  if (!body || body.binnedAt === null) return false;
  sayError(`“${body.project.name}” is in the bin. Take it out of there to change it.`);
  return true;
}

/**
 * Sends a gesture after those before it: what it has led to, or null. When it is refused, the project is shown as the server
 * has it, and why; those behind it are made anew on that, each at its turn.
 */
export async function send(queries: QueryClient, id: string, { call, isShown }: Gesture): Promise<ProjectBody | null> {
  if (isInBin(queries, id)) return null;
  touch("project");
  const key = KEYS.project(id);
  const line = lineOf(queries, id, queries.getQueryData<ProjectBody>(key)?.revision ?? 0);
  const own: OnItsWay = { shown: isShown, call, told: null };
  line.waiting.add(own);
  if (isLeaving()) tellAll(line);
  const turn = line.tail.then(async () => {
    try {
      const body = await (own.told ?? tellOne(line, own, line.revision));
      line.waiting.delete(own);
      line.answers++;
      if (!body) return null;
      line.revision = body.revision;
      const { project, ...rest } = body;
      if (project) line.isBehind = isAhead(queries, id);
      queries.setQueryData<ProjectBody>(key, (shown) => {
        if (shown && (line.isBehind || !project)) return { ...shown, ...rest };
        return project ? { ...rest, project } : shown;
      });
      return queries.getQueryData<ProjectBody>(key) ?? null;
    } catch (error) {
      // A page that is left breaks off what it waits for just before it hears of it. It has arrived: what is behind stands on it.
      await new Promise((later) => setTimeout(later));
      line.waiting.delete(own);
      for (const behind of line.waiting) behind.shown = false;
      sayError(errorText(error));
      await queries.refetchQueries({ queryKey: key });
      line.revision = queries.getQueryData<ProjectBody>(key)?.revision ?? line.revision;
      return null;
    } finally {
      catchUp(queries, id, line);
    }
  });
  line.tail = turn;
  return turn;
}
