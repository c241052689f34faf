"use client";

import { useRouter } from "next/navigation";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { withInsideOfFolders } from "@/core/projects/nesting";
import { findStrip, getStrip } from "@/core/projects/project";
import { counted } from "@/core/names/count";
import type { Strip } from "@/core/strips/strip";
import { useActions } from "../actions/actions";
import { Empty, Loading } from "../kit/bits";
import { MenuOver } from "../kit/menu";
import { Panels } from "../kit/panels";
import { orSay } from "../kit/say";
import { beginsNumber } from "../kit/value-line";
import { hear } from "../listening/listening";
import { soundAt } from "../listening/strip-sound";
import { BinnedLine } from "../projects/binned-line";
import { useProjectEditing } from "../projects/editing";
import { useRelief } from "../relief/use-relief";
import { historyActions } from "../projects/history";
import { useTakeProject } from "../projects/in-hand";
import { openSave } from "../save/save";
import { CellCard } from "./cell-card";
import { columnBeside } from "./views/columns";
import { ColumnsMenu } from "./views/columns-menu";
import type { ColumnId } from "./views/layout";
import { ShownLine } from "./views/shown-line";
import { useShown } from "./views/use-shown";
import { useViews } from "./views/use-views";
import { isFoldKey, useFolding } from "./folding";
import { LedgerFoot } from "./ledger-foot";
import { LedgerHeader, type OpenProps } from "./ledger-header";
import { Rows } from "./ledger-rows";
import { RemoveSheet } from "./remove-sheet";
import { rowActions } from "./row-actions";
import { printStrips, sheetActions } from "./sheet-actions";
import { focusSide } from "./side-field";
import { SideLibrary } from "./side-library";
import { type Telling, TellingSheet } from "./telling-sheet";
import { dialOf } from "./typing";
import { useArranging } from "./use-arranging";
import { useDropping } from "./use-dropping";
import { useRows } from "./use-rows";
import { useStableHands } from "./use-stable-hands";
import { useStandings, useTakeNewest } from "./use-standings";
import { useStripActions } from "./use-strip-actions";
import { useTurning } from "./use-turning";

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

/** The strip in hand is what is listened to; a folder leaves what was. */
function useHearing(strip: Strip | null, tempo: number): void {
  const { look, inserts, source } = strip && strip.kind !== "folder" ? strip : {};
  useEffect(() => {
    if (look && inserts && source) hear(soundAt(inserts, { name: look.name, tempo, strip: { source } }));
  }, [look, inserts, source, tempo]);
}

const NOTHING_FOLDED: ReadonlySet<string> = new Set();

