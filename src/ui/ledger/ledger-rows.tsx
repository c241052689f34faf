"use client";

import { useVirtualizer } from "@tanstack/react-virtual";
import equal from "fast-deep-equal";
import { type KeyboardEvent, type MouseEvent, type RefObject, memo, useEffect, useMemo } from "react";
import { folderOf, groupOf, isHolder, parentOf } from "@/core/projects/nesting";
import type { Project } from "@/core/projects/project";
import type { Strip } from "@/core/strips/strip";
import { counted } from "@/core/names/count";
import { Empty } from "../kit/bits";
import { Button } from "../kit/button";
import { cx } from "../kit/class-names";
import { CELLS, type CellProps, type Hands } from "./cells";
import type { Columns } from "./views/columns";
import type { ColumnId } from "./views/layout";
import { LedgerHead } from "./ledger-head";
import { isLit } from "./dropping";
import { Typing } from "./typing";
import type { DropHandlers, Lit } from "./use-dropping";
import type { Standing } from "./use-standings";

const ROW = 48;
const HEAD = 30;
const GRID = "grid items-center gap-[10px] px-[14px]";

/** What a key or a press means for the rows. */
export type ChooseRow = (id: string, how: "only" | "range" | "toggle" | "point", column?: ColumnId | null) => void;

/** A press on a value of a row that is chosen leaves the others chosen: it is for all of them. */
function howOf({ shiftKey, ctrlKey, metaKey, target }: MouseEvent, isChosen: boolean): Parameters<ChooseRow>[1] {
  if (shiftKey) return "range";
  if (ctrlKey || metaKey) return "toggle";
  return isChosen && target instanceof Element && target.closest("[data-value]") ? "point" : "only";
}

export interface RowsProps {
  readonly project: Project;
  readonly rows: readonly Strip[];
  readonly columns: Columns;
  readonly onShowAll: () => void;
  readonly standings: ReadonlyMap<string, Standing>;
  readonly chosen: readonly string[];
  /** The row in hand, and the column of it, where one is. */
  readonly cursor: string | null;
  readonly column: ColumnId | null;
  /** What is typed over in a cell of the row in hand. */
  readonly typed: string | null;
  readonly hands: Hands;
  /** Of which nothing is shown that stands in them. */
  readonly folded: ReadonlySet<string>;
  /** What a drag over the rows would do, and what it does. */
  readonly lit: Lit;
  readonly dropHandlers: DropHandlers;
  readonly gridRef: RefObject<HTMLDivElement | null>;
  readonly onChoose: ChooseRow;
  readonly onOpen: () => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
  readonly onTyped: (typed: string | null) => void;
  readonly onTypedEnd: (strip: string, column: ColumnId, value: number) => void;
}

/** How strips are called: the same map until one is called otherwise. */
function useNames({ strips }: Project): ReadonlyMap<string, string> {
  const text = JSON.stringify(strips.map(({ id, look }) => [id, look.name]));
  return useMemo(() => new Map(JSON.parse(text) as readonly [string, string][]), [text]);
}

/** How many strips go to each group, and stand in each folder. */
function membersOf(project: Project): ReadonlyMap<string, number> {
  const members = new Map<string, number>();
  for (const strip of project.strips)
    for (const holder of [groupOf(project, strip), folderOf(project, strip)])
      if (holder) members.set(holder.id, (members.get(holder.id) ?? 0) + 1);
  return members;
}

/** In how many rows that are shown a strip stands. */
function depthAmong(project: Project, strip: Strip, inSight: ReadonlySet<string>): number {
  let depth = 0;
  for (let above = parentOf(project, strip); above; above = parentOf(project, above))
    if (inSight.has(above.id)) depth += 1;
  return Math.min(depth, 8);
}

export const rowId = (strip: string): string => `strip-${strip}`;
export const cellId = (strip: string, column: ColumnId): string => `strip-${strip}-${column}`;

