"use client";

import type { PresetRow } from "@/contracts/records";
import { archiveSound, saveSound } from "../keeping/keep-sound";
import { printSheet } from "../keeping/print-sheet";
import { Button } from "../kit/button";
import { KEEP_BUTTON } from "./keep-words";
import { Menu } from "../kit/menu";

interface Props {
  readonly preset: PresetRow;
  readonly version: number;
  readonly tempo: number;
}

/** A sound as something else than a card: on paper, as a file, in an archive. It is open as soon as it is there. */
export function KeepMenu({ preset, version, tempo }: Props) {
  return (
    <Menu
      align="end"
      startsOpen
      trigger={<Button {...KEEP_BUTTON} />}
      items={[
        {
          id: "sheet",
          label: "Recall sheet, as PDF",
          onChoose: () => printSheet({ preset: preset.id, version, tempo }, preset.card.name),
        },
        { id: "file", label: "File of its own, as JSON", onChoose: () => saveSound(preset) },
        { id: "archive", label: "Archive, with all that it uses", onChoose: () => archiveSound(preset) },
      ]}
    />
  );
}
