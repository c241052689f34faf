"use client";

import { type ReactNode, useState } from "react";
import type { ProjectRow } from "@/contracts/records";
import * as api from "@/clients/api";
import { type Mix, findMix, mixTitle, mixesOf } from "@/core/projects/mixes";
import type { Project } from "@/core/projects/project";
import { useActions } from "../actions/actions";
import { mintKey } from "../kit/mint";
import { orSay, say } from "../kit/say";
import { useProjectEditing } from "../projects/editing";
import { MixSheet } from "../projects/mix-sheet";
import { NewProject } from "../projects/new-project";
import { openSave } from "../save/save";
import { MIX_KEYS, type MixActs } from "./mixes-list";

type Sheet = { readonly kind: "keep" } | { readonly kind: "edit" | "begin"; readonly mix: Mix };

interface Given {
  readonly project: Project;
  /** The moment that is looked at. */
  readonly at: number;
  readonly look: (n: number) => void;
}

export interface Mixes extends MixActs {
  readonly keep: () => void;
  /** The sheet that is open. */
  readonly sheet: ReactNode;
}

/** What can be done with the mixes that are kept of a project, and with the moment that is looked at as one of them. */
export function useMixes({ project, at, look }: Given): Mixes {
  const editing = useProjectEditing(project.id);
  const [sheet, open] = useState<Sheet | null>(null);
  const close = () => open(null);
  const mixes = mixesOf(project);
  const keep = () => open({ kind: "keep" });
  const remove = async (mix: Mix) => {
    const made = await editing.commit(`Remove the kept mix “${mix.name}”`, (now) => {
      const from = findMix(now, mix.id);
      return from ? [{ id: mintKey(), kind: "setMix", mix: mix.id, from, to: null }] : [];
    });
    if (made !== null)
      say(`Removed the kept mix “${mixTitle(mix)}”`, {
        action: { label: "Undo", onClick: () => void editing.undo(made) },
      });
  };
  const save = (mix: Mix) =>
    orSay(
      api.getRevision(project.id, mix.n).then(({ project: then }) =>
        openSave({
          project: project.id,
          revision: mix.n,
          strips: then.strips.map(({ id }) => id),
          as: "mix",
          name: `${project.name}, ${mixTitle(mix)}`,
        }),
      ),
    );
  const group = "Kept mixes";
  useActions([
    { id: "keep-mix", title: "Keep this moment as a mix…", group, keys: ["Shift+K"], run: keep },
    ...mixes.slice(0, MIX_KEYS).map((mix, place) => ({
      id: `mix-${place + 1}`,
      title: `Look at the kept mix “${mixTitle(mix)}”`,
      group,
      keys: [String(place + 1)],
      run: () => look(mix.n),
    })),
  ]);
  return {
    keep,
    onEdit: (mix) => open({ kind: "edit", mix }),
    onSave: save,
    onBegin: (mix) => open({ kind: "begin", mix }),
    onRemove: (mix) => void remove(mix),
    sheet: sheet && <MixSheetOf {...{ project, at, sheet }} onClose={close} />,
  };
}

const NONE: readonly ProjectRow[] = [];

interface SheetProps extends Pick<Given, "project" | "at"> {
  readonly sheet: Sheet;
  readonly onClose: () => void;
}

function MixSheetOf({ project, at, sheet, onClose }: SheetProps) {
  switch (sheet.kind) {
    case "keep":
      return <MixSheet project={project} at={at} onClose={onClose} />;
    case "edit":
      return <MixSheet project={project} at={sheet.mix.n} mix={sheet.mix} onClose={onClose} />;
    case "begin":
      return (
        <NewProject
          projects={NONE}
          moment={{ project, revision: sheet.mix.n, title: mixTitle(sheet.mix) }}
          onClose={onClose}
        />
      );
  }
}
