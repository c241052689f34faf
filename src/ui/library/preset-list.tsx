"use client";

import { useVirtualizer } from "@tanstack/react-virtual";
import { type CSSProperties, type RefObject, useEffect, useMemo, useRef } from "react";
import type { Folder, PresetRow } from "@/contracts/records";
import { withBelow } from "@/core/library/folders";
import { severalWords } from "@/core/names/several";
import { KIND_NAMES } from "@/core/presets/preset";
import { shapesOf } from "@/core/presets/shapes";
import { cx } from "../kit/class-names";
import { CardMark } from "../kit/card-mark";
import { Shapes } from "../kit/shape";
import { DRAGGED_SOUNDS, takeSound } from "./dragged";
import { COLUMNS, type Column, gridOf, hasShapes } from "./columns";
import type { Choose } from "./selection";
import { folderPaths, useFolders } from "./use-library";
import type { Listing } from "./use-listing";

interface Props {
  readonly listing: Listing;
  readonly chosen: string | null;
  readonly tempo: number;
  /** What is chosen beside the chosen line. */
  readonly isChosen?: (id: string) => boolean;
  readonly onChoose: (id: string, how: Choose) => void;
  readonly onOpen: (preset: PresetRow) => void;
  readonly listRef: RefObject<HTMLDivElement | null>;
  /** Without the column of days, for a narrow place. */
  readonly narrow?: boolean;
  /** The folder whose sounds are listed: those that it only refers to say where they lie. */
  readonly folder?: string | undefined;
  /** What each line says beside its name and shape. */
  readonly columns?: readonly Column[];
}

/** How long a line must be in sight before it is fetched, in milliseconds. */
const GLANCE = 40;
const ROW = 44;
const NARROW_ROW = 62;

const howOf = ({ ctrlKey, metaKey, shiftKey }: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }): Choose =>
  shiftKey ? "upTo" : ctrlKey || metaKey ? "also" : "only";

const USED: readonly Column[] = ["used"];
const NO_FOLDERS: readonly Folder[] = [];

export const optionId = (id: string): string => `sound-${id}`;

