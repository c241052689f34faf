"use client";

import { FADER } from "@/core/strips/params";
import type { MouseEvent } from "react";
import { type Project, describeOutput, depthOf } from "@/core/projects/project";
import { processorsOf } from "@/core/chains/tree";
import { layersOf } from "@/core/strips/parts/source";
import { positionOf } from "@/core/units/param-spec";
import type { Strip } from "@/core/strips/strip";
import { describePan } from "@/core/strips/parts/pan";
import { describeSource } from "@/core/strips/parts/source";
import { formatFader } from "@/core/strips/parts/level";
import { Empty } from "../kit/bits";
import { cx } from "../kit/class-names";
import { StripIcon } from "../kit/kind-icon";
import { Shapes } from "../kit/shape";
import type { Standing } from "./use-standings";

const COLUMNS =
  "grid grid-cols-[minmax(130px,1.3fr)_minmax(84px,0.8fr)_248px_minmax(120px,0.9fr)_60px_minmax(52px,0.6fr)] items-center gap-[10px] px-[14px]";

interface RowsProps {
  readonly project: Project;
  readonly rows: readonly Strip[];
  readonly standings: ReadonlyMap<string, Standing>;
  readonly chosen: readonly string[];
  readonly cursor: string | null;
  readonly gridRef: React.RefObject<HTMLDivElement | null>;
  readonly onChoose: (id: string, how: "only" | "range" | "toggle") => void;
  readonly onOpen: () => void;
}

const HEADS = ["Strip", "Source", "Inserts", "Level", "Pan", "To"];

export function Rows({ project, rows, standings, chosen, cursor, gridRef, onChoose, onOpen }: RowsProps) {
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
            <InsertsCell strip={strip} tempo={project.tempo} standing={standings.get(strip.id)} />
            <span role="gridcell" className="flex items-center gap-2">
              <LevelRuler fader={strip.level.fader} />
              <span className="num w-[46px] flex-none text-right">{formatFader(strip.level)}</span>
            </span>
            <span role="gridcell" className="num">
              {describePan(strip.pan)}
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
  readonly standing: Standing | undefined;
}

function InsertsCell({ strip, tempo, standing }: InsertsProps) {
  const processors = processorsOf(strip.inserts);
  const hasSound = processors.length > 0 || layersOf(strip).length > 0;
  return (
    <span role="gridcell" className="grid min-w-0 gap-px">
      {processors.length > 0 ? (
        <Shapes processors={processors} tempo={tempo} />
      ) : (
        <span className="text-small text-faint">no plugins</span>
      )}
      {hasSound && (
        <span className="truncate text-[11px] leading-[13px] text-soft">
          {standing ? standing.reference.name : <span className="text-edit">not saved</span>}
          {standing?.newer && ` · version ${standing.reference.version} of ${standing.newer}`}
          {standing?.differs && <span className="text-edit"> · differs by {standing.differs}</span>}
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
