"use client";

import { Menu } from "../kit/menu";
import { Plus } from "lucide-react";
import type { StripKind } from "@/core/documents/strip-kinds";
import { Button } from "../kit/button";

/** Kinds that are added by hand; a project has its main output from the start. */
export const ADDED_KINDS = ["audio", "instrument", "return", "group", "folder"] as const satisfies readonly StripKind[];

/** What a new strip of each kind is called until it is named. */
export const ADDED_NAMES: Readonly<Record<(typeof ADDED_KINDS)[number], string>> = {
  audio: "Audio strip",
  instrument: "Instrument strip",
  return: "Return bus",
  group: "Group bus",
  folder: "Folder",
};

interface Props {
  readonly onAdd: (kind: (typeof ADDED_KINDS)[number]) => void;
}

/** A new strip of any kind, below the one in hand. */
export function AddStrip({ onAdd }: Props) {
  return (
    <Menu
      align="end"
      trigger={
        <Button>
          <Plus size={16} aria-hidden="true" />
          Strip
        </Button>
      }
      items={ADDED_KINDS.map((kind) => ({ id: kind, label: ADDED_NAMES[kind], onChoose: () => onAdd(kind) }))}
    />
  );
}
