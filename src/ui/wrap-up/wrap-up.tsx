"use client";

import { useRouter } from "next/navigation";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import type { ProjectBody } from "@/contracts/projects";
import type { WrapUp as Told } from "@/contracts/wrap-up";
import { counted } from "@/core/names/count";
import { useActions } from "../actions/actions";
import { Empty, Key, Loading } from "../kit/bits";
import { Button } from "../kit/button";
import { StripMark } from "../kit/card-mark";
import { cx } from "../kit/class-names";
import { formatMoment } from "../kit/dates";
import { Panels } from "../kit/panels";
import { Shapes } from "../kit/shape";
import { Tick } from "../kit/tick";
import { Toggle } from "../kit/toggle";
import { useAttempt } from "../kit/use-attempt";
import { useTakeProject } from "../projects/in-hand";
import { useOpenProject } from "../projects/open-project";
import { FindPane } from "./find-pane";
import { type Row, isKept, levelWords, standingWords, workWords } from "./rows";
import { ALSO, type Also, type WrappingUp, useLookedThrough, useWrapUp } from "./use-wrap-up";

/** The end of a project: what is worth keeping of it is ticked, adjusted, and filed all at once. */
export function WrapUp({ id }: { readonly id: string }) {
  const open = useOpenProject(id);
  useTakeProject(id);
  const looked = useLookedThrough(id, open.body?.revision ?? 0);
  const error = open.error ?? looked.error;
  if (error && !looked.data)
    return (
      <Empty page title="This project cannot be wrapped up">
        <p role="alert">{error.message}</p>
      </Empty>
    );
  if (!open.body || !looked.data) return <Loading what="Looking through the project" />;
  return <OpenWrapUp body={open.body} told={looked.data} />;
}

const ALSO_WORDS: Readonly<Record<Also, string>> = {
  plugins: "Plugins of chains",
  left: "Passed over then",
  kept: "In the library",
};

const saying = ({ filed }: WrappingUp): string =>
  filed.length === 0 ? "File nothing" : `File ${counted(filed.length, "sound")}`;

