"use client";

import { Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { StripKind } from "@/core/strips/strip";
import { Button } from "../kit/button";

/** Kinds that are added by hand; a project has its main output from the start. */
export const ADDED_KINDS = ["audio", "instrument", "return", "group"] as const satisfies readonly StripKind[];

/** What a new strip of each kind is called until it is named. */
export const ADDED_NAMES: Readonly<Record<(typeof ADDED_KINDS)[number], string>> = {
  audio: "Audio strip",
  instrument: "Instrument strip",
  return: "Return bus",
  group: "Group bus",
};

interface Props {
  readonly onAdd: (kind: (typeof ADDED_KINDS)[number]) => void;
}

/** A new strip of any kind, below the one in hand. */
export function AddStrip({ onAdd }: Props) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button>
          <Plus size={16} aria-hidden="true" />
          Strip
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={4}
          className="z-40 w-[180px] rounded-card border border-edge bg-card py-1"
        >
          {ADDED_KINDS.map((kind) => (
            <DropdownMenu.Item
              key={kind}
              onSelect={() => onAdd(kind)}
              className="flex h-[34px] cursor-pointer items-center px-3 outline-none data-[highlighted]:bg-live-tint data-[highlighted]:text-live"
            >
              {ADDED_NAMES[kind]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
