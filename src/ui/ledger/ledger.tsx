"use client";

import { Library as LibraryIcon, SlidersHorizontal } from "lucide-react";
import { useRouter } from "next/navigation";
import { type MouseEvent, useEffect, useRef, useState } from "react";
import { type Project, describeOutput, depthOf, ledgerOrder } from "@/core/projects/project";
import { processorsOf } from "@/core/chains/chain";
import { positionOf } from "@/core/processors/param-spec";
import { FADER } from "@/core/strips/params";
import { type Strip, describeSource, formatFader, formatPanPart } from "@/core/strips/strip";
import { useActions } from "../actions/actions";
import { chooseStrips, useHand, useTakeProject } from "../frame/hand";
import { Empty, Key, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { cx } from "../kit/class-names";
import { StripIcon } from "../kit/kind-icon";
import { Panels } from "../kit/panels";
import { Shapes } from "../kit/shape";
import { hear } from "../listening/listening";
import { type ProjectEditing, useProjectEditing } from "../projects/editing";
import { HistoryButtons, historyActions } from "../projects/history";
import { openSave } from "../save/save";
import { SideLibrary, focusSideLibrary } from "./side-library";
import { useDiffers } from "./use-differs";

export function Ledger({ id }: { readonly id: string }) {
  const editing = useProjectEditing(id);
  useTakeProject(id);
  if (editing.error)
    return (
      <Empty page title="This project cannot be opened">
        <p role="alert">{editing.error.message}</p>
      </Empty>
    );
  if (!editing.body) return <Loading what="Opening the project" />;
  return <OpenLedger project={editing.body.project} editing={editing} />;
}

interface OpenProps {
  readonly project: Project;
  readonly editing: ProjectEditing;
}

/** Which rows are chosen, and where the cursor stands: as in any list of files. */
function useRows(rows: readonly Strip[]) {
  const strips = useHand((h) => h.strips);
  const chosen = rows.filter((r) => strips.includes(r.id)).map((r) => r.id);
  const [cursor, setCursor] = useState<string | null>(null);
  const [anchor, setAnchor] = useState<string | null>(null);
  const at = Math.max(
    0,
    rows.findIndex((r) => r.id === (cursor ?? chosen[0])),
  );
  const range = (from: string | null, to: string): string[] => {
    const [a, b] = [rows.findIndex((r) => r.id === from), rows.findIndex((r) => r.id === to)];
    return rows.slice(Math.min(a < 0 ? b : a, b), Math.max(a, b) + 1).map((r) => r.id);
  };
  const choose = (id: string, how: "only" | "range" | "toggle") => {
    setCursor(id);
    if (how === "range") return chooseStrips(range(anchor ?? rows[at]?.id ?? null, id));
    setAnchor(id);
    if (how === "only") return chooseStrips([id]);
    chooseStrips(chosen.includes(id) ? chosen.filter((s) => s !== id) : [...chosen, id]);
  };
  const moveTo = (index: number, how: "only" | "range") => {
    const row = rows[Math.min(rows.length - 1, Math.max(0, index))];
    if (row) choose(row.id, how);
  };
  return { chosen, at, cursor: rows[at] ?? null, choose, moveTo };
}

function OpenLedger({ project, editing }: OpenProps) {
  const router = useRouter();
  const rows = ledgerOrder(project);
  const { chosen, at, cursor, choose, moveTo } = useRows(rows);
  const [aside, setAside] = useState(true);
  const grid = useRef<HTMLDivElement>(null);
  const history = editing.body?.history;
  const openBench = () => cursor && router.push(`/bench?project=${project.id}&strip=${cursor.id}`);
  const only = chosen.length === 1 ? chosen[0] : undefined;
  const save = () => only && openSave({ project: project.id, strip: only });
  const heardName = cursor?.look.name;
  const heardChain = cursor?.inserts;
  useEffect(() => {
    if (heardChain && heardName !== undefined) hear("a", { name: heardName, chain: heardChain, tempo: project.tempo });
  }, [heardChain, heardName, project.tempo]);
  useEffect(() => grid.current?.focus(), []);
  const group = "Project";
  useActions([
    ...historyActions(editing, group),
    { id: "down", title: "Next strip", group, keys: ["ArrowDown"], keyOnly: true, run: () => moveTo(at + 1, "only") },
    { id: "up", title: "Previous strip", group, keys: ["ArrowUp"], keyOnly: true, run: () => moveTo(at - 1, "only") },
    {
      id: "more-down",
      title: "Choose the next as well",
      group,
      keys: ["Shift+ArrowDown"],
      keyOnly: true,
      run: () => moveTo(at + 1, "range"),
    },
    {
      id: "more-up",
      title: "Choose the previous as well",
      group,
      keys: ["Shift+ArrowUp"],
      keyOnly: true,
      run: () => moveTo(at - 1, "range"),
    },
    {
      id: "toggle",
      title: "Choose or leave this strip",
      group,
      keys: ["Ctrl+Space"],
      keyOnly: true,
      run: () => cursor && choose(cursor.id, "toggle"),
    },
    { id: "all", title: "Choose all strips", group, keys: ["Ctrl+A"], run: () => chooseStrips(rows.map((r) => r.id)) },
    { id: "none", title: "Choose no strip", group, keys: ["Escape"], run: () => chooseStrips([]) },
    {
      id: "strip-bench",
      title: "Open the strip on the bench",
      group,
      keys: ["B"],
      enabled: cursor !== null,
      run: () => void openBench(),
    },
    {
      id: "strip-save",
      title: "Save the strip…",
      group,
      keys: ["Ctrl+S"],
      enabled: only !== undefined,
      run: () => save(),
    },
    {
      id: "side",
      title: "Choose a sound to apply",
      group,
      keys: ["A"],
      run: () => {
        setAside(true);
        focusSideLibrary();
      },
    },
    {
      id: "side-hide",
      title: aside ? "Hide the library beside" : "Show the library beside",
      group,
      run: () => setAside(!aside),
    },
  ]);
  const table = (
    <section aria-label={project.name} className="flex h-full min-w-0 flex-col">
      <LedgerHeader
        project={project}
        editing={editing}
        canOpen={cursor !== null}
        canSave={only !== undefined}
        hasLibrary={aside}
        onOpen={() => void openBench()}
        onSave={() => void save()}
        onLibrary={() => setAside(true)}
      />
      <Rows
        project={project}
        rows={rows}
        chosen={chosen}
        cursor={cursor?.id ?? null}
        gridRef={grid}
        onChoose={choose}
        onOpen={() => void openBench()}
      />
      <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
        {chosen.length > 0 ? `${chosen.length} chosen` : "None chosen: a sound makes a new strip"} · <Key>A</Key> choose
        a sound <Key>B</Key> bench
        {history?.undo && (
          <>
            {" "}
            <Key>Ctrl Z</Key> <span className="truncate">undo “{history.undo}”</span>
          </>
        )}
      </p>
    </section>
  );
  const panes = [{ id: "ledger", label: "the strips", min: 640, children: table }];
  return (
    <Panels
      id={aside ? "ledger-with-library" : "ledger"}
      key={String(aside)}
      panes={
        aside
          ? [
              ...panes,
              {
                id: "side",
                label: "the library",
                size: 264,
                min: 200,
                children: <SideLibrary tempo={project.tempo} />,
              },
            ]
          : panes
      }
    />
  );
}

interface HeaderProps extends OpenProps {
  readonly canOpen: boolean;
  readonly canSave: boolean;
  readonly hasLibrary: boolean;
  readonly onOpen: () => void;
  readonly onSave: () => void;
  readonly onLibrary: () => void;
}

function LedgerHeader({ project, editing, canOpen, canSave, hasLibrary, onOpen, onSave, onLibrary }: HeaderProps) {
  return (
    <header className="flex flex-none items-center gap-3 px-[14px] pt-[14px] pb-3">
      <div className="flex min-w-0 items-baseline gap-3">
        <h1 className="h1 truncate">{project.name}</h1>
        <p className="whitespace-nowrap text-soft">
          {project.artist} · {project.tempo} bpm · {project.strips.length} strips
        </p>
      </div>
      <span className="ml-auto flex flex-none gap-2">
        <HistoryButtons editing={editing} />
        <Button disabled={!canOpen} onClick={onOpen}>
          <SlidersHorizontal size={16} aria-hidden="true" />
          Bench
        </Button>
        <Button disabled={!canSave} title={canSave ? undefined : "Choose one strip"} onClick={onSave}>
          Save strip…
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

const COLUMNS =
  "grid grid-cols-[minmax(130px,1.3fr)_minmax(84px,0.8fr)_248px_minmax(120px,0.9fr)_60px_minmax(52px,0.6fr)] items-center gap-[10px] px-[14px]";

interface RowsProps {
  readonly project: Project;
  readonly rows: readonly Strip[];
  readonly chosen: readonly string[];
  readonly cursor: string | null;
  readonly gridRef: React.RefObject<HTMLDivElement | null>;
  readonly onChoose: (id: string, how: "only" | "range" | "toggle") => void;
  readonly onOpen: () => void;
}

const HEADS = ["Strip", "Source", "Inserts", "Level", "Pan", "To"];

function Rows({ project, rows, chosen, cursor, gridRef, onChoose, onOpen }: RowsProps) {
  const differs = useDiffers(rows);
  const click = (strip: Strip) => (event: MouseEvent) =>
    onChoose(strip.id, event.shiftKey ? "range" : event.ctrlKey || event.metaKey ? "toggle" : "only");
  if (rows.length === 0)
    return (
      <Empty title="No strips yet" className="flex-1">
        <p>Choose a sound in the library beside and press Enter: it makes a strip of the right kind.</p>
      </Empty>
    );
  return (
    <div
      ref={gridRef}
      role="grid"
      tabIndex={0}
      aria-label="Strips"
      aria-multiselectable="true"
      aria-activedescendant={cursor ? `strip-${cursor}` : undefined}
      className="group min-h-0 flex-1 overflow-auto outline-none"
    >
      <div
        role="row"
        className={cx(COLUMNS, "sticky top-0 z-10 h-[30px] border-edge border-y bg-ground text-small text-soft")}
      >
        {HEADS.map((head) => (
          <span key={head} role="columnheader">
            {head}
          </span>
        ))}
      </div>
      {rows.map((strip) => {
        const on = chosen.includes(strip.id);
        return (
          <div
            key={strip.id}
            id={`strip-${strip.id}`}
            role="row"
            aria-selected={on}
            onClick={click(strip)}
            onDoubleClick={onOpen}
            className={cx(
              COLUMNS,
              "h-[48px] cursor-default border-rule border-b",
              on ? "row-chosen" : "hover:bg-sunk/60",
              cursor === strip.id &&
                "outline outline-edge -outline-offset-1 group-focus-visible:-outline-offset-2 group-focus-visible:outline-2 group-focus-visible:outline-live",
            )}
          >
            <span
              role="gridcell"
              className="flex min-w-0 items-center gap-2"
              style={{ paddingLeft: depthOf(project, strip) * 14 }}
            >
              <StripIcon kind={strip.kind} />
              <span className="name truncate">{strip.look.name}</span>
            </span>
            <span role="gridcell" className="truncate text-small text-soft">
              {strip.kind === "group" ? groupWords(project, strip) : describeSource(strip)}
            </span>
            <InsertsCell strip={strip} tempo={project.tempo} differs={differs.get(strip.id)} />
            <span role="gridcell" className="flex items-center gap-2">
              <LevelRuler fader={strip.level.fader} />
              <span className="num w-[46px] flex-none text-right">{formatFader(strip.level)}</span>
            </span>
            <span role="gridcell" className="num">
              {formatPanPart(strip.pan)}
            </span>
            <span role="gridcell" className="truncate text-small text-soft">
              {describeOutput(project, strip.routing.output)}
            </span>
          </div>
        );
      })}
    </div>
  );
}

function groupWords(project: Project, group: Strip): string {
  const members = project.strips.filter(
    (s) => s.routing.output && "strip" in s.routing.output && s.routing.output.strip === group.id,
  ).length;
  return `group of ${members}`;
}

interface InsertsProps {
  readonly strip: Strip;
  readonly tempo: number;
  readonly differs: string | undefined;
}

function InsertsCell({ strip, tempo, differs }: InsertsProps) {
  const processors = processorsOf(strip.inserts);
  const { from } = strip.inserts;
  return (
    <span role="gridcell" className="grid min-w-0 gap-px">
      {processors.length > 0 ? (
        <Shapes processors={processors} tempo={tempo} />
      ) : (
        <span className="text-small text-faint">no plugins</span>
      )}
      {processors.length > 0 && (
        <span className="truncate text-[11px] leading-[13px] text-soft">
          {from ? from.name : <span className="text-edit">not saved</span>}
          {from && differs && <span className="text-edit"> · differs by {differs}</span>}
        </span>
      )}
    </span>
  );
}

function LevelRuler({ fader }: { readonly fader: number }) {
  // The upper half of a fader's way is where it is worked: −30 to +12 dB.
  const shown = { ...FADER, min: -30 };
  return (
    <span className="relative h-4 min-w-0 flex-1" aria-hidden="true">
      <i className="absolute inset-x-0 top-[9px] h-px bg-edge" />
      <i className="absolute top-[6px] h-[7px] w-px bg-edge" style={{ left: `${100 * positionOf(shown, 0)}%` }} />
      <i
        className="absolute top-[2px] -translate-x-1/2 border-x-[4px] border-x-transparent border-t-[6px] border-t-ink"
        style={{ left: `${100 * positionOf(shown, fader)}%` }}
      />
    </span>
  );
}