function OpenWrapUp({ body, told }: { readonly body: ProjectBody; readonly told: Told }) {
  const { project } = body;
  const router = useRouter();
  const wrapping = useWrapUp(project, told);
  const { rows, edit, isOn } = wrapping;
  const [cursor, setCursor] = useState<string | null>(null);
  const { refusal, busy, attempt } = useAttempt();
  const list = useRef<HTMLDivElement>(null);
  const at = Math.max(
    0,
    rows.findIndex(({ key }) => key === cursor),
  );
  const row = rows[at] ?? null;
  const leave = () => router.push(`/projects/${project.id}`);
  const file = () => void attempt(wrapping.file);
  const move = (to: number) => setCursor(rows[Math.max(0, Math.min(rows.length - 1, to))]?.key ?? null);
  const turn = () => row && edit(row, { on: !isOn(row) });
  const toList = useEffectEvent(() => list.current?.focus());
  useEffect(() => toList(), []);
  useEffect(() => {
    document.getElementById(`find-${row?.key ?? ""}`)?.scrollIntoView({ block: "nearest" });
  }, [row?.key]);
  const group = "Wrap-up";
  useActions([
    { id: "leave", title: "Back to the project", group, keys: ["Escape"], run: leave },
    { id: "file", title: saying(wrapping), group, keys: ["Ctrl+Enter"], enabled: !busy, run: file },
    {
      id: "undo",
      title: "Take the wrap-up back",
      group,
      keys: ["Ctrl+Z"],
      past: true,
      enabled: wrapping.takeBack !== null,
      run: () => void wrapping.takeBack?.(),
    },
    { id: "tick", title: "Tick what is in hand, or not", group, keys: ["Enter"], enabled: row !== null, run: turn },
    { id: "next", title: "Next", group, keys: ["ArrowDown"], keyOnly: true, run: () => move(at + 1) },
    { id: "before", title: "The one before", group, keys: ["ArrowUp"], keyOnly: true, run: () => move(at - 1) },
    { id: "first", title: "The first", group, keys: ["Home"], keyOnly: true, run: () => move(0) },
    { id: "last", title: "The last", group, keys: ["End"], keyOnly: true, run: () => move(rows.length - 1) },
  ]);
  const table = (
    <section aria-label={`Wrap-up of ${project.name}`} className="flex h-full min-w-0 flex-col">
      <header className="flex flex-none items-center gap-3 px-[14px] pt-[14px] pb-2">
        <h1 className="h1 truncate">Wrap up {project.name}</h1>
        <span className="ml-auto flex flex-none gap-2">
          <Button onClick={leave}>Back to the project</Button>
          <Button main disabled={busy} title="Ctrl Enter" onClick={file}>
            {busy ? "Filing…" : saying(wrapping)}
          </Button>
        </span>
      </header>
      <div className="flex flex-none flex-wrap items-center gap-x-4 gap-y-1 px-[14px] pb-3 text-soft">
        <span>
          {wrapping.loose === 0
            ? "The library has all of it"
            : `${wrapping.loose} of ${wrapping.found} not in the library`}
        </span>
        {told.last !== null && <span>wrapped up last {formatMoment(told.last)}</span>}
        <span className="ml-auto flex gap-4">
          {ALSO.filter((one) => wrapping.count(one) > 0).map((one) => (
            <Toggle
              key={one}
              label={`${ALSO_WORDS[one]}: ${wrapping.count(one)}`}
              on={wrapping.also[one]}
              onChange={(on) => wrapping.turn(one, on)}
            />
          ))}
        </span>
      </div>
      {refusal && <div className="flex-none px-[14px] pb-2">{refusal}</div>}
      {rows.length === 0 ? (
        <Empty title="Nothing is left to file" className="flex-1">
          <p>All that sounds in {project.name} is in the library, or was passed over as it is.</p>
          <Button onClick={leave}>Back to the project</Button>
        </Empty>
      ) : (
        // biome-ignore lint/a11y/useSemanticElements: a grid with ticks, not a table of figures
        <div
          ref={list}
          role="grid"
          aria-label="What was found"
          tabIndex={0}
          className="relative min-h-0 flex-1 overflow-auto border-edge border-t outline-none"
        >
          {wrapping.blocks.map(({ strip, rows: own }) => (
            <div key={strip.id} role="rowgroup" aria-label={strip.look.name}>
              <div className="flex items-center gap-2 bg-sunk px-[14px] py-[5px]">
                <StripMark kind={strip.kind} icon={strip.look.icon} colour={strip.look.colour} />
                <span className="name truncate">{strip.look.name}</span>
                <span className="ml-auto flex-none text-small text-soft">{own[0] ? workWords(own[0]) : ""}</span>
              </div>
              {own.map((one) => (
                <Line
                  key={one.key}
                  row={one}
                  tempo={project.tempo}
                  wrapping={wrapping}
                  isInHand={one === row}
                  onChoose={() => setCursor(one.key)}
                />
              ))}
            </div>
          ))}
        </div>
      )}
      <p className="flex h-8 flex-none items-center gap-[6px] overflow-hidden whitespace-nowrap border-edge border-t px-[14px] text-small text-soft">
        <Key>↑ ↓</Key> finds <Key>Enter</Key> tick <Key>Space</Key> listen <Key>X</Key> A and the nearest{" "}
        <Key>Ctrl Enter</Key> file
      </p>
    </section>
  );
  return (
    <Panels
      id="wrap-up"
      panes={[
        { id: "finds", label: "What was found", min: 480, children: table },
        {
          id: "find",
          label: "What is in hand",
          size: 360,
          min: 300,
          children: (
            <div className="flex h-full flex-col bg-card">
              {row && <FindPane row={row} tempo={project.tempo} wrapping={wrapping} />}
            </div>
          ),
        },
      ]}
    />
  );
}

interface LineProps {
  readonly row: Row;
  readonly tempo: number;
  readonly wrapping: WrappingUp;
  readonly isInHand: boolean;
  readonly onChoose: () => void;
}

/** One find, with its tick, and the name that it would have. */
function Line({ row, tempo, wrapping, isInHand, onChoose }: LineProps) {
  const filed = wrapping.filed.find((one) => one.row.key === row.key);
  return (
    // The keys are those of the screen.
    // biome-ignore lint/a11y/useKeyWithClickEvents: arrow keys choose lines
    <div
      id={`find-${row.key}`}
      role="row"
      tabIndex={-1}
      aria-selected={isInHand}
      onClick={onChoose}
      className={cx(
        "grid min-h-[40px] grid-cols-[15px_170px_200px_1fr] items-center gap-3 border-rule border-b border-l-[3px] px-[11px]",
        isInHand ? "border-l-live bg-live-tint" : "border-l-transparent",
      )}
    >
      <span role="gridcell" className="grid">
        {isKept(row) ? null : (
          <Tick
            label={`${levelWords(row)} of ${row.strip.look.name}`}
            on={filed !== undefined}
            onChange={(on) => wrapping.edit(row, { on })}
          />
        )}
      </span>
      <span role="gridcell" className={cx("truncate", isKept(row) && "text-soft")}>
        {levelWords(row)}
      </span>
      <span role="gridcell">
        <Shapes processors={row.processors} tempo={tempo} most={3} width={50} />
      </span>
      <span role="gridcell" className="grid min-w-0">
        {filed && <span className="name truncate">{filed.name}</span>}
        <span className="truncate text-small text-soft">
          {filed?.asVersion && row.standing.is === "changed" ? `version ${row.standing.newest + 1}, ` : ""}
          {standingWords(row)}
        </span>
      </span>
    </div>
  );
}
