"use client";

import { counted } from "@/core/names/count";
import type { PlanBody } from "@/contracts/projects";
import type { Processor } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { type Project, describeOutput, findStrip, nameIn } from "@/core/projects/project";
import type { PlannedSend } from "@/core/recall/plan-shape";
import { cellOf } from "@/core/recall/steps";
import { type Strip, stripName } from "@/core/strips/strip";
import { PART, PARTS, type PartName } from "@/core/strips/parts";
import { describeMedia } from "@/core/strips/parts/media";
import { describePan } from "@/core/strips/parts/pan";
import { describeSource } from "@/core/strips/parts/source";
import { formatFader } from "@/core/strips/parts/level";
import { cx } from "../kit/class-names";
import { Shapes } from "../kit/shape";
import { Tick } from "../kit/tick";
import { type Put, useMatchDrop } from "./match-drag";
import { offKey } from "./use-plan";

const GRID = "grid items-center gap-[10px] px-4";

interface CellProps extends Sides {
  readonly tick: React.ReactNode;
  /** Of sends: a tick for each. */
  readonly singles: React.ReactNode;
  readonly project: Project;
  readonly after: Project;
}

interface Column {
  readonly width: string;
  readonly Cell: (props: CellProps) => React.ReactNode;
}

/** Where each part stands in a row; null for what is told beside the name. */
const COLUMNS: Readonly<Record<PartName, Column | null>> = {
  source: null,
  look: null,
  media: null,
  inserts: {
    width: "minmax(204px,1fr)",
    Cell: ({ tick, now, then, project }) => (
      <span role="cell" className="flex items-center gap-2">
        {tick}
        <InsertsChange now={now} then={then} tempo={project.tempo} />
      </span>
    ),
  },
  sends: {
    width: "minmax(134px,0.7fr)",
    Cell: ({ tick, singles, now, then, project, after }) => (
      <span role="cell" className="grid min-w-0 gap-1">
        <PartWords tick={tick} now={now && sendsOf(now, project)} then={then && sendsOf(then, after)} />
        {singles}
      </span>
    ),
  },
  level: {
    width: "112px",
    Cell: ({ tick, now, then }) => (
      <PartCell tick={tick} unit=" dB" now={now && formatFader(now.level)} then={then && formatFader(then.level)} />
    ),
  },
  pan: {
    width: "76px",
    Cell: ({ tick, now, then }) => (
      <PartCell tick={tick} now={now && describePan(now.pan)} then={then && describePan(then.pan)} />
    ),
  },
  routing: {
    width: "84px",
    Cell: ({ tick, now, then, project, after }) => (
      <PartCell
        tick={tick}
        now={now && describeOutput(project, now.routing.output)}
        then={then && describeOutput(after, then.routing.output)}
      />
    ),
  },
};

const SHOWN = PARTS.flatMap((part) => {
  const column = COLUMNS[part];
  return column ? [{ part, ...column }] : [];
});

/** The columns of a plan: sends are few, and have one where there are any. */
const columnsFor = ({ rows }: PlanBody["plan"]): typeof SHOWN =>
  SHOWN.filter(({ part }) => part !== "sends" || rows.some(({ parts }) => parts.some((p) => p.part === "sends")));

const gridOf = (shown: typeof SHOWN) => ({
  gridTemplateColumns: ["150px", ...shown.map((column) => column.width)].join(" "),
});

const sendsOf = (strip: Strip, project: Project): string =>
  PART.sends.words(strip.sends, { kind: strip.kind, nameOf: nameIn(project) });

interface RowsProps {
  readonly project: Project;
  readonly after: Project;
  readonly plan: PlanBody["plan"];
  readonly off: ReadonlySet<string>;
  readonly onOff: (off: ReadonlySet<string>) => void;
  readonly onPut: Put;
}

