"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { create } from "zustand";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { WrapUp, WrapUpRequest, WrappedUp } from "@/contracts/wrap-up";
import { counted } from "@/core/names/count";
import { withoutClashes } from "@/core/names/free";
import type { PresetKind } from "@/core/presets/preset";
import type { Project } from "@/core/projects/project";
import { errorText } from "../kit/error-text";
import { say, sayError } from "../kit/say";
import { usePatterns } from "../names/patterns";
import { useTaken } from "../names/taken";
import { whenSent } from "../projects/sending";
import { type Row, blocksOf, isAlone, isKept, nameBy } from "./rows";

/** What a hand has set of one find, over what is proposed. */
export interface Edit {
  readonly on?: boolean;
  readonly name?: string;
  /** As the next version of what it came from. */
  readonly asVersion?: boolean;
  readonly folder?: string | null;
  readonly tags?: readonly string[];
  readonly purpose?: string;
}

/** A find that is to be filed. */
export interface Filed {
  readonly row: Row;
  /** The name that it gets: where another has the one that is wished, with a number behind. */
  readonly name: string;
  readonly wished: string;
  /** What stands in its field. */
  readonly typed: string;
  readonly asVersion: boolean;
}

const usePatternsOfAll = (): Readonly<Record<PresetKind, string>> => ({
  plugin: usePatterns("plugin").patterns[0] ?? "",
  chain: usePatterns("chain").patterns[0] ?? "",
  strip: usePatterns("strip").patterns[0] ?? "",
  set: usePatterns("set").patterns[0] ?? "",
  mix: usePatterns("mix").patterns[0] ?? "",
});

/** What is shown only where it is asked for. */
export const ALSO = ["plugins", "left", "kept"] as const;
export type Also = (typeof ALSO)[number];

const IS_OF: Readonly<Record<Also, (row: Row) => boolean>> = {
  plugins: (row) => !isKept(row) && !isAlone(row),
  left: (row) => row.wasLeft && !isKept(row),
  kept: isKept,
};

/** What the library says of a project; fetched anew with each of its revisions. */
export const useLookedThrough = (project: string, revision: number) =>
  useQuery({
    queryKey: [...KEYS.presets, "wrap-up", project, revision],
    queryFn: () => api.lookThrough(project),
    staleTime: 0,
    placeholderData: (before) => before,
  });

/** What was filed, and how it is taken back. */
interface Done {
  readonly undo: NonNullable<WrappedUp["undo"]>;
  readonly words: string;
}

type Edits = Readonly<Record<string, Edit>>;

/** What was set, by project: who leaves the screen and comes back finds it. */
const useAllEdits = create<Readonly<Record<string, Edits>>>(() => ({}));

const NO_EDITS: Edits = {};

function useEdits(project: string) {
  const edits = useAllEdits((all) => all[project] ?? NO_EDITS);
  const setEdits = (change: (now: Edits) => Edits) =>
    useAllEdits.setState((all) => ({ [project]: change(all[project] ?? NO_EDITS) }));
  return { edits, setEdits };
}

const SAID = "wrap-up";

/** Files what is asked for; says what was done, with the way back. */
function useFile({ id, name }: Project) {
  const queries = useQueryClient();
  const refetch = () =>
    Promise.all(
      [KEYS.presets, KEYS.folders, KEYS.libraryHistory, KEYS.projects, KEYS.project(id)].map((queryKey) =>
        queries.invalidateQueries({ queryKey }),
      ),
    );
  const takeBack = async ({ undo, words }: Done) => {
    try {
      await api.undoWrapUp(id, undo);
      await refetch();
      // In place of the message that offers it.
      say(`Taken back: ${words}`, { id: SAID });
    } catch (error) {
      sayError(errorText(error));
    }
  };
  const file = async (request: () => WrapUpRequest) => {
    // What is on its way is found, too.
    await whenSent(queries, id);
    const { presets, undo } = await api.wrapUp(id, request());
    await refetch();
    const words =
      presets.length === 0
        ? `Wrapped up ${name}: nothing was filed`
        : `Filed ${counted(presets.length, "sound")} of ${name}`;
    if (!undo) return say(words);
    const done = { undo, words };
    say(words, { id: SAID, action: { label: "Undo", onClick: () => void takeBack(done) } });
  };
  return { file, takeBack };
}

