"use client";

import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { ledgerOrder } from "@/core/projects/project";
import { useActions } from "../actions/actions";
import { chooseStrips, useTakeProject } from "../projects/in-hand";
import { Empty, Key, Loading } from "../kit/bits";
import { Panels } from "../kit/panels";
import { hear } from "../listening/listening";
import { soundAt } from "../listening/strip-sound";
import { useProjectEditing } from "../projects/editing";
import { counted } from "@/core/names/count";
import { orSay } from "../kit/say";
import { historyActions } from "../projects/history";
import { openSave } from "../save/save";
import { SideLibrary, focusSideLibrary } from "./side-library";
import { useStandings, useTakeNewest } from "./use-standings";
import { useStripActions } from "./use-strip-actions";
import { useRows } from "./use-rows";
import { LedgerHeader, type OpenProps } from "./ledger-header";
import { Rows } from "./ledger-rows";

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

function OpenLedger({ project, editing }: OpenProps) {
  const router = useRouter();
  const rows = ledgerOrder(project);
  const { chosen, at, cursor, choose, moveTo } = useRows(rows);
  const [aside, setAside] = useState(true);
  const grid = useRef<HTMLDivElement>(null);
  const standings = useStandings(rows);
  const old = chosen.filter((id) => standings.get(id)?.newer);
  const takeNewest = useTakeNewest(project.id, standings);
  const history = editing.body?.history;
  const openBench = () => cursor && router.push(`/bench?project=${project.id}&strip=${cursor.id}`);
  const save = () => chosen.length > 0 && openSave({ project: project.id, strips: chosen });
  const { look, inserts, source } = cursor ?? {};
  useEffect(() => {
    if (look && inserts && source) hear(soundAt(inserts, { name: look.name, tempo: project.tempo, strip: { source } }));
  }, [look, inserts, source, project.tempo]);
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
  const add = useStripActions(editing, cursor, (id) => choose(id, "only"));
  const table = (
    <section aria-label={project.name} className="flex h-full min-w-0 flex-col">
      <LedgerHeader
        project={project}
        editing={editing}
        canOpen={cursor !== null}
        canSave={chosen.length > 0}
        hasLibrary={aside}
        onOpen={() => void openBench()}
        onSave={() => void save()}
        onLibrary={() => setAside(true)}
        onAdd={add}
      />
      <Rows
        project={project}
        rows={rows}
        standings={standings}
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