/** Strips by parts: before and after where something changes, "stays" where nothing does. */
export function Rows({ project, after, plan, off, onOff, onPut }: RowsProps) {
  const dropOn = useMatchDrop({ matches: plan.matches, onPut });
  const toggle = (cell: string, on: boolean) => {
    const next = new Set(off);
    if (on) next.delete(cell);
    else next.add(cell);
    onOff(next);
  };
  const changed = new Set(plan.steps.map((s) => cellOf(s).strip)).size;
  const others = project.strips.length - plan.rows.filter((r) => !r.isNew).length;
  const shown = columnsFor(plan);
  return (
    <div role="table" aria-label="Changes" className="min-h-0 flex-1 overflow-auto">
      <div role="row" style={gridOf(shown)} className={`${GRID} h-[30px] border-edge border-y text-small text-soft`}>
        {["Onto", ...shown.map(({ part }) => PART[part].title)].map((head) => (
          <span key={head} role="columnheader">
            {head}
          </span>
        ))}
      </div>
      {plan.rows.map((row) => (
        <PlanRow
          key={row.strip}
          row={row}
          shown={shown}
          name={plan.matches.find(({ id }) => id === row.key)?.name ?? ""}
          isAlone={row.isNew && plan.rows.length === 1 && plan.matches.length === 0}
          project={project}
          after={after}
          off={off}
          onToggle={toggle}
          drop={dropOn(findStrip(project, row.strip))}
        />
      ))}
      <p className="px-4 py-[10px] text-small text-soft">
        {counted(plan.steps.length, "change")} in {counted(changed, "strip")} · everything without an arrow, and{" "}
        {counted(others, "other strip")}, stay as they are
      </p>
    </div>
  );
}

interface RowProps extends Pick<RowsProps, "project" | "after" | "off"> {
  readonly row: PlanBody["plan"]["rows"][number];
  readonly shown: typeof SHOWN;
  /** How it is called where it is not made. */
  readonly name: string;
  /** The only one, and new: without it there is no plan. */
  readonly isAlone: boolean;
  /** A strip as a whole, one part of it, or one of its sends: see `offKey`. */
  readonly onToggle: (cell: string, on: boolean) => void;
  /** Of a strip here: another of a set can be let go on it. */
  readonly drop: ReturnType<ReturnType<typeof useMatchDrop>>;
}

/** One strip, part by part. */
function PlanRow({ row: { strip: id, key, parts }, drop, ...props }: RowProps) {
  const { shown, name, isAlone, project, after, off, onToggle } = props;
  const now = findStrip(project, id);
  const then = findStrip(after, id);
  // A look may give several strips one name: they are told by what they are called now.
  const called = (now ?? then)?.look.name ?? name;
  const on = !off.has(offKey(key));
  const tick = (part: PartName) => {
    const planned = parts.find((p) => p.part === part);
    if (!planned || isAlone) return null;
    return (
      <Tick
        label={`${PART[part].title} of ${called}`}
        on={on && !off.has(offKey(key, part))}
        onChange={(next) => onToggle(offKey(key, part), next)}
      />
    );
  };
  const sends = parts.find((p) => p.part === "sends");
  const singles = sends?.on && (sends.sends?.length ?? 0) > 1 && (
    <SingleSends
      of={called}
      sends={sends.sends ?? []}
      onToggle={(send, next) => onToggle(offKey(key, "sends", send), next)}
    />
  );
  return (
    <div
      role="row"
      style={gridOf(shown)}
      className={cx(GRID, "min-h-[78px] border-rule border-b py-1", drop.isOver && "bg-live-tint")}
      {...drop.handlers}
    >
      <span role="cell" className="flex items-center gap-2">
        {!isAlone && <Tick label={`All of ${called}`} on={on} onChange={(next) => onToggle(offKey(key), next)} />}
        <Onto name={called} now={now} then={then} source={tick("source")} look={tick("look")} media={tick("media")} />
      </span>
      {shown.map(({ part, Cell }) => (
        <Cell
          key={part}
          tick={tick(part)}
          singles={part === "sends" && singles}
          now={now}
          then={then}
          project={project}
          after={after}
        />
      ))}
    </div>
  );
}

