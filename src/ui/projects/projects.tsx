"use client";

import { ArrowDown, ArrowUp, Ellipsis, Plus } from "lucide-react";
import { useRouter } from "next/navigation";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { ProjectRow } from "@/contracts/records";
import { isBranch } from "@/core/archive/branch";
import { MOST_NARROWING } from "@/core/documents/limits";
import { counted } from "@/core/names/count";
import { useActions } from "../actions/actions";
import { Empty, Key, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { cx } from "../kit/class-names";
import { formatDay } from "../kit/dates";
import { INPUT } from "../kit/field";
import { Menu, type MenuGroup, MenuOver } from "../kit/menu";
import { Panels } from "../kit/panels";
import { DetailsSheet } from "./details-sheet";
import { Drawers } from "./drawers";
import { useProjectEditing } from "./editing";
import { type Figure, type SortBy, clientOf } from "./filing";
import { NewProject } from "./new-project";
import { formatSize } from "./size";
import { useProjectActs } from "./use-project-acts";
import { drawerTitle } from "./titles";
import { useDoings } from "./use-doings";
import { type ProjectsShown, useProjects } from "./use-projects";

const GRID =
  "grid grid-cols-[minmax(140px,1.5fr)_minmax(90px,1fr)_84px_60px_78px_84px_84px] items-center gap-[10px] px-[14px]";

const HEADS: readonly { readonly by: SortBy; readonly title: string; readonly isNumber: boolean }[] = [
  { by: "name", title: "Name", isNumber: false },
  { by: "client", title: "For", isNumber: false },
  { by: "tempo", title: "Tempo", isNumber: true },
  { by: "strips", title: "Strips", isNumber: true },
  { by: "unsaved", title: "Not saved", isNumber: true },
  { by: "size", title: "Size", isNumber: true },
  { by: "changed", title: "Changed", isNumber: true },
];

/** All projects: in drawers by client and year, found by words, in any order; those thrown away can be taken out of the bin. */
export function Projects() {
  const shown = useProjects();
  const { rows, all, drawer } = shown;
  const router = useRouter();
  const [at, setAt] = useState(0);
  const [sheet, open] = useState<"new" | "details" | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLInputElement>(null);
  const isThere = rows.length > 0;
  // Also from a drawer that was opened: what is walked through then is the list.
  const drawerText = JSON.stringify(drawer);
  useEffect(() => {
    if (isThere && !(document.activeElement instanceof HTMLInputElement)) list.current?.focus();
  }, [isThere, drawerText]);
  const chosen = rows[Math.min(at, rows.length - 1)];
  const acts = useProjectActs();
  const move = (to: number) => {
    const next = Math.min(rows.length - 1, Math.max(0, to));
    setAt(next);
    const row = rows[next];
    if (row) void document.getElementById(rowId(row.id))?.scrollIntoView({ block: "nearest" });
  };
  const group = "Projects";
  const isBin = drawer.of === "bin";
  const place = Math.min(at, rows.length - 1);
  const { actionsFor, menuOf } = useDoings({ shown, acts, onDetails: () => open("details") });
  useActions([
    { id: "down", title: "Next project", group, keys: ["ArrowDown"], keyOnly: true, run: () => move(place + 1) },
    { id: "up", title: "Previous project", group, keys: ["ArrowUp"], keyOnly: true, run: () => move(place - 1) },
    { id: "first", title: "First project", group, keys: ["Home"], keyOnly: true, run: () => move(0) },
    { id: "last", title: "Last project", group, keys: ["End"], keyOnly: true, run: () => move(rows.length - 1) },
    { id: "new-project", title: "New project", group, keys: ["Ctrl+Alt+N"], run: () => open("new") },
    { id: "find-project", title: "Find a project", group, keys: ["F"], run: () => field.current?.focus() },
    ...actionsFor(chosen),
    {
      id: "project-compare-none",
      title: "Compare with none",
      group,
      keys: ["Escape"],
      enabled: acts.held !== null,
      run: acts.letGo,
    },
  ]);
  const onFieldKey = (event: KeyboardEvent) => {
    if (!["Escape", "ArrowDown", "Enter"].includes(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === "Escape") shown.setWords("");
    list.current?.focus();
  };
  const screen = (
    <section aria-label="Projects" className="flex h-full min-w-0 flex-col">
      <header className="flex flex-none items-center gap-3 px-[14px] pt-[14px] pb-3">
        <h1 className="h1 min-w-0 truncate">{drawerTitle(shown)}</h1>
        <input
          ref={field}
          aria-label="Find a project"
          placeholder="Name, song, artist, year"
          value={shown.words}
          maxLength={MOST_NARROWING}
          onChange={({ target }) => {
            shown.setWords(target.value);
            setAt(0);
          }}
          onKeyDown={onFieldKey}
          className={`${INPUT} ml-auto max-w-[220px]`}
        />
        {chosen && <ChosenMenu name={chosen.name} groups={menuOf(chosen)} />}
        <Button main className="flex-none" onClick={() => open("new")}>
          <Plus size={16} aria-hidden="true" />
          New project
        </Button>
      </header>
      <Head shown={shown} />
      <Nothing shown={shown} onNew={() => open("new")} />
      {rows.length > 0 && (
        <MenuOver groups={chosen ? menuOf(chosen) : []}>
          <div
            ref={list}
            role="listbox"
            tabIndex={0}
            aria-label="Projects"
            aria-activedescendant={chosen ? rowId(chosen.id) : undefined}
            className="group min-h-0 flex-1 overflow-auto outline-none"
          >
            {rows.map((row, index) => (
              <div
                key={row.id}
                id={rowId(row.id)}
                role="option"
                aria-selected={row.id === chosen?.id}
                onContextMenu={() => setAt(index)}
                onClick={() => {
                  setAt(index);
                  router.push(`/projects/${row.id}`);
                }}
                className={cx(
                  GRID,
                  "h-[44px] cursor-pointer border-rule border-b",
                  row.id === chosen?.id
                    ? "row-chosen -outline-offset-2 outline-live group-focus-visible:outline-2"
                    : "hover:bg-sunk/60",
                )}
              >
                <Row row={row} figure={shown.figures.get(row.id)} isHeld={row.id === acts.held?.id} />
              </div>
            ))}
          </div>
        </MenuOver>
      )}
      <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
        {rows.length === shown.inDrawer
          ? counted(rows.length, "project")
          : `${rows.length} of ${counted(shown.inDrawer, "project")}`}{" "}
        · <Key>Enter</Key> open <Key>F</Key> find <Key>C</Key>{" "}
        {acts.held ? <span className="truncate text-edit">compare with “{acts.held.name}”</span> : "compare"}{" "}
        {isBin ? (
          <>
            <Key>R</Key> take out
          </>
        ) : (
          <>
            <Key>F2</Key> name <Key>Delete</Key> bin <Key>W</Key> wrap up <Key>Shift W</Key> all of them
          </>
        )}
      </p>
      {sheet === "new" && <NewProject projects={all} onClose={() => open(null)} />}
      {sheet === "details" && chosen && <DetailsOf id={chosen.id} onClose={() => open(null)} />}
    </section>
  );
  return (
    <Panels
      id="projects"
      panes={[
        {
          id: "drawers",
          label: "the drawers",
          size: 196,
          min: 150,
          children: (
            <Drawers
              rows={all}
              binned={shown.binned.length}
              drawer={drawer}
              onDrawer={(next) => {
                shown.setDrawer(next);
                setAt(0);
              }}
            />
          ),
        },
        { id: "projects", label: "the projects", min: 560, children: screen },
      ]}
    />
  );
}

const rowId = (project: string): string => `project-${project}`;

/** What each column holds; by each the list can stand. */
function Head({ shown: { sort, sortBy, drawer } }: { readonly shown: ProjectsShown }) {
  const Arrow = sort.reversed ? ArrowUp : ArrowDown;
  return (
    <div
      role="group"
      aria-label="Order"
      className={cx(GRID, "h-[30px] flex-none border-edge border-y text-small text-soft")}
    >
      {HEADS.map(({ by, title, isNumber }) => (
        <button
          key={by}
          type="button"
          aria-pressed={sort.by === by}
          onClick={() => sortBy(by)}
          className={cx(
            "flex min-w-0 items-center gap-1 rounded-card hover:text-ink",
            isNumber && "justify-end",
            sort.by === by && "text-ink",
          )}
        >
          <span className="truncate">{by === "changed" && drawer.of === "bin" ? "Put here" : title}</span>
          {sort.by === by && <Arrow size={12} aria-hidden="true" className="flex-none" />}
        </button>
      ))}
    </div>
  );
}

/** Why nothing is listed, and what to do about it. */
function Nothing({ shown, onNew }: { readonly shown: ProjectsShown; readonly onNew: () => void }) {
  const { isPending, error, rows, inDrawer, drawer } = shown;
  if (isPending) return <Loading what="Opening" />;
  if (rows.length > 0) return null;
  if (error)
    return (
      <Empty title="The projects could not be read">
        <p role="alert">{error.message}</p>
      </Empty>
    );
  if (inDrawer > 0)
    return (
      <Empty title="No project matches" className="flex-1">
        <p>Nothing in this drawer has “{shown.words}” in its name, song, artist, client or year.</p>
        <Button onClick={() => shown.setWords("")}>Show all of it</Button>
      </Empty>
    );
  if (drawer.of === "all")
    return (
      <Empty title="No projects yet" className="flex-1">
        <p>
          A project holds strips; sounds are applied to them. Start with an empty one: a sound brings its own strip.
        </p>
        <Button main onClick={onNew}>
          New project
        </Button>
      </Empty>
    );
  if (drawer.of === "bin")
    return (
      <Empty title="The bin is empty" className="flex-1">
        <p>Projects that are put into it stay as they are, with their past, until they are taken out again.</p>
      </Empty>
    );
  return (
    <Empty title={drawer.of === "starters" ? "No starters yet" : "Nothing in this drawer"} className="flex-1">
      <p>
        {drawer.of === "starters"
          ? "“Keep as a project starter” in a project makes one to begin others from."
          : "Its projects were renamed, or put into the bin."}
      </p>
      <Button onClick={() => shown.setDrawer({ of: "all" })}>All projects</Button>
    </Empty>
  );
}

interface RowProps {
  readonly row: ProjectRow;
  /** Not there before it was counted. */
  readonly figure: Figure | undefined;
  /** Whether another is to be compared with it. */
  readonly isHeld: boolean;
}

const Row = ({ row, figure, isHeld }: RowProps) => (
  <>
    <span className="flex min-w-0 items-baseline gap-2">
      <span className="name truncate">{row.name}</span>
      {isHeld && <span className="flex-none text-edit text-small">to compare</span>}
    </span>
    <span className="truncate text-soft">
      {row.starter ? "a project starter" : clientOf(row)}
      {isBranch(row.id) && <span className="text-edit"> · as it went on elsewhere</span>}
    </span>
    <span className="num text-right">
      {row.tempo}
      <span className="unit">bpm</span>
    </span>
    <span className="num text-right">{row.strips}</span>
    <span className={cx("num text-right", figure && figure.unsaved > 0 ? "text-edit" : "text-soft")}>
      {figure ? figure.unsaved : "…"}
    </span>
    <span className="num text-right text-soft">{figure ? <Size bytes={figure.bytes} /> : "…"}</span>
    <span className="num text-right text-soft">{formatDay(row.binnedAt ?? row.changedAt, new Date())}</span>
  </>
);

function Size({ bytes }: { readonly bytes: number }) {
  const { text, unit } = formatSize(bytes);
  return (
    <>
      {text}
      <span className="unit">{unit}</span>
    </>
  );
}

interface ChosenMenuProps {
  readonly name: string;
  readonly groups: readonly MenuGroup[];
}

/** What is done with the project in hand, for who has no second button to press. */
const ChosenMenu = ({ name, groups }: ChosenMenuProps) => (
  <Menu
    align="end"
    groups={groups}
    trigger={
      <Button className="flex-none" aria-label={`What to do with ${name}`} title={`What to do with “${name}”`}>
        <Ellipsis size={16} aria-hidden="true" />
      </Button>
    }
  />
);

/** What is said of a project, once it has been opened for it. */
function DetailsOf({ id, onClose }: { readonly id: string; readonly onClose: () => void }) {
  const editing = useProjectEditing(id);
  const { body } = editing;
  return body ? <DetailsSheet project={body.project} editing={editing} onClose={onClose} /> : null;
}
