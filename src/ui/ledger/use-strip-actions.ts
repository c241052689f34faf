"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import { type Project, findStrip, freeStripName } from "@/core/projects/project";
import type { Step } from "@/core/recall/steps";
import type { Strip } from "@/core/strips/strip";
import { type Action, useActions } from "../actions/actions";
import { STRIP_WORDS } from "../kit/strip-words";
import type { ProjectEditing } from "../projects/editing";
import { createLine } from "../kit/in-line";
import { mintKey } from "../kit/mint";
import { useNewStrip } from "../settings/starts";
import { useStripStart } from "../settings/strip-start";
import { ADDED_KINDS, ADDED_NAMES } from "./add-strip";

function placed(project: Project, strip: Strip, after: string | null): Step {
  // Before the main output, which stays last.
  const last = project.strips.findLast((s) => s.kind !== "main");
  const behind = after !== null && findStrip(project, after)?.kind !== "main" ? after : (last?.id ?? null);
  return {
    id: mintKey(),
    strip: strip.id,
    kind: "placeStrip",
    from: null,
    to: { strip, after: behind },
  };
}

type Kind = (typeof ADDED_KINDS)[number];

/** Adds a strip below the one in hand, and takes it in hand. */
function useAdding(
  editing: ProjectEditing,
  cursor: Strip | null,
  onAdded: (id: string) => void,
): (kind: Kind) => Promise<void> {
  const newStrip = useNewStrip();
  const project = editing.body?.project;
  const queries = useQueryClient();
  const projectNow = () => queries.getQueryData<ProjectBody>(KEYS.project(project?.id ?? ""))?.project;
  // Of quick presses each waits for the one before, whose name and place it must know.
  const [line] = useState(createLine);
  /** Below the strip in hand, and below those that were added there just before. */
  const lastAdded = useRef<{ readonly below: string | null; readonly strip: string } | null>(null);
  const hand = useRef<string | null>(null);
  useEffect(() => {
    hand.current = cursor?.id ?? null;
  }, [cursor?.id]);
  return (kind) =>
    line(async () => {
      if (!project) return;
      const main = project.strips.find((s) => s.kind === "main");
      const blank = await newStrip(kind, ADDED_NAMES[kind], main ? { strip: main.id } : null);
      const { current: before } = lastAdded;
      const below = cursor?.id ?? null;
      const now = projectNow() ?? project;
      const after = before?.below === below && findStrip(now, before.strip) ? before.strip : below;
      const name = freeStripName(now, ADDED_NAMES[kind]);
      const strip = { ...blank, look: { ...blank.look, name } };
      lastAdded.current = { below, strip: strip.id };
      const sent = editing.commit(`Add ${name}`, (now) => [placed(now, strip, after)]);
      // It is in hand as soon as it is shown: the answer, which comes later, must not move a hand that has gone on.
      await new Promise((resolve) => setTimeout(resolve));
      if (hand.current === below || hand.current === before?.strip) onAdded(strip.id);
      await sent;
    });
}

/** New strips, and what they begin as. */
export function useStripActions(
  editing: ProjectEditing,
  cursor: Strip | null,
  onAdded: (id: string) => void,
): (kind: Kind) => void {
  const { startOf, set } = useStripStart();
  const add = useAdding(editing, cursor, onAdded);
  const from = cursor?.inserts.from;
  const kind = cursor?.kind ?? "audio";
  const group = "Project";
  useActions([
    ...ADDED_KINDS.map(
      (added): Action => ({
        id: `add-strip-${added}`,
        title: `Add: ${ADDED_NAMES[added].toLowerCase()}`,
        group,
        keys: added === "audio" ? ["Shift+N"] : [],
        run: () => void add(added),
      }),
    ),
    {
      id: "strip-start",
      title: from
        ? `Let new ${STRIP_WORDS[kind]} begin as “${from.name}”`
        : `Use as starting point of new ${STRIP_WORDS[kind]}`,
      group,
      enabled: from !== undefined,
      run: () => from && set(kind, from),
    },
    {
      id: "strip-start-blank",
      title: `Let new ${STRIP_WORDS[kind]} be blank again`,
      group,
      enabled: startOf(kind) !== null,
      run: () => set(kind, null),
    },
  ]);
  return (added) => void add(added);
}