/** The presets, one a line, with their shapes. The list itself has the focus; the chosen line is told to screen readers. */
export function PresetList(props: Props) {
  const { listing, chosen, tempo, onChoose, onOpen, listRef, narrow = false, columns = USED } = props;
  const isAtHome = useHome(props.folder);
  const { total, look } = listing;
  const scroller = useRef<HTMLDivElement>(null);
  const height = narrow ? NARROW_ROW : ROW;
  // The compiler cannot see into the virtualizer; it holds its own state.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 8,
  });
  const at = chosen === null ? -1 : listing.placeOf(chosen);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at);
    // The virtualizer is new on every render; only the chosen line moves the list.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at]);
  const items = virtual.getVirtualItems();
  const [top, bottom] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  useEffect(() => {
    // What flies by is not fetched.
    const timer = setTimeout(() => look(top, bottom), GLANCE);
    return () => clearTimeout(timer);
  }, [top, bottom, look]);
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto">
      <div
        ref={listRef}
        role="listbox"
        tabIndex={0}
        aria-label="Sounds"
        aria-multiselectable={props.isChosen !== undefined}
        aria-activedescendant={at >= 0 && chosen !== null ? optionId(chosen) : undefined}
        className="group relative outline-none"
        style={{ height: virtual.getTotalSize() }}
      >
        {items.map(({ index, start }) => {
          const preset = listing.at(index);
          if (!preset) return <Unseen key={index} style={{ height, transform: `translateY(${start}px)` }} />;
          const at = preset.id === chosen;
          const on = at || Boolean(props.isChosen?.(preset.id));
          return (
            <div
              key={preset.id}
              id={optionId(preset.id)}
              role="option"
              aria-selected={on}
              aria-setsize={total}
              aria-posinset={index + 1}
              draggable
              onDragStart={(event) => {
                if (!on) onChoose(preset.id, "only");
                event.dataTransfer.setData(DRAGGED_SOUNDS, preset.id);
                event.dataTransfer.effectAllowed = "copyMove";
                takeSound(preset);
              }}
              onDragEnd={() => takeSound(null)}
              onClick={(event) => onChoose(preset.id, howOf(event))}
              onDoubleClick={() => onOpen(preset)}
              style={{
                height,
                transform: `translateY(${start}px)`,
                ...(narrow ? {} : { gridTemplateColumns: gridOf(columns) }),
              }}
              className={cx(
                "absolute inset-x-0 top-0 cursor-default border-rule border-b",
                narrow ? "grid content-center gap-1 px-3" : "grid items-center gap-[10px] px-[14px]",
                on ? "row-chosen" : "hover:bg-sunk/60",
                at && "-outline-offset-2 outline-live group-focus-visible:outline-2",
              )}
            >
              {narrow ? (
                <NarrowRow preset={preset} tempo={tempo} />
              ) : (
                <WideRow preset={preset} tempo={tempo} columns={columns} away={!isAtHome(preset)} />
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

/** The place of a line that is on its way. */
const Unseen = ({ style }: { readonly style: CSSProperties }) => (
  <div
    aria-hidden="true"
    style={style}
    className="absolute inset-x-0 top-0 grid items-center border-rule border-b px-[42px]"
  >
    <span className="h-[10px] w-2/5 rounded-card bg-sunk" />
  </div>
);

interface RowProps {
  readonly preset: PresetRow;
  readonly tempo: number;
}

/** Whether a sound lies in a folder or below it; all do where none is asked for. */
function useHome(folder: string | undefined): (preset: PresetRow) => boolean {
  const folders = useFolders().data?.folders;
  const within = useMemo(() => (folder && folders ? withBelow(folders, folder) : null), [folder, folders]);
  return ({ card }) => within === null || (card.folder !== null && within.has(card.folder));
}

interface WideRowProps extends RowProps {
  readonly columns: readonly Column[];
  /** It lies elsewhere than in the folder that is listed, which refers to it. */
  readonly away: boolean;
}

function WideRow({ preset, tempo, columns, away }: WideRowProps) {
  const { card } = preset;
  const folders = useFolders().data?.folders;
  const home = away && folders ? folderPaths(folders).get(card.folder ?? "") : undefined;
  return (
    <>
      <CardMark kind={preset.kind} icon={card.icon} colour={card.colour} />
      <span className="grid min-w-0">
        <span className="name truncate">
          <span className="sr-only">{KIND_NAMES[preset.kind]}: </span>
          {card.name}
        </span>
        <span className="truncate text-small text-soft">
          {preset.unreadable !== undefined && <span className="text-alert">cannot be read · </span>}
          {home !== undefined && <em>lies in {home} · </em>}
          {[severalWords(card.purpose), severalWords(card.origin.artist) || (preset.pack ?? "own")]
            .filter(Boolean)
            .join(" · ")}
        </span>
      </span>
      {hasShapes(columns) && (
        <span className="min-w-0 overflow-hidden">
          <Shapes
            processors={shapesOf(preset.content)}
            tempo={tempo}
            width={44}
            {...(columns.length > 1 ? { most: 2 } : {})}
          />
        </span>
      )}
      {columns.map((name) => (
        <span key={name} className={cx("truncate text-right text-soft", name === "folder" ? "text-small" : "num")}>
          {COLUMNS[name].text(preset, folderPaths(folders ?? NO_FOLDERS))}
        </span>
      ))}
    </>
  );
}

function NarrowRow({ preset, tempo }: RowProps) {
  return (
    <>
      <span className="truncate font-name text-[14px] leading-[17px]">{preset.card.name}</span>
      <Shapes processors={shapesOf(preset.content)} tempo={tempo} most={3} />
    </>
  );
}
