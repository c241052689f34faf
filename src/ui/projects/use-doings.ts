"use client";

import { useRouter } from "next/navigation";
import type { ProjectRow } from "@/contracts/records";
import { counted } from "@/core/names/count";
import type { Action } from "../actions/actions";
import type { MenuGroup } from "../kit/menu";
import { printSheet } from "../keeping/print-sheet";
import { calledOf } from "./titles";
import type { useProjectActs } from "./use-project-acts";
import type { ProjectsShown } from "./use-projects";
import { useSweeping } from "./use-sweeping";

/** Something that is done with a project, or with all that are shown: by its key, from the field and from the menu. */
interface Doing {
  readonly id: string;
  /** In the field of actions. */
  readonly title: string;
  /** In the menu. */
  readonly label: string;
  readonly menu: "project" | "shown" | "bin";
  readonly key?: string;
  /** How its key is written in the menu. */
  readonly beside?: string;
  /** For which projects it is: those that are kept, those in the bin, or both. */
  readonly of: "kept" | "binned" | "both";
  readonly run: (row: ProjectRow) => void;
}

const GROUP = "Projects";

interface Hands {
  readonly shown: ProjectsShown;
  readonly acts: ReturnType<typeof useProjectActs>;
  readonly onDetails: () => void;
}

interface Ways extends Hands {
  readonly go: (address: string) => void;
  readonly sweep: ReturnType<typeof useSweeping>;
}

/** With one of them. */
const withOne = ({ go, acts, onDetails }: Ways, row: ProjectRow | undefined): readonly Doing[] => [
  {
    id: "open",
    title: "Open the project",
    label: "Open",
    menu: "project",
    key: "Enter",
    of: "both",
    run: ({ id }) => go(`/projects/${id}`),
  },
  {
    id: "project-details",
    title: "Name, client and tempo…",
    label: "Name, client and tempo…",
    menu: "project",
    key: "F2",
    of: "kept",
    run: onDetails,
  },
  {
    id: "project-compare",
    title: acts.compareWords(row),
    label: acts.compareWords(row),
    menu: "project",
    key: "C",
    of: "both",
    run: acts.compare,
  },
  {
    id: "project-sheet",
    title: "Recall sheet of the project, as PDF",
    label: "Recall sheet, as PDF",
    menu: "project",
    of: "both",
    run: ({ id, name }) => printSheet({ project: id }, name),
  },
];

/** At their end, and with where they lie. */
const atItsEnd = ({ go, acts, sweep, shown }: Ways): readonly Doing[] => [
  {
    id: "project-wrap-up",
    title: "Wrap up: file what is worth keeping",
    label: "Wrap up",
    menu: "project",
    key: "W",
    of: "kept",
    run: ({ id }) => go(`/projects/${id}/wrap-up`),
  },
  {
    id: "projects-wrap-up",
    title: `Wrap up ${counted(shown.rows.length, "project")} together`,
    label: `Wrap up all ${shown.rows.length} together`,
    menu: "shown",
    key: "Shift+W",
    beside: "Shift W",
    of: "kept",
    run: () => sweep(shown.rows, calledOf(shown)),
  },
  {
    id: "project-bin",
    title: "Put the project into the bin",
    label: "Put into the bin",
    menu: "bin",
    key: "Delete",
    of: "kept",
    run: acts.bin,
  },
  {
    id: "project-restore",
    title: "Take the project out of the bin",
    label: "Take out of the bin",
    menu: "bin",
    key: "R",
    of: "binned",
    run: acts.restore,
  },
];

/** What can be done with a project, and with all of a drawer. */
export function useDoings(hands: Hands) {
  const { shown } = hands;
  const router = useRouter();
  const ways: Ways = { ...hands, go: (address) => router.push(address), sweep: useSweeping() };
  const all = (row: ProjectRow | undefined) => [...withOne(ways, row), ...atItsEnd(ways)];
  const inBin = shown.drawer.of === "bin";
  const isHere = ({ of }: Doing) => of === "both" || of === (inBin ? "binned" : "kept");
  return {
    actionsFor: (row: ProjectRow | undefined): readonly Action[] =>
      all(row).map((doing) => ({
        id: doing.id,
        title: doing.title,
        group: GROUP,
        ...(doing.key === undefined ? {} : { keys: [doing.key] }),
        enabled: row !== undefined && isHere(doing),
        run: () => row && doing.run(row),
      })),
    menuOf: (row: ProjectRow): readonly MenuGroup[] =>
      (["project", "shown", "bin"] as const).map((menu) => ({
        id: menu,
        items: all(row)
          .filter((doing) => doing.menu === menu && isHere(doing))
          .map(({ id, label, key, beside = key, run }) => ({
            id,
            label,
            ...(beside === undefined ? {} : { beside }),
            onChoose: () => run(row),
          })),
      })),
  };
}
