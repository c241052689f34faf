"use client";

import { useVirtualizer } from "@tanstack/react-virtual";
import { type KeyboardEvent, useEffect, useRef } from "react";
import type { StripBeside } from "@/core/history/beside";
import { counted } from "@/core/names/count";
import { nameIn, type Project } from "@/core/projects/project";
import { PART, type PartName } from "@/core/strips/parts";
import type { Part } from "@/core/strips/parts/part";
import type { Strip } from "@/core/strips/strip";
import { Empty } from "../kit/bits";
import { StripMark } from "../kit/card-mark";
import { cx } from "../kit/class-names";

/** A strip as it was then, or one that was not there yet, with what of it differs from what it is compared with. */
export interface ThenRow {
  readonly strip: Strip;
  readonly beside: StripBeside | null;
}

/** The parts that have a column; of what has none, the strip's name says that it differs. */
const COLUMNS: readonly PartName[] = ["source", "inserts", "sends", "level", "pan", "routing"];
const TEMPLATE =
  "minmax(130px,1.2fr) minmax(64px,.8fr) minmax(96px,1fr) minmax(96px,1.2fr) minmax(118px,1fr) minmax(70px,.7fr) minmax(70px,.8fr)";
const GRID = "grid items-center gap-[10px] px-[14px]";
const ROW = 44;
const HEAD = 28;

interface Props {
  /** As it was then. */
  readonly project: Project;
  readonly words: ThenWords;
  readonly rows: readonly ThenRow[];
  readonly chosen: readonly string[];
  readonly cursor: string | null;
  readonly onChoose: (id: string, how: "only" | "range" | "toggle") => void;
  readonly onMove: (by: 1 | -1 | "first" | "last", how: "only" | "range") => void;
}

/** How it is told that a strip is not as in what it is compared with. */
export interface ThenWords {
  readonly onlyHere: string;
  readonly onlyThere: string;
  readonly moved: string;
  readonly called: (name: string) => string;
}

export const MOMENT_WORDS: ThenWords = {
  onlyHere: "only then",
  onlyThere: "not there then",
  moved: "stood elsewhere",
  called: (name) => `now ${name}`,
};

const rowId = (strip: string): string => `then-${strip}`;

/** A whole project as it was: nothing in it can be turned. What is not as in what it is compared with stands out. */
export function ThenTable({ project, words, rows, chosen, cursor, onChoose, onMove }: Props) {
  const grid = useRef<HTMLDivElement>(null);
  // The compiler cannot see into the virtualizer; it holds its own state.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => grid.current,
    estimateSize: () => ROW,
    overscan: 8,
    useFlushSync: false,
    scrollPaddingStart: HEAD,
    scrollMargin: HEAD,
  });
  const at = rows.findIndex(({ strip }) => strip.id === cursor);
  useEffect(() => {
    if (at >= 0) virtual.scrollToIndex(at);
    // The virtualizer is new on every render; only the row in hand moves the list.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at]);
  const onKeyDown = (event: KeyboardEvent) => {
    const by = ({ ArrowDown: 1, ArrowUp: -1, Home: "first", End: "last" } as const)[event.key];
    if (by === undefined || event.ctrlKey || event.altKey || event.metaKey) return;
    event.preventDefault();
    event.stopPropagation();
    onMove(by, event.shiftKey ? "range" : "only");
  };
  if (rows.length === 0)
    return (
      <Empty title="Nothing differs" className="flex-1">
        <p>Both moments are the same, strip by strip.</p>
      </Empty>
    );
  return (
    <div
      ref={grid}
      role="grid"
      tabIndex={0}
      aria-label="Strips as they were"
      aria-multiselectable="true"
      aria-readonly="true"
      aria-rowcount={rows.length + 1}
      aria-activedescendant={cursor ? rowId(cursor) : undefined}
      onKeyDown={onKeyDown}
      className="group relative min-h-0 flex-1 overflow-auto outline-none"
    >
      <div
        role="row"
        className={cx(
          GRID,
          "sticky top-0 z-10 h-[28px] w-fit min-w-full border-edge border-y bg-ground text-small text-soft",
        )}
        style={{ gridTemplateColumns: TEMPLATE }}
      >
        <span role="columnheader">Strip</span>
        {COLUMNS.map((part) => (
          <span key={part} role="columnheader" className="truncate">
            {TITLES[part] ?? PART[part].title}
          </span>
        ))}
      </div>
      <div className="relative w-fit min-w-full" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const row = rows[index]!;
          const { id } = row.strip;
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: the grid itself takes the keys
            <div
              key={id}
              id={rowId(id)}
              role="row"
              tabIndex={-1}
              aria-rowindex={index + 2}
              aria-selected={chosen.includes(id)}
              onClick={({ shiftKey, ctrlKey, metaKey }) =>
                onChoose(id, shiftKey ? "range" : ctrlKey || metaKey ? "toggle" : "only")
              }
              style={{ height: ROW, transform: `translateY(${start - HEAD}px)`, gridTemplateColumns: TEMPLATE }}
              className={cx(
                GRID,
                "absolute top-0 left-0 w-fit min-w-full cursor-default border-rule border-b",
                chosen.includes(id) ? "row-chosen" : "hover:bg-sunk/60",
                id === cursor &&
                  "outline outline-edge -outline-offset-1 group-focus-visible:outline-2 group-focus-visible:outline-live",
              )}
            >
              <NameCell row={row} words={words} />
              {COLUMNS.map((part) => (
                <PartCell key={part} part={part} row={row} project={project} />
              ))}
            </div>
          );
        })}
      </div>
    </div>
  );
}

