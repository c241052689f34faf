"use client";

import type { KeyboardEvent } from "react";
import type { Columns } from "./views/columns";
import { COLUMNS } from "./views/layout";

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
    </div>
  );
}
