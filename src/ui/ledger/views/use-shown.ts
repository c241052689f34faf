"use client";

import equal from "fast-deep-equal";
import { useEffect, useMemo, useState } from "react";
import type { StripKind } from "@/core/documents/strip-kinds";
import type { Project } from "@/core/projects/project";
import {
  ORDER_WORDS,
  type RowOrder,
  type ShownRows,
  hiding,
  isSameRows,
  rowsOf,
  showingAlso,
  showingOnly,
  shownStrips,
  turningKind,
} from "@/core/projects/shown-rows";
import { type View, findView } from "@/core/projects/views";
import { stripsFoundBy } from "@/core/search/strip-entry";
import type { Strip } from "@/core/strips/strip";
import { chooseStrips, useInHand } from "../../projects/in-hand";
import { type Columns, useColumns } from "./columns";
import { columnsOf, layoutOf } from "./layout";
import { ALL_HERE, changeShown, useShownHere } from "./shown-here";

/** What the ledger shows of a project, and what can be done to that. Nothing of it changes the project. */
export interface Shown {
  readonly rows: ShownRows;
  readonly columns: Columns;
  /** The view that was taken last, where it is kept still. */
  readonly view: View | null;
  /** Whether something was changed since it was taken. */
  readonly isChanged: boolean;
  /** What strips are looked for by; null where nobody looks for one. */
  readonly words: string | null;
  /** Why rows cannot be moved among each other; null where they can. */
  readonly stuck: string | null;
  /** The rows in their order. `folded`: of which nothing is shown that stands in them. */
  readonly rowsOf: (project: Project, folded: ReadonlySet<string>) => readonly Strip[];
  readonly look: (words: string | null) => void;
  readonly hide: (strips: readonly string[]) => void;
  readonly showOnly: (strips: readonly string[]) => void;
  readonly turnKind: (kind: StripKind) => void;
  readonly stand: (order: RowOrder) => void;
  readonly take: (view: View) => void;
  /** All strips and columns, as they stand in the project. */
  readonly showAll: () => void;
}

/** As a view keeps what is shown. */
export type Kept = Omit<View, "id" | "name" | "digit">;
export const keptOf = ({ rows, columns }: Pick<Shown, "rows" | "columns">): Kept => ({
  only: rows.only,
  hidden: rows.hidden,
  also: rows.also,
  kinds: rows.kinds,
  order: rows.order,
  columns: columnsOf(columns.layout),
});

const among = (rows: readonly Strip[], found: ReadonlySet<string> | null): readonly Strip[] =>
  found ? rows.filter(({ id }) => found.has(id)) : rows;

/** What is chosen and no longer shown is let go: nothing is done to what nobody sees. */
function letGo(isShown: (strip: string) => boolean): void {
  const { strips } = useInHand.getState();
  const left = strips.filter(isShown);
  if (left.length < strips.length) chooseStrips(left);
}

/** What is in hand is in sight: what was made or found just now is shown, whatever hides it. */
function useInSight(project: Project, words: string | null, leaveWords: () => void): void {
  const strips = useInHand((h) => (h.project === project.id ? h.strips : NONE));
  useEffect(() => {
    changeShown(project.id, (now) => {
      const rows = showingAlso(project, now.rows, strips);
      return rows === now.rows ? now : { ...now, rows };
    });
    const found = words === null ? null : stripsFoundBy(project, words);
    if (found && strips.some((id) => !found.has(id))) leaveWords();
    // Words that are typed let go of what they do not find; only what comes in hand is looked at.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [project, strips]);
}

const NONE: readonly string[] = [];

export function useShown(project: Project): Shown {
  const { id } = project;
  const here = useShownHere(id);
  const [words, setWords] = useState<string | null>(null);
  const found = useMemo(() => (words === null ? null : stripsFoundBy(project, words)), [project, words]);
  const columns = useColumns({
    layout: here.layout,
    keep: (change) => changeShown(id, (now) => (now.layout ? { ...now, layout: change(now.layout) } : now)),
  });
  useInSight(project, words, () => setWords(null));
  const put = (rows: ShownRows) => {
    const next = shownStrips(project, rows);
    letGo((strip) => next.has(strip));
    changeShown(id, (now) => ({ ...now, rows }));
  };
  const { rows } = here;
  const view = here.view === null ? null : findView(project, here.view);
  return {
    rows,
    columns,
    view,
    isChanged: view !== null && !(isSameRows(rows, view) && equal(columnsOf(columns.layout), view.columns)),
    words,
    stuck:
      rows.order === "project"
        ? null
        : `Rows stand ${ORDER_WORDS[rows.order]}. They are moved where they stand as in the project.`,
    rowsOf: (of, folded) => among(rowsOf(of, rows, found ? NOTHING_FOLDED : folded), found),
    look: (next) => {
      const left = next === null ? null : stripsFoundBy(project, next);
      letGo((strip) => !left || left.has(strip));
      setWords(next);
    },
    hide: (strips) => put(hiding(rows, strips)),
    showOnly: (strips) => put(showingOnly(rows, strips)),
    turnKind: (kind) => put(turningKind(rows, kind)),
    stand: (order) => put({ ...rows, order }),
    take: (taken) => {
      const next = shownStrips(project, taken);
      letGo((strip) => next.has(strip));
      setWords(null);
      const { only, hidden, also, kinds, order } = taken;
      changeShown(id, () => ({
        view: taken.id,
        rows: { only, hidden, also, kinds, order },
        layout: layoutOf(taken.columns),
      }));
    },
    showAll: () => {
      setWords(null);
      changeShown(id, () => ALL_HERE);
      columns.showEvery();
    },
  };
}

const NOTHING_FOLDED: ReadonlySet<string> = new Set();