/** What is ticked, each as what it is filed. */
function useFiled(chosen: readonly Row[], edits: Edits): readonly Filed[] {
  const patterns = usePatternsOfAll();
  const asVersion = ({ key, standing }: Row): boolean => standing.is === "changed" && edits[key]?.asVersion !== false;
  const own = chosen.filter((row) => !asVersion(row));
  const byPattern = own.map((row, at) => nameBy(patterns, edited(row, edits[row.key]), at + 1));
  // Who has emptied the field is about to write another.
  const wished = own.map(({ key }, at) => edits[key]?.name?.trim() || byPattern[at] || "");
  const { names: taken } = useTaken(wished);
  const free = withoutClashes(wished, taken);
  return chosen.map((row): Filed => {
    const at = own.indexOf(row);
    if (at >= 0)
      return {
        row,
        name: free[at] ?? "",
        wished: wished[at] ?? "",
        typed: edits[row.key]?.name ?? byPattern[at] ?? "",
        asVersion: false,
      };
    const name = row.standing.is === "changed" ? row.standing.name : "";
    return { row, name, wished: name, typed: name, asVersion: true };
  });
}

/** What is shown of what was found, what of it is ticked, and under which names it would be filed. */
export function useWrapUp(project: Project, told: WrapUp) {
  const { edits, setEdits } = useEdits(project.id);
  const [also, setAlso] = useState<Readonly<Record<Also, boolean>>>({ plugins: false, left: false, kept: false });
  const all = useMemo(() => blocksOf(project, told), [project, told]);
  // What another window has filed meanwhile is not filed again.
  const isOn = (row: Row): boolean => !isKept(row) && (edits[row.key]?.on ?? row.isProposed);
  const isShown = (row: Row): boolean => isOn(row) || ALSO.every((one) => also[one] || !IS_OF[one](row));
  const blocks = all
    .map((block) => ({ ...block, rows: block.rows.filter(isShown) }))
    .filter(({ rows }) => rows.length > 0);
  const everything = all.flatMap(({ rows }) => rows);
  const chosen = everything.filter(isOn);
  const filed = useFiled(chosen, edits);
  const edit = ({ key }: Row, change: Edit) => setEdits((now) => ({ ...now, [key]: { ...now[key], ...change } }));
  const request = (): WrapUpRequest => ({
    baseRevision: told.revision,
    file: filed.map(({ row, name, asVersion: isNext }) => ({
      key: row.key,
      as:
        isNext && row.standing.is === "changed"
          ? { preset: row.standing.preset, baseVersion: row.standing.newest }
          : { card: { ...edited(row, edits[row.key]).card, name: name.trim() } },
    })),
    // What stood there and was not ticked is not shown again, nor what was passed over before.
    left: everything
      .filter((row) => !isOn(row) && !isKept(row) && (isShown(row) || row.wasLeft))
      .map(({ fingerprint }) => fingerprint),
  });
  const { file, takeBack } = useFile(project);
  return {
    blocks,
    rows: blocks.flatMap(({ rows }) => rows),
    isOn,
    filed,
    edit,
    editOf: (row: Row): Row => edited(row, edits[row.key]),
    file: async () => {
      await file(request);
      setEdits(() => NO_EDITS);
    },
    /** Takes the last wrap-up back, also after a reload. */
    takeBack: told.undo && (() => takeBack({ undo: told.undo!, words: `Wrap-up of ${project.name}` })),
    loose: everything.filter((row) => !isKept(row)).length,
    found: everything.length,
    also,
    turn: (one: Also, on: boolean) => setAlso({ ...also, [one]: on }),
    count: (one: Also): number => everything.filter(IS_OF[one]).length,
  };
}

export type WrappingUp = ReturnType<typeof useWrapUp>;

/** A find with what was set of its card. */
function edited(row: Row, edit: Edit | undefined): Row {
  if (!edit) return row;
  const { folder = row.card.folder, tags = row.card.tags, purpose = row.card.purpose } = edit;
  return { ...row, card: { ...row.card, folder, tags: [...tags], purpose } };
}