interface SingleSendsProps {
  /** What the strip is called. */
  readonly of: string;
  readonly sends: readonly PlannedSend[];
  readonly onToggle: (send: string, on: boolean) => void;
}

/** Each send that comes or goes, by its bus. */
const SingleSends = ({ of, sends, onToggle }: SingleSendsProps) => (
  <span className="flex flex-wrap gap-x-3 gap-y-1 pl-[23px] text-small">
    {sends.map(({ key, name, on }) => (
      <span key={key} className="flex min-w-0 items-center gap-[5px] text-soft">
        <Tick label={`Send to ${name} of ${of}`} on={on} onChange={(next) => onToggle(key, next)} />
        <span className="truncate">{name}</span>
      </span>
    ))}
  </span>
);

interface Sides {
  /** Null for a strip that is new. */
  readonly now: Strip | null;
  readonly then: Strip | null;
}

/** What the strip will be called and play. */
function Onto({
  name,
  now,
  then,
  source,
  look,
  media,
}: Sides & { readonly name: string } & Readonly<Record<"source" | "look" | "media", React.ReactNode>>) {
  const plays = then !== null && then.source !== now?.source && then.source.type === "layers";
  return (
    <span className="min-w-0">
      <span className="name block truncate">{then?.look.name ?? name}</span>
      {plays && (
        <span className="flex items-center gap-1 text-small">
          {source}
          <span className="text-live">{describeSource(then)}</span>
        </span>
      )}
      {now === null && <span className="text-small text-live">{then ? "new strip" : "not made"}</span>}
      {look && (
        <span className="flex items-center gap-1 text-small text-soft">
          {look}
          {now && then && stripName(now) !== stripName(then) ? `was ${stripName(now)}` : "look"}
        </span>
      )}
      {media && (
        <span className="flex items-center gap-1 text-small text-soft">
          {media}
          {then ? describeMedia(then.media) : "clips"}
        </span>
      )}
    </span>
  );
}

function InsertsChange({ now, then, tempo }: Sides & { readonly tempo: number }) {
  const before = now ? processorsOf(now.inserts) : [];
  const after = then ? processorsOf(then.inserts) : [];
  if (now && now.inserts === then?.inserts)
    return (
      <span className="flex items-center gap-2 text-small text-faint">
        stays <Names processors={before} tempo={tempo} />
      </span>
    );
  return (
    <span className="grid gap-[3px] text-small">
      <span className="grid grid-cols-[38px_1fr] items-center text-soft">
        before <Names processors={before} tempo={tempo} />
      </span>
      <span className="grid grid-cols-[38px_1fr] items-center text-live">
        after <Names processors={after} tempo={tempo} />
      </span>
    </span>
  );
}

/** So many shapes stand beside each other in the narrowest column; where there are more, the last place is for their count. */
const MOST_SHAPES = 3;

function Names({ processors, tempo }: { readonly processors: readonly Processor[]; readonly tempo: number }) {
  return processors.length > 0 ? (
    <Shapes
      processors={processors}
      tempo={tempo}
      width={44}
      most={processors.length > MOST_SHAPES ? MOST_SHAPES - 1 : MOST_SHAPES}
    />
  ) : (
    <span className="h-7 content-center">no plugins</span>
  );
}

interface PartCellProps {
  readonly tick: React.ReactNode;
  readonly now: string | null;
  readonly then: string | null;
  readonly unit?: string;
}

const PartCell = (props: PartCellProps) => (
  <span role="cell" className="min-w-0">
    <PartWords {...props} />
  </span>
);

function PartWords({ tick, now, then, unit = "" }: PartCellProps) {
  return (
    <span className="flex min-w-0 items-center gap-2 text-small">
      {tick}
      {now === then || now === null ? (
        <span className="truncate text-faint" title={now === null ? undefined : `stays ${now}${unit}`}>
          {now === null ? then : `stays ${now}`}
          {unit}
        </span>
      ) : (
        <span className="min-w-0">
          <span className="text-soft">{now}</span> → {then}
          {unit}
        </span>
      )}
    </span>
  );
}
