"use client";

import { ChevronDown, ChevronRight } from "lucide-react";
import { type DragEvent, type KeyboardEvent, useState } from "react";
import { create } from "zustand";
import { persist } from "zustand/middleware";
import type { Folder } from "@/contracts/records";
import { depthsOf, withBelow } from "@/core/library/folders";
import { formatCount } from "@/core/names/count";
import { cx } from "../kit/class-names";
import { DRAGGED_FOLDER, DRAGGED_SOUNDS } from "./dragged";
import { openSheet } from "./filing";

/** Which folders are open; null until one was opened or folded up. It survives a reload. */
export const useOpened = create<{ readonly opened: readonly string[] | null }>()(
  persist(() => ({ opened: null as readonly string[] | null }), { name: "diathesis.folders-open" }),
);

/** With as many all are open until one is folded up. */
const FEW = 40;

/** Deeper folders are drawn as deep as this: their names stay in sight. */
const DEEPEST_DRAWN = 8;

type Folders = readonly Folder[];

function useTree(folders: Folders, chosen: string | undefined) {
  const stored = useOpened((s) => s.opened);
  const holding = new Set(folders.flatMap(({ parent }) => parent ?? []));
  const opened = new Set(stored ?? (folders.length <= FEW ? holding : []));
  const byId = new Map(folders.map((folder) => [folder.id, folder]));
  const isAllOpenAbove = ({ parent }: Folder): boolean => {
    for (let at = byId.get(parent ?? ""); at; at = byId.get(at.parent ?? "")) if (!opened.has(at.id)) return false;
    return true;
  };
  // Where one stands is in sight.
  for (let at = byId.get(byId.get(chosen ?? "")?.parent ?? ""); at; at = byId.get(at.parent ?? "")) opened.add(at.id);
  return {
    rows: folders.filter(isAllOpenAbove),
    holds: (id: string) => holding.has(id),
    isOpen: (id: string) => opened.has(id),
    turn: (id: string, open: boolean) => {
      const next = new Set(opened);
      if (open) next.add(id);
      else next.delete(id);
      useOpened.setState({ opened: [...next] });
    },
  };
}

interface Props {
  readonly folders: Folders;
  readonly chosen: string | undefined;
  readonly onChoose: (folder: string | undefined) => void;
  /** Sounds dropped onto a folder; `also` with Ctrl, where they stay in theirs. */
  readonly onSounds: (folder: string, also: boolean) => void;
  /** A folder put into another, with all that is in it. */
  readonly onMove: (folder: string, parent: string) => void;
  /** A folder was taken away: one stands on the one above it. */
  readonly onGone: (parent: string | null) => void;
}

/** Folders as a tree: folded up, walked, dragged. Keys: arrows, Enter, F2 to rename, F to move, N for one inside, Delete. */
export function FolderTree({ folders, chosen, onChoose, onSounds, onMove, onGone }: Props) {
  const { rows, holds, isOpen, turn } = useTree(folders, chosen);
  const depths = depthsOf(folders);
  const [at, setAt] = useState<string | null>(null);
  const [over, setOver] = useState<string | null>(null);
  const [dragged, setDragged] = useState<string | null>(null);
  const reached = rows.find(({ id }) => id === (at ?? chosen)) ?? rows[0];
  const go = (id: string | undefined) => {
    if (id === undefined) return;
    setAt(id);
    document.getElementById(`folder-${id}`)?.focus();
  };
  const within = dragged === null ? new Set<string>() : withBelow(folders, dragged);
  const canTake = (event: DragEvent, id: string): boolean =>
    event.dataTransfer.types.includes(DRAGGED_SOUNDS) ||
    (event.dataTransfer.types.includes(DRAGGED_FOLDER) && !within.has(id));
  const isAlso = ({ ctrlKey, altKey, dataTransfer }: DragEvent): boolean =>
    (ctrlKey || altKey) && dataTransfer.types.includes(DRAGGED_SOUNDS);
  const keys = (folder: Folder): Readonly<Record<string, () => void>> => {
    const { id, parent } = folder;
    const place = rows.indexOf(folder);
    return {
      ArrowDown: () => go(rows[place + 1]?.id),
      ArrowUp: () => go(rows[place - 1]?.id),
      Home: () => go(rows[0]?.id),
      End: () => go(rows.at(-1)?.id),
      ArrowRight: () =>
        holds(id) && !isOpen(id)
          ? turn(id, true)
          : go(rows[place + 1]?.parent === id ? rows[place + 1]?.id : undefined),
      ArrowLeft: () => (holds(id) && isOpen(id) ? turn(id, false) : go(parent ?? undefined)),
      Enter: () => onChoose(chosen === id ? undefined : id),
      F2: () => openSheet({ sheet: "folder", folder: id, onGone }),
      Delete: () => openSheet({ sheet: "folder", folder: id, onGone }),
      f: () => openSheet({ sheet: "moveFolder", folder: id }),
      n: () => openSheet({ sheet: "folder", folder: null, within: id }),
    };
  };
  const onKeyDown = (event: KeyboardEvent, folder: Folder) => {
    if (event.ctrlKey || event.altKey || event.metaKey || event.shiftKey) return;
    const act = keys(folder)[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };
  return (
    <ul role="tree" aria-label="Folders">
      {rows.map((folder) => {
        const { id, name, count } = folder;
        const Chevron = isOpen(id) ? ChevronDown : ChevronRight;
        const depth = depths.get(id) ?? 0;
        return (
          <li
            key={id}
            id={`folder-${id}`}
            role="treeitem"
            aria-level={depth + 1}
            aria-selected={chosen === id}
            aria-label={name}
            {...(holds(id) ? { "aria-expanded": isOpen(id) } : {})}
            tabIndex={reached?.id === id ? 0 : -1}
            title={name}
            draggable
            onDragStart={(event) => {
              event.dataTransfer.setData(DRAGGED_FOLDER, id);
              event.dataTransfer.effectAllowed = "move";
              setDragged(id);
            }}
            onDragEnd={() => setDragged(null)}
            onDragOver={(event) => {
              if (!canTake(event, id)) return;
              event.preventDefault();
              event.dataTransfer.dropEffect = isAlso(event) ? "copy" : "move";
              setOver(id);
            }}
            onDragLeave={() => setOver(null)}
            onDrop={(event) => {
              setOver(null);
              if (!canTake(event, id)) return;
              event.preventDefault();
              if (event.dataTransfer.types.includes(DRAGGED_SOUNDS)) onSounds(id, isAlso(event));
              else if (dragged !== null) onMove(dragged, id);
            }}
            onFocus={() => setAt(id)}
            onClick={() => onChoose(chosen === id ? undefined : id)}
            onKeyDown={(event) => onKeyDown(event, folder)}
            style={{ paddingLeft: Math.min(DEEPEST_DRAWN, depth) * 10 }}
            className={cx(
              "flex h-[26px] w-full cursor-pointer items-center pr-[14px] hover:bg-sunk",
              chosen === id && "row-chosen",
              over === id && "bg-live-tint outline-1 -outline-offset-1 outline-live",
            )}
          >
            <span
              aria-hidden="true"
              className="grid h-[18px] w-[14px] flex-none place-items-center text-soft"
              onClick={(event) => {
                if (!holds(id)) return;
                event.stopPropagation();
                turn(id, !isOpen(id));
              }}
            >
              {holds(id) && <Chevron size={13} />}
            </span>
            <span className="min-w-0 flex-1 truncate">{name}</span>
            <span className="num-small pl-2 text-soft">{formatCount(count)}</span>
          </li>
        );
      })}
    </ul>
  );
}
