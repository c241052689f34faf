"use client";

import { type Project, findStrip } from "@/core/projects/project";
import type { Step } from "@/core/recall/steps";
import type { Strip } from "@/core/strips/strip";
import { type Action, useActions } from "../actions/actions";
import { STRIP_WORDS } from "../kit/strip-words";
import type { ProjectEditing } from "../projects/editing";
import { mintKey } from "../kit/mint";
import { useNewStrip } from "../settings/starts";
import { useStripStart } from "../settings/strip-start";
import { ADDED_KINDS, ADDED_NAMES } from "./add-strip";

/** A name that no strip of the project has: "Audio strip", "Audio strip 2". */
function freeName(project: Project, name: string): string {
  const taken = new Set(project.strips.map((s) => s.look.name.toLowerCase()));
  let free = name;
  for (let n = 2; taken.has(free.toLowerCase()); n++) free = `${name} ${n}`;
  return free;
}

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

/** New strips, and what they begin as. */
export function useStripActions(
  editing: ProjectEditing,
  cursor: Strip | null,
  onAdded: (id: string) => void,
): (kind: (typeof ADDED_KINDS)[number]) => void {
  const newStrip = useNewStrip();
  const { startOf, set } = useStripStart();
  const project = editing.body?.project;
  const add = async (kind: (typeof ADDED_KINDS)[number]): Promise<void> => {
    if (!project) return;
    const main = project.strips.find((s) => s.kind === "main");
    const name = freeName(project, ADDED_NAMES[kind]);
    const strip = await newStrip(kind, name, main ? { strip: main.id } : null);
    await editing.commit(`Add ${name}`, (now) => [placed(now, strip, cursor?.id ?? null)]);
    onAdded(strip.id);
  };
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
