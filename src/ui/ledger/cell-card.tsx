"use client";

import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { counted } from "@/core/names/count";
import { findStrip } from "@/core/projects/project";
import { stripName } from "@/core/strips/strip";
import type { CardProps } from "./cards/card";
import { KeysCard } from "./cards/keys-card";
import { LookCard } from "./cards/look-card";
import { RoutingCard } from "./cards/routing-card";
import { SendsCard } from "./cards/sends-card";
import { SourceCard } from "./cards/source-card";
import { LevelCard, PanCard } from "./cards/values";
import { COLUMNS, type ColumnId } from "./views/layout";
import { cellId } from "./ledger-rows";
import type { Turning } from "./use-turning";

/** All that there is to set in a cell. Inserts are set on the bench. */
const CARDS: Readonly<Record<Exclude<ColumnId, "inserts">, (props: CardProps) => ReactNode>> = {
  look: LookCard,
  source: SourceCard,
  sends: SendsCard,
  keys: KeysCard,
  level: LevelCard,
  pan: PanCard,
  routing: RoutingCard,
};

/** Columns whose card sets one strip alone. */
const ALONE: readonly ColumnId[] = ["keys"];

interface Props {
  readonly of: { readonly strip: string; readonly column: ColumnId };
  readonly turning: Turning;
  readonly onClose: () => void;
  /** Where the focus goes then. */
  readonly onClosed: () => void;
}

/** The card of a cell, beside it. */
export function CellCard({ of: { strip: id, column }, turning, onClose, onClosed }: Props) {
  const strip = findStrip(turning.project, id);
  if (!strip || column === "inserts") return null;
  const strips = ALONE.includes(column) ? [id] : turning.together(id);
  const Card = CARDS[column];
  const anchor = { current: document.getElementById(cellId(id, column)) ?? document.body };
  return (
    <Popover.Root open onOpenChange={(open) => !open && onClose()}>
      <Popover.Anchor virtualRef={anchor} />
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={2}
          collisionPadding={{ top: 48, bottom: 60, left: 136, right: 8 }}
          aria-label={`${COLUMNS[column].title} of ${stripName(strip)}`}
          className="z-40 grid w-[340px] gap-2 rounded-card border border-edge bg-card p-3 outline-none"
          onOpenAutoFocus={(event) => {
            // The hand is on the value itself.
            const value = (event.currentTarget as Element | null)?.querySelector<HTMLElement>("[role=slider], input");
            if (!value) return;
            event.preventDefault();
            value.focus();
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            onClosed();
          }}
        >
          <p className="flex items-baseline gap-2 truncate text-small text-soft">
            <span className="truncate">{stripName(strip)}</span>
            {strips.length > 1 && <span className="flex-none text-live">sets {counted(strips.length, "strip")}</span>}
          </p>
          <Card project={turning.project} strip={strip} strips={strips} turning={turning} onClose={onClose} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
