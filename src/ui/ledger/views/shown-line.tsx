"use client";

import { type KeyboardEvent, useEffect, useRef } from "react";
import { MOST_NARROWING } from "@/core/documents/limits";
import { counted } from "@/core/names/count";
import type { Project } from "@/core/projects/project";
import { ORDER_WORDS, hiddenWords } from "@/core/projects/shown-rows";
import { Key } from "../../kit/bits";
import { Button } from "../../kit/button";
import { INPUT } from "../../kit/field";
import { hiddenColumns } from "./layout";
import type { Shown } from "./use-shown";

interface Props {
  readonly project: Project;
  readonly shown: Shown;
  /** How many rows there are to see, and how many of them are folded away. */
  readonly rows: number;
  readonly folded: number;
  /** To the first that is found. */
  readonly onFound: () => void;
}

/** What of a project is not shown, and why; nothing where all of it is. */
export function ShownLine({ project, shown, rows, folded, onFound }: Props) {
  const { view, isChanged, words } = shown;
  const hidden = project.strips.length - rows - folded;
  const columns = hiddenColumns(shown.columns.layout);
  const said = [
    ...(words === null ? hiddenWords(project, shown.rows) : []),
    ...(columns.length > 0 ? [`without ${columns.join(", ")}`] : []),
    ...(shown.rows.order === "project" ? [] : [ORDER_WORDS[shown.rows.order]]),
  ];
  if (!view && words === null && hidden === 0 && said.length === 0) return null;
  return (
    <p className="flex h-[38px] flex-none items-center gap-3 border-edge border-t px-[14px]">
      {words !== null && <FindField words={words} shown={shown} onFound={onFound} />}
      {view && (
        <span className="min-w-0 max-w-[40%] flex-none truncate">
          <span className="name">{view.name}</span>
          {isChanged && <span className="text-edit text-small"> changed</span>}
        </span>
      )}
      <span className="flex-none whitespace-nowrap text-live">
        {hidden > 0 ? `${rows + folded} of ${counted(project.strips.length, "strip")}` : ""}
      </span>
      <span className="min-w-0 truncate text-small text-soft">{said.join(" · ")}</span>
      <Button className="ml-auto flex-none" onClick={shown.showAll}>
        Show all
        <Key>0</Key>
      </Button>
    </p>
  );
}

function FindField({ words, shown, onFound }: { readonly words: string } & Pick<Props, "shown" | "onFound">) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  const onKeyDown = (event: KeyboardEvent) => {
    if (!["Enter", "Escape", "ArrowDown"].includes(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === "Escape") shown.look(null);
    onFound();
  };
  return (
    <input
      ref={field}
      aria-label="Find strips"
      placeholder="Name, kind, group or plugin"
      value={words}
      maxLength={MOST_NARROWING}
      onChange={({ target }) => shown.look(target.value)}
      onKeyDown={onKeyDown}
      className={`${INPUT} max-w-[220px]`}
    />
  );
}