/** As the ledger calls its columns. */
const TITLES: { readonly [P in PartName]?: string } = { source: "Source", routing: "To" };

/** How the strip itself is not as in what it is compared with. */
function stripNote({ beside }: ThenRow, { onlyHere, onlyThere, moved, called }: ThenWords): string {
  if (!beside) return "";
  if (!beside.right) return onlyHere;
  if (!beside.left) return onlyThere;
  const quiet = beside.cells.filter(({ part }) => !COLUMNS.includes(part));
  const words = [
    ...(beside.moved ? [moved] : []),
    ...quiet.map(({ part, lines }) =>
      part === "look" && beside.left!.look.name !== beside.name
        ? called(beside.name)
        : (lines[0]?.what ?? "").toLowerCase(),
    ),
  ];
  return words.join(", ");
}

function NameCell({ row, words }: { readonly row: ThenRow; readonly words: ThenWords }) {
  const note = stripNote(row, words);
  return (
    <span role="gridcell" className="flex min-w-0 items-center gap-2">
      <StripMark kind={row.strip.kind} icon={row.strip.look.icon} colour={row.strip.look.colour} />
      <span className="grid min-w-0">
        <span className={cx("truncate", row.beside?.left === null && "text-soft")}>{row.strip.look.name}</span>
        {note !== "" && <span className="truncate text-edit text-small">{note}</span>}
      </span>
    </span>
  );
}

interface PartCellProps {
  readonly part: PartName;
  readonly row: ThenRow;
  readonly project: Project;
}

/** What a part said then, and what it says in what it is compared with. */
function PartCell({ part, row: { strip, beside }, project }: PartCellProps) {
  if (strip.kind === "folder" && PART[part].isOfSound) return <span role="gridcell" />;
  // The compiler cannot see that the value of a strip's part is of that part.
  const { words } = PART[part] as Part<unknown>;
  const then = words(strip[part], { kind: strip.kind, nameOf: nameIn(project) });
  const cell = beside?.left && beside.right ? beside.cells.find((one) => one.part === part) : undefined;
  const [only, ...others] = cell?.lines ?? [];
  const isOnlyThen = beside !== null && !beside.right;
  const change = !only ? "" : others.length > 0 ? counted(others.length + 1, "difference") : lineWords(only, then);
  return (
    <span
      role="gridcell"
      title={cell ? cell.lines.map(({ what, from, to }) => `${what}: ${from} → ${to}`).join("\n") : then}
      className={cx(
        "grid min-w-0",
        (beside?.left === null || isOnlyThen) && "text-soft",
        cell && "-mx-1 rounded-card bg-edit-tint px-1 py-px",
      )}
    >
      <span className="truncate">{then}</span>
      {change !== "" && <span className="truncate text-edit text-small">{change}</span>}
    </span>
  );
}

/** "→ −3.0 dB" where the whole part is one line, else what of it differs. */
const lineWords = ({ what, from, to }: { what: string; from: string; to: string }, then: string): string =>
  from === then ? `→ ${to}` : `${what} → ${to}`;
