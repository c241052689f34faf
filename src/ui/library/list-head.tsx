"use client";

import { ArrowDown, Columns3 } from "lucide-react";
import { Suspense, lazy, useRef, useState } from "react";
import type { PresetPage, PresetQuery } from "@/contracts/library";
import { cx } from "../kit/class-names";
import { COLUMNS, type Column, columnsAsText, gridOf, hasShapes } from "./columns";
import type { SetFilters } from "./use-library";

// Not there at first, and fetched when it is.
const ColumnChoice = lazy(() => import("./column-choice").then((m) => ({ default: m.ColumnChoice })));

interface Props {
  readonly query: PresetQuery;
  /** The order they stand in; not known before they came. */
  readonly order: PresetPage["order"] | undefined;
  readonly columns: readonly Column[];
  readonly onSet: SetFilters;
}

/** The headings of the list: each puts it in order, and the last says which columns there are. */
export function ListHead({ query, order, columns, onSet }: Props) {
  const [isOpen, setOpen] = useState(false);
  const anchor = useRef<HTMLButtonElement>(null);
  const sort = query.sort ?? order;
  const heading = (name: Column | "name", title: string, className?: string) => (
    <button
      key={name}
      type="button"
      aria-pressed={sort === name}
      title={`Put in order by ${title.toLowerCase()}`}
      // Once more: the order that stands where none is asked for.
      onClick={() => onSet({ sort: query.sort === name ? undefined : name })}
      className={cx("flex min-w-0 items-center gap-1 hover:text-ink aria-pressed:text-ink", className)}
    >
      <span className="truncate">{title}</span>
      {sort === name && <ArrowDown size={12} aria-hidden="true" className="flex-none" />}
    </button>
  );
  return (
    <div
      role="group"
      aria-label="Order of the list"
      className="relative grid h-[30px] flex-none items-center gap-[10px] border-edge border-b px-[14px] text-small text-soft"
      style={{ gridTemplateColumns: gridOf(columns) }}
    >
      <span />
      <span className="flex min-w-0 gap-2">
        {heading("name", "Name")}
        {sort === "rank" && <span className="flex-none">· best first</span>}
      </span>
      {hasShapes(columns) && <span className="truncate">Shape</span>}
      {columns.map((name) => heading(name, COLUMNS[name].title, "justify-end"))}
      <button
        ref={anchor}
        type="button"
        aria-label="Columns of the list"
        title="Columns of the list"
        aria-expanded={isOpen}
        onClick={() => setOpen(true)}
        className="absolute right-0 grid size-[12px] place-items-center text-soft hover:text-ink"
      >
        <Columns3 size={11} aria-hidden="true" />
      </button>
      <Suspense>
        {isOpen && (
          <ColumnChoice
            columns={columns}
            anchor={anchor}
            onColumns={(next) =>
              onSet({
                columns: columnsAsText(next),
                // What is put away is no order any more.
                ...(query.sort && query.sort !== "name" && !next.includes(query.sort) ? { sort: undefined } : {}),
              })
            }
            onClose={() => setOpen(false)}
          />
        )}
      </Suspense>
    </div>
  );
}
