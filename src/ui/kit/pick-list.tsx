"use client";

import { Command } from "cmdk";
import type { ReactNode } from "react";

export interface Pick {
  readonly id: string;
  readonly label: string;
  readonly mark?: ReactNode;
  /** What it is now. */
  readonly chosen?: boolean;
}

interface Props {
  readonly label: string;
  readonly picks: readonly Pick[];
  /** Where there is none to choose. */
  readonly none: string;
  readonly onPick: (id: string) => void;
  readonly autoFocus?: boolean;
}

/** One of many: letters narrow the list, arrows walk it, Enter takes one. */
export function PickList({ label, picks, none, onPick, autoFocus = false }: Props) {
  if (picks.length === 0) return <p className="text-small text-soft">{none}</p>;
  const now = picks.find(({ chosen }) => chosen);
  return (
    <Command label={label} defaultValue={now?.id ?? ""} className="grid gap-1">
      <Command.Input
        autoFocus={autoFocus}
        placeholder={label}
        aria-label={label}
        className="h-[28px] rounded-card border border-bound bg-ground px-2 outline-none placeholder:text-soft focus:border-live"
      />
      <Command.List className="max-h-[220px] overflow-auto">
        <Command.Empty className="px-2 py-1 text-small text-soft">None is called so.</Command.Empty>
        {picks.map(({ id, label: text, mark, chosen }) => (
          <Command.Item
            key={id}
            value={id}
            keywords={[text]}
            onSelect={() => onPick(id)}
            className="flex h-[28px] cursor-pointer items-center gap-2 rounded-card px-2 data-[selected=true]:bg-live-tint data-[selected=true]:text-live"
          >
            {mark}
            <span className="min-w-0 flex-1 truncate">{text}</span>
            {chosen && <span className="text-small text-soft">now</span>}
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
