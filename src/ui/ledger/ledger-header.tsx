"use client";

import { History, Library as LibraryIcon, PackageCheck, SlidersHorizontal } from "lucide-react";
import { counted } from "@/core/names/count";
import type { Project } from "@/core/projects/project";
import { Button } from "../kit/button";
import type { ProjectEditing } from "../projects/editing";
import { AddStrip } from "./add-strip";
import { HistoryButtons } from "../projects/history";

export interface OpenProps {
  readonly project: Project;
  readonly editing: ProjectEditing;
}

interface HeaderProps extends OpenProps {
  readonly canOpen: boolean;
  readonly canSave: boolean;
  readonly hasLibrary: boolean;
  readonly onOpen: () => void;
  readonly onSave: () => void;
  readonly onLibrary: () => void;
  readonly onDetails: () => void;
  readonly onPast: () => void;
  readonly onWrapUp: () => void;
  readonly onAdd: Parameters<typeof AddStrip>[0]["onAdd"];
}

export function LedgerHeader({
  project,
  editing,
  canOpen,
  canSave,
  hasLibrary,
  onOpen,
  onSave,
  onLibrary,
  onAdd,
  onDetails,
  onPast,
  onWrapUp,
}: HeaderProps) {
  return (
    <header className="flex flex-none items-center gap-3 px-[14px] pt-[14px] pb-3">
      <div className="flex min-w-0 items-baseline gap-3">
        <h1 className="h1 truncate">{project.name}</h1>
        <button
          type="button"
          onClick={onDetails}
          // The name gives way only once this is a few letters long.
          className="min-w-[48px] shrink-[100000] truncate whitespace-nowrap rounded-card px-1 text-soft hover:bg-sunk hover:text-ink"
        >
          {[project.artist, `${project.tempo} bpm`, counted(project.strips.length, "strip")]
            .filter((words) => words !== "")
            .join(" · ")}
        </button>
      </div>
      <span className="ml-auto flex flex-none gap-2">
        <HistoryButtons editing={editing} />
        <Button aria-label="Look back" title="Look back: the past of this project (Z)" onClick={onPast}>
          <History size={16} aria-hidden="true" />
        </Button>
        <Button aria-label="Wrap up" title="Wrap up: file what is worth keeping (W)" onClick={onWrapUp}>
          <PackageCheck size={16} aria-hidden="true" />
        </Button>
        <AddStrip onAdd={onAdd} />
        <Button disabled={!canOpen} onClick={onOpen}>
          <SlidersHorizontal size={16} aria-hidden="true" />
          Bench
        </Button>
        <Button disabled={!canSave} title={canSave ? undefined : "Choose strips"} onClick={onSave}>
          Save…
        </Button>
        {!hasLibrary && (
          <Button onClick={onLibrary}>
            <LibraryIcon size={16} aria-hidden="true" />
            Library
          </Button>
        )}
      </span>
    </header>
  );
}