export function Rows(props: RowsProps) {
  const { project, rows, columns, chosen, cursor, column, gridRef, lit, onChoose } = props;
  const names = useNames(project);
  const members = useMemo(() => membersOf(project), [project]);
  const inSight = useMemo(() => new Set(rows.map(({ id }) => id)), [rows]);
  // The compiler cannot see into the virtualizer; it holds its own state.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => gridRef.current,
    estimateSize: () => ROW,
    overscan: 6,
    // The row in hand is scrolled to while the page is drawn.
    useFlushSync: false,
    scrollPaddingStart: HEAD,
    scrollMargin: HEAD,
  });
  const at = rows.findIndex(({ id }) => id === cursor);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at);
    // The virtualizer is new on every render; only the row in hand moves the list.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at]);
  if (rows.length === 0 && project.strips.length > 0)
    return (
      <Empty title="No strip is shown" className="flex-1">
        <p>All {counted(project.strips.length, "strip")} are hidden, or not what is looked for.</p>
        <Button onClick={props.onShowAll}>Show all</Button>
      </Empty>
    );
  if (rows.length === 0)
    return (
      <Empty title="No strips yet" className="flex-1">
        <p>Choose a sound in the library beside and press Enter: it makes a strip of the right kind.</p>
      </Empty>
    );
  const columnOf = ({ target }: MouseEvent): ColumnId | null =>
    (target instanceof Element
      ? target.closest<HTMLElement>("[data-column]")?.dataset["column"]
      : undefined) as ColumnId | null;
  return (
    <div
      ref={gridRef}
      role="grid"
      tabIndex={0}
      aria-label="Strips"
      aria-multiselectable="true"
      aria-rowcount={rows.length + 1}
      aria-activedescendant={cursor ? (column ? cellId(cursor, column) : rowId(cursor)) : undefined}
      onKeyDown={props.onKeyDown}
      {...props.dropHandlers}
      className="group relative min-h-0 flex-1 overflow-auto outline-none"
    >
      <div className="sticky top-0 z-10 w-fit min-w-full border-edge border-y bg-ground">
        <LedgerHead columns={columns} className={cx(GRID, "h-[28px] text-small text-soft")} />
      </div>
      <div className="relative w-fit min-w-full" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const strip = rows[index]!;
          const { id } = strip;
          const inHand = id === cursor;
          return (
            <div
              key={id}
              id={rowId(id)}
              role="row"
              data-strip={id}
              aria-rowindex={index + 2}
              aria-selected={chosen.includes(id)}
              onClick={(event) => onChoose(id, howOf(event, chosen.includes(id)), columnOf(event))}
              onDoubleClick={props.onOpen}
              style={{ height: ROW, transform: `translateY(${start - HEAD}px)`, gridTemplateColumns: columns.template }}
              className={cx(
                GRID,
                "absolute top-0 left-0 w-fit min-w-full cursor-default border-rule border-b",
                chosen.includes(id) ? "row-chosen" : "hover:bg-sunk/60",
                inHand &&
                  "outline outline-edge -outline-offset-1 group-focus-visible:-outline-offset-2 group-focus-visible:outline-2",
                inHand && !column && "group-focus-visible:outline-live",
              )}
            >
              {columns.shown.map((shown) => (
                <span
                  key={shown}
                  id={cellId(id, shown)}
                  role="gridcell"
                  data-column={shown}
                  // A strip is taken by its name; its values are turned where they stand.
                  draggable={shown === "look"}
                  className={cx(
                    "relative -mx-[5px] grid h-full min-w-0 content-center px-[5px]",
                    isLit(lit.sound, id, shown) && "bg-live-tint outline-1 outline-live -outline-offset-2",
                    inHand && column === shown && "-outline-offset-1 outline outline-live",
                  )}
                >
                  {inHand && column === shown && props.typed !== null ? (
                    <Typing
                      strip={strip}
                      column={shown}
                      typed={props.typed}
                      onTyped={props.onTyped}
                      onTypedEnd={(value) => props.onTypedEnd(id, shown, value)}
                    />
                  ) : (
                    <Cell
                      column={shown}
                      width={columns.widthOf(shown)}
                      strip={strip}
                      names={names}
                      tempo={project.tempo}
                      depth={depthAmong(project, strip, inSight)}
                      members={members.get(id) ?? 0}
                      fold={isHolder(strip) && members.has(id) ? (props.folded.has(id) ? "folded" : "open") : null}
                      standing={props.standings.get(id)}
                      hands={props.hands}
                    />
                  )}
                </span>
              ))}
              <DropMarks lit={lit} strip={id} />
            </div>
          );
        })}
      </div>
    </div>
  );
}

/** Where something that is dragged would come to stand: a line between rows, in a group, or a place among plugins. */
function DropMarks({ lit: { sound, rows, mark }, strip }: { readonly lit: Lit; readonly strip: string }) {
  const between = sound?.onto === "between" && sound.strip === strip ? sound : null;
  const row = rows?.strip === strip ? rows : null;
  const below = between ? between.below : row?.side === "behind";
  return (
    <>
      {(between !== null || (row !== null && row.side !== "inside")) && (
        <span
          aria-hidden="true"
          className={cx(
            "pointer-events-none absolute inset-x-0 z-10 h-[2px] bg-live",
            below ? "-bottom-px" : "-top-px",
          )}
        />
      )}
      {row?.side === "inside" && (
        <span
          aria-hidden="true"
          className="pointer-events-none absolute inset-0 outline-2 outline-live -outline-offset-2"
        />
      )}
      {mark?.strip === strip && (
        <span
          aria-hidden="true"
          style={{ left: mark.left, width: mark.width }}
          className={cx("pointer-events-none absolute inset-y-[3px] bg-live", mark.width > 4 && "opacity-40")}
        />
      )}
    </>
  );
}

interface OneCell extends CellProps {
  readonly column: ColumnId;
  readonly width: number;
}

/** What of a strip each column shows; that alone makes it be drawn anew. */
function isSame(a: OneCell, b: OneCell): boolean {
  const { strip: was, standing: stood, ...before } = a;
  const { strip: is, standing: stands, ...now } = b;
  return equalFlat(before, now) && equal(stood, stands) && isSameFor(a.column, was, is);
}

const equalFlat = (a: object, b: object): boolean => {
  const [first, second] = [Object.entries(a), new Map(Object.entries(b))];
  return first.every(([key, value]) => second.get(key) === value);
};

/** What a column shows beside the part that it is of. */
const BESIDE: Partial<Record<ColumnId, "source" | "media">> = { inserts: "source", source: "media" };

/** Whether two states of a strip look the same in a column: what has not changed is the same object. */
function isSameFor(column: ColumnId, was: Strip, is: Strip): boolean {
  if (was === is) return true;
  if (was.id !== is.id || was.kind !== is.kind) return false;
  if (column === "keys") return was.inserts === is.inserts;
  const { [column]: beside } = BESIDE;
  return was[column] === is[column] && (beside === undefined || was[beside] === is[beside]);
}

/** What there is to see of a folder. */
const OF_FOLDERS: readonly ColumnId[] = ["look", "source"];

const Cell = memo(function Cell({ column, ...props }: OneCell) {
  if (props.strip.kind === "folder" && !OF_FOLDERS.includes(column)) return null;
  const Shown = CELLS[column];
  return <Shown {...props} />;
}, isSame);
