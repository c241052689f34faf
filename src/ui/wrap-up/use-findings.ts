"use client";

import { useState } from "react";
import { create } from "zustand";
import type { WrapUpRequest } from "@/contracts/wrap-up";
import { withoutClashes } from "@/core/names/free";
import type { PresetKind } from "@/core/presets/preset";
import { usePatterns } from "../names/patterns";
import { useTaken } from "../names/taken";
import { type Block, type Row, isKept, nameBy } from "./rows";

/** What a hand has set of one find, over what is proposed. */
export interface Edit {
  readonly on?: boolean;
  readonly name?: string;
  /** As the next version of what it came from. */
  readonly asVersion?: boolean;
  readonly folder?: string | null;
  readonly tags?: readonly string[];
  readonly purpose?: string;
  /** Strips that are kept together with it, by their ids: it is a set then. */
  readonly companions?: readonly string[];
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
  readonly companions: readonly string[];
}

/** How something is filed, as it is asked for. */
export type FiledAs = WrapUpRequest["file"][number]["as"];

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
  plugins: (row) => !isKept(row) && !row.isAlone,
  left: (row) => row.wasLeft && !isKept(row),
  kept: isKept,
};

type Edits = Readonly<Record<string, Edit>>;

/** What was set, by what was looked through: who leaves the screen and comes back finds it. */
const useAllEdits = create<Readonly<Record<string, Edits>>>(() => ({}));

const NO_EDITS: Edits = {};

function useEdits(of: string) {
  const edits = useAllEdits((all) => all[of] ?? NO_EDITS);
  const setEdits = (change: (now: Edits) => Edits) =>
    useAllEdits.setState((all) => ({ [of]: change(all[of] ?? NO_EDITS) }));
  return { edits, setEdits };
}

const NO_COMPANIONS: readonly string[] = [];

/** What is ticked, each as what it is filed. */
function useFiled(chosen: readonly Row[], edits: Edits): readonly Filed[] {
  const patterns = usePatternsOfAll();
  const companionsOf = ({ key }: Row) => edits[key]?.companions ?? NO_COMPANIONS;
  const asVersion = (row: Row): boolean =>
    row.standing.is === "changed" && edits[row.key]?.asVersion !== false && companionsOf(row).length === 0;
  const own = chosen.filter((row) => !asVersion(row));
  const byPattern = own.map((row, at) => nameBy(patterns, edited(row, edits[row.key]), at + 1));
  // Who has emptied the field is about to write another.
  const wished = own.map(({ key }, at) => edits[key]?.name?.trim() || byPattern[at] || "");
  const { names: taken } = useTaken(wished);
  const free = withoutClashes(wished, taken);
  return chosen.map((row): Filed => {
    const companions = companionsOf(row);
    const at = own.indexOf(row);
    if (at >= 0)
      return {
        row,
        name: free[at] ?? "",
        wished: wished[at] ?? "",
        typed: edits[row.key]?.name ?? byPattern[at] ?? "",
        asVersion: false,
        companions,
      };
    const name = row.standing.is === "changed" ? row.standing.name : "";
    return { row, name, wished: name, typed: name, asVersion: true, companions };
  });
}

/** A find with what was set of its card. */
function edited(row: Row, edit: Edit | undefined): Row {
  if (!edit) return row;
  const { folder = row.card.folder, tags = row.card.tags, purpose = row.card.purpose } = edit;
  return { ...row, card: { ...row.card, folder, tags: [...tags], purpose } };
}

/**
 * What is shown of what was found, what of it is ticked, and how it would be filed. `of`: what was looked through, under which what a hand
 * sets is remembered.
 */
export function useFindings(of: string, all: readonly Block[]) {
  const { edits, setEdits } = useEdits(of);
  const [also, setAlso] = useState<Readonly<Record<Also, boolean>>>({ plugins: false, left: false, kept: false });
  // What another window has filed meanwhile is not filed again.
  const isOn = (row: Row): boolean => !isKept(row) && (edits[row.key]?.on ?? row.isProposed);
  const isShown = (row: Row): boolean => isOn(row) || ALSO.every((one) => also[one] || !IS_OF[one](row));
  const blocks = all
    .map((block) => ({ ...block, rows: block.rows.filter(isShown) }))
    .filter(({ rows }) => rows.length > 0);
  const everything = all.flatMap(({ rows }) => rows);
  const filed = useFiled(everything.filter(isOn), edits);
  return {
    blocks,
    rows: blocks.flatMap(({ rows }) => rows),
    isOn,
    filed,
    /** Sets something of some, each by what stands there now. */
    edit: (rows: readonly Row[], change: (row: Row) => Edit) =>
      setEdits((now) => ({
        ...now,
        ...Object.fromEntries(
          rows.map((row) => [row.key, { ...now[row.key], ...change(edited(row, now[row.key])) }] as const),
        ),
      })),
    editOf: (row: Row): Row => edited(row, edits[row.key]),
    companionsOf: ({ key }: Row): readonly string[] => edits[key]?.companions ?? NO_COMPANIONS,
    forget: () => setEdits(() => NO_EDITS),
    asFiled: ({ row, name, asVersion }: Filed): FiledAs =>
      asVersion && row.standing.is === "changed"
        ? { preset: row.standing.preset, baseVersion: row.standing.newest }
        : { card: { ...edited(row, edits[row.key]).card, name: name.trim() } },
    /** What stood there and was not ticked is not shown again, nor what was passed over before. */
    passedOver: () => everything.filter((row) => !isOn(row) && !isKept(row) && (isShown(row) || row.wasLeft)),
    loose: everything.filter((row) => !isKept(row)).length,
    found: everything.length,
    also,
    turn: (one: Also, on: boolean) => setAlso({ ...also, [one]: on }),
    count: (one: Also): number => everything.filter(IS_OF[one]).length,
  };
}

export type Findings = ReturnType<typeof useFindings>;
