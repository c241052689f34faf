"use client";

import { Columns3 } from "lucide-react";
import type { KeyboardEvent } from "react";
import { Menu, type MenuGroup } from "../kit/menu";
import { COLUMNS, type Columns } from "./columns";

/** Pixels by an arrow key; with Shift one. */
const STEP = 10;

const STEPS: Readonly<Record<string, 1 | -1>> = { ArrowLeft: -1, ArrowRight: 1 };

type Header = Columns["headers"][number];

/** The line behind a head: dragged, or moved by arrow keys. A double-click lets the column be as it was drawn. */
function Edge({ header, columns }: { readonly header: Header; readonly columns: Columns }) {
  const { id } = header;
  const onKeyDown = (event: KeyboardEvent) => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    columns.resize(id, step * (event.shiftKey ? 1 : STEP));
  };
  return (
    <span
      role="separator"
      tabIndex={0}
      aria-label={`Width of ${COLUMNS[id].title}`}
      aria-orientation="vertical"
      aria-valuenow={columns.widthOf(id)}
      aria-valuemin={COLUMNS[id].least}
      onMouseDown={header.onResize}
      onTouchStart={header.onResize}
      onKeyDown={onKeyDown}
      onDoubleClick={() => columns.resetWidth(id)}
      className="absolute top-1 right-[-10px] bottom-1 w-[9px] cursor-col-resize touch-none border-x-[4px] border-x-transparent bg-rule bg-clip-padding hover:bg-live focus-visible:bg-live"
    />
  );
}

/** Heads of the columns; with an edge each, by which it is made wider. */
export function LedgerHead({ columns, className }: { readonly columns: Columns; readonly className: string }) {
  return (
    <div role="row" className={className} style={{ gridTemplateColumns: columns.template }}>
      {columns.headers.map((header) => (
        <span key={header.id} role="columnheader" className="relative flex h-full min-w-0 items-center">
          <span className="truncate">{COLUMNS[header.id].title}</span>
          <Edge header={header} columns={columns} />
        </span>
      ))}
      <span role="columnheader" className="absolute top-[3px] right-1">
        <ColumnsMenu columns={columns} />
      </span>
    </div>
  );
}

/** Which columns are shown, and in what order. */
function ColumnsMenu({ columns }: { readonly columns: Columns }) {
  const groups: readonly MenuGroup[] = [
    {
      id: "shown",
      head: "Shown",
      items: columns.all
        .filter((id) => id !== "look")
        .map((id) => {
          const on = columns.shown.includes(id);
          return { id, label: COLUMNS[id].title, beside: on ? "shown" : "", onChoose: () => columns.show(id, !on) };
        }),
    },
    {
      id: "moved",
      head: "Further left",
      items: columns.shown
        .slice(2)
        .map((id) => ({ id: `left-${id}`, label: COLUMNS[id].title, onChoose: () => columns.moveLeft(id) })),
    },
    {
      id: "all",
      items: [{ id: "reset", label: "As they were drawn", disabled: columns.isAsDrawn, onChoose: columns.reset }],
    },
  ];
  return (
    <Menu
      align="end"
      trigger={
        <button
          type="button"
          aria-label="Columns"
          title="Columns"
          className="grid size-[22px] place-items-center rounded-card text-soft hover:bg-sunk hover:text-ink"
        >
          <Columns3 size={14} aria-hidden="true" />
        </button>
      }
      groups={groups}
    />
  );
}
