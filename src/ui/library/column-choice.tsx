"use client";

import { Popover } from "radix-ui";
import type { RefObject } from "react";
import { Tick } from "../kit/tick";
import { COLUMNS, COLUMN_NAMES, type Column } from "./columns";

interface Props {
  readonly columns: readonly Column[];
  readonly anchor: RefObject<HTMLElement | null>;
  readonly onColumns: (columns: readonly Column[]) => void;
  readonly onClose: () => void;
}

/** Which columns the list has. */
export const ColumnChoice = ({ columns, anchor, onColumns, onClose }: Props) => (
  <Popover.Root open onOpenChange={(open) => !open && onClose()}>
    <Popover.Anchor virtualRef={anchor} />
    <Popover.Portal>
      <Popover.Content
        align="end"
        aria-label="Columns of the list"
        className="z-40 rounded-card border border-edge bg-card px-3 py-2"
      >
        <ul>
          {COLUMN_NAMES.map((name) => (
            <li key={name} className="flex min-h-[26px] items-center gap-2">
              <Tick
                label={COLUMNS[name].title}
                on={columns.includes(name)}
                onChange={(on) => onColumns(on ? [...columns, name] : columns.filter((one) => one !== name))}
              />
              <span>{COLUMNS[name].title}</span>
            </li>
          ))}
        </ul>
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
);
