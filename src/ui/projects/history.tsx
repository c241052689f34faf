"use client";

import { Redo2, Undo2 } from "lucide-react";
import type { Action } from "../actions/actions";
import { Button } from "../kit/button";
import type { OpenProject } from "./open-project";

/** Undo and redo of a project or draft, by key and in the action field, each with the words of its gesture. */
export function historyActions(editing: OpenProject, group: string): readonly Action[] {
  const { undo, redo } = editing.body?.history ?? { undo: null, redo: null };
  return [
    {
      id: "undo",
      past: true,
      title: undo ? `Undo: ${undo}` : "Undo",
      group,
      keys: ["Ctrl+Z"],
      enabled: undo !== null,
      run: () => void editing.undo(),
    },
    {
      id: "redo",
      past: true,
      title: redo ? `Redo: ${redo}` : "Redo",
      group,
      keys: ["Ctrl+Shift+Z", "Ctrl+Y"],
      enabled: redo !== null,
      run: () => void editing.redo(),
    },
  ];
}

export function HistoryButtons({ editing }: { readonly editing: OpenProject }) {
  const { undo, redo } = editing.body?.history ?? { undo: null, redo: null };
  return (
    <>
      <Button title={undo ? `Undo: ${undo}` : "Nothing to undo"} disabled={!undo} onClick={() => void editing.undo()}>
        <Undo2 size={16} aria-hidden="true" />
        Undo
      </Button>
      <Button
        aria-label="Redo"
        title={redo ? `Redo: ${redo}` : "Nothing to redo"}
        disabled={!redo}
        onClick={() => void editing.redo()}
      >
        <Redo2 size={16} aria-hidden="true" />
      </Button>
    </>
  );
}