function OpenLedger({ project: stored, editing }: OpenProps) {
  const router = useRouter();
  const { folded, turnFold } = useFolding(stored);
  const shown = useShown(stored);
  const { columns } = shown;
  const rowsStored = shown.rowsOf(stored, folded);
  const inHand = useRows(rowsStored);
  const { chosen, cursor, choose } = inHand;
  const turning = useTurning(stored, editing, chosen);
  const { project } = turning;
  const rows = shown.rowsOf(project, folded);
  const [column, setColumn] = useState<ColumnId | null>(null);
  const [typed, setTyped] = useState<string | null>(null);
  const [card, setCard] = useState<{ readonly strip: string; readonly column: ColumnId } | null>(null);
  const [telling, setTelling] = useState<Telling | null>(null);
  const [aside, setAside] = useState(true);
  const grid = useRef<HTMLDivElement>(null);
  const standings = useStandings(rowsStored);
  const old = chosen.filter((id) => standings.get(id)?.newer);
  const takeNewest = useTakeNewest(stored.id, standings);
  const history = editing.body?.history;
  const foldRow = (strip: string) => {
    turnFold(strip);
    choose(strip, "only");
  };
  const openBench = () => {
    if (cursor?.kind === "folder") return foldRow(cursor.id);
    if (cursor) router.push(`/bench?project=${stored.id}&strip=${cursor.id}`);
  };
  const wrapUp = () => router.push(`/projects/${stored.id}/wrap-up`);
  const save = () =>
    void (chosen.length > 0 && openSave({ project: stored.id, strips: withInsideOfFolders(stored, chosen) }));
  const openCard = (strip: string, at: ColumnId) => {
    if (at === "inserts") return openBench();
    // Of a folder there is nothing else to set.
    if (at !== "look" && findStrip(stored, strip)?.kind === "folder") return foldRow(strip);
    setColumn(at);
    setCard({ strip, column: at });
  };
  const arranging = useArranging({
    project: stored,
    rows: rowsStored,
    stuck: shown.stuck,
    chosen,
    turning,
    choose: inHand.take,
    openCard,
  });
  const dropping = useDropping({
    project: stored,
    rows: rowsStored,
    stuck: shown.stuck,
    chosen,
    turning,
    choose: (strip) => choose(strip, "only"),
  });
  useHearing(cursor, stored.tempo);
  useEffect(() => grid.current?.focus(), []);
  const hands = useStableHands({
    press: (strip, at) => chosen.includes(strip) && openCard(strip, at),
    preview: (strip, dial, by) => turning.preview(strip, dial, { by }),
    commit: (strip, dial, by) => turning.commit(strip, dial, { by }),
    drop: turning.drop,
    fold: foldRow,
  });
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || !cursor) return;
    const taken = () => event.preventDefault();
    if (!event.ctrlKey && !event.altKey && !event.metaKey && !event.shiftKey) {
      if (event.key === "ArrowRight" || event.key === "ArrowLeft") {
        taken();
        if (isFoldKey(event.key, cursor, column, folded)) return foldRow(cursor.id);
        return setColumn(columnBeside(columns, column, event.key === "ArrowRight" ? 1 : -1));
      }
      if (event.key === "Enter" && column) {
        taken();
        return openCard(cursor.id, column);
      }
      if (event.key === "Delete" && chosen.length > 0) {
        taken();
        return arranging.remove();
      }
      if (event.key === "Escape" && column) {
        taken();
        return setColumn(null);
      }
    }
    if (column && beginsNumber(event) && dialOf(cursor, column)) {
      taken();
      setTyped(event.key);
    }
  };
  const relief = useRelief({ project: stored, editing, chosen });
  const views = useViews({ project: stored, editing, shown, chosen });
  const group = "Project";
  useActions([
    ...historyActions(editing, group),
    ...rowActions(inHand),
    {
      id: "strip-bench",
      title: "Open the strip on the bench",
      group,
      keys: ["B"],
      enabled: cursor !== null,
      run: () => void openBench(),
    },
    {
      id: "take-newest",
      title: `Take the newest version on ${counted(old.length, "strip")}`,
      group,
      enabled: old.length > 0,
      run: () => orSay(takeNewest(old)),
    },
    {
      id: "strip-save",
      title: "Save the strip…",
      group,
      keys: ["Ctrl+S"],
      enabled: chosen.length > 0,
      run: () => save(),
    },
    {
      id: "past",
      title: "Look back: the past of this project",
      group,
      keys: ["Z"],
      run: () => router.push(`/projects/${stored.id}/past`),
    },
    { id: "wrap-up", title: "Wrap up: file what is worth keeping", group, keys: ["W"], run: wrapUp },
    ...sheetActions(stored, chosen),
    { id: "keep-mix", title: "Keep this mix…", group, keys: ["Shift+K"], run: () => setTelling("mix") },
    { id: "starter", title: "Keep as a project starter…", group, run: () => setTelling("starter") },
    { id: "details", title: "Name, tempo and key of the project…", group, run: () => setTelling("details") },
    {
      id: "side",
      title: "Choose a sound to apply",
      group,
      keys: ["A"],
      run: () => {
        setAside(true);
        focusSide();
      },
    },
    {
      id: "side-hide",
      title: aside ? "Hide the library beside" : "Show the library beside",
      group,
      run: () => setAside(!aside),
    },
  ]);
  const menu = [
    {
      id: "open",
      items: [
        { id: "bench", label: "Open on the bench", beside: "B", onChoose: () => void openBench() },
        { id: "save", label: "Save…", beside: "Ctrl S", onChoose: save },
        {
          id: "past",
          label: "Past of this strip",
          onChoose: () => router.push(`/projects/${stored.id}/past?of=strip`),
        },
        { id: "sheet", label: "Recall sheet, as PDF", onChoose: () => printStrips(stored, chosen) },
      ],
    },
    ...arranging.menu,
    relief.menu,
    views.group,
  ];
  const add = useStripActions(editing, cursor, (id) => choose(id, "only"));
  const table = (
    <section aria-label={stored.name} className="flex h-full min-w-0 flex-col">
      <LedgerHeader
        project={stored}
        editing={editing}
        canOpen={cursor !== null}
        canSave={chosen.length > 0}
        hasLibrary={aside}
        onOpen={() => void openBench()}
        onSave={() => void save()}
        onLibrary={() => setAside(true)}
        onAdd={add}
        onDetails={() => setTelling("details")}
        onPast={() => router.push(`/projects/${stored.id}/past`)}
        onWrapUp={wrapUp}
      />
      {editing.body && <BinnedLine body={editing.body} />}
      <ShownLine
        project={stored}
        shown={shown}
        rows={rows.length}
        folded={shown.rowsOf(stored, NOTHING_FOLDED).length - rows.length}
        onFound={() => grid.current?.focus()}
      />
      <MenuOver groups={menu} disabled={rows.length === 0}>
        <div
          className="flex min-h-0 flex-1 flex-col"
          onContextMenu={({ target }) => {
            const id = target instanceof Element ? target.closest("[role=row]")?.id.replace(/^strip-/, "") : undefined;
            if (id !== undefined && id !== "" && !chosen.includes(id)) choose(id, "only");
          }}
        >
          <Rows
            project={project}
            rows={rows}
            columns={columns}
            onShowAll={shown.showAll}
            standings={standings}
            chosen={chosen}
            cursor={cursor?.id ?? null}
            column={column}
            typed={typed}
            hands={hands}
            folded={folded}
            lit={dropping.lit}
            dropHandlers={dropping.handlers}
            gridRef={grid}
            onChoose={(id, how, at = null) => {
              setColumn(how === "only" || how === "point" ? at : null);
              choose(id, how);
            }}
            onOpen={() => void openBench()}
            onKeyDown={onKeyDown}
            onTyped={setTyped}
            onTypedEnd={(strip, at, to) => {
              const dial = dialOf(getStrip(stored, strip), at);
              if (dial) turning.commit(strip, dial, { to });
            }}
          />
        </div>
      </MenuOver>
      <LedgerFoot
        words={dropping.words}
        chosen={chosen.length}
        canSet={column !== null && column !== "inserts"}
        undo={history?.undo ?? null}
      >
        {views.menu}
        <ColumnsMenu columns={columns} />
      </LedgerFoot>
      {card && (
        <CellCard
          key={`${card.strip} ${card.column}`}
          of={card}
          turning={turning}
          onClose={() => setCard(null)}
          onClosed={() => grid.current?.focus()}
        />
      )}
      {arranging.removing && (
        <RemoveSheet project={stored} strips={arranging.removing} turning={turning} onClose={arranging.onRemoved} />
      )}
      {relief.sheet}
      {views.sheet}
      {telling && <TellingSheet project={stored} editing={editing} telling={telling} onTell={setTelling} />}
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
                size: 232,
                min: 200,
                children: <SideLibrary tempo={stored.tempo} />,
              },
            ]
          : panes
      }
    />
  );
}
