"use client";

import { ChevronDown, ChevronRight } from "lucide-react";
import { type ReactNode, useRef } from "react";
import { processorsOf } from "@/core/chains/tree";
import type { Processor } from "@/core/chains/chain";
import { processorName } from "@/core/chains/chain";
import { FADER, WIDTH } from "@/core/strips/params";
import { formatFader } from "@/core/strips/parts/level";
import { describePan } from "@/core/strips/parts/pan";
import { type Send, describeSend, nameOfTarget } from "@/core/strips/parts/sends";
import { describeMedia } from "@/core/strips/parts/media";
import { describeSource, layersOf } from "@/core/strips/parts/source";
import { ROUTING } from "@/core/strips/parts/routing";
import type { Strip } from "@/core/strips/strip";
import { formatLevel, formatPan, formatValue } from "@/core/units/format";
import { positionOf } from "@/core/units/param-spec";
import { cx } from "../kit/class-names";
import { Shapes } from "../kit/shape";
import { StripMark } from "../kit/card-mark";
import { useDrag } from "../kit/use-drag";
import type { ColumnId } from "./views/layout";
import { type Dial, specOf } from "./turn";
import type { Standing } from "./use-standings";

/** What a cell asks to be done; the same functions at every turn. */
export interface Hands {
  /** A press on a value: it opens the card of a row that is chosen, and only chooses another. */
  readonly press: (strip: string, column: ColumnId) => void;
  readonly preview: (strip: string, dial: Dial, by: number) => void;
  readonly commit: (strip: string, dial: Dial, by: number) => void;
  readonly drop: () => void;
  readonly fold: (strip: string) => void;
}

export interface CellProps {
  readonly strip: Strip;
  /** How strips are called, by their ids. */
  readonly names: ReadonlyMap<string, string>;
  readonly tempo: number;
  /** Groups that it stands in, and what stands in it. */
  readonly depth: number;
  readonly members: number;
  /** Whether what stands in it is shown; null where nothing stands in it. */
  readonly fold: "open" | "folded" | null;
  readonly standing: Standing | undefined;
  readonly hands: Hands;
}

const around = ({ strip, names }: CellProps) => ({
  kind: strip.kind,
  nameOf: (id: string) => names.get(id) ?? null,
});

/** A press on it opens all that there is to set of that part, where its row is chosen. */
function Opens({ children, props, column, title, className }: OpensProps) {
  return (
    <button
      type="button"
      tabIndex={-1}
      data-value
      title={title}
      onClick={(event) => {
        // With these a press chooses rows.
        if (event.shiftKey || event.ctrlKey || event.metaKey) return;
        props.hands.press(props.strip.id, column);
      }}
      className={cx("min-w-0 cursor-pointer truncate rounded-card text-left hover:bg-sunk", className)}
    >
      {children}
    </button>
  );
}

interface OpensProps {
  readonly children: ReactNode;
  readonly props: CellProps;
  readonly column: ColumnId;
  readonly title?: string | undefined;
  readonly className?: string;
}

/** In pixels: a shorter way is a press. */
const DRAG_BEGINS = 3;

/** What turns a value by dragging sideways; a press without a way opens the card. `reach`: in the value's unit, over its own width. */
function useTurns({ strip, hands }: CellProps, dial: Dial, { reach, column }: { reach: number; column: ColumnId }) {
  const by = useRef(0);
  return useDrag({
    begins: DRAG_BEGINS,
    onStart: () => {
      by.current = 0;
      return true;
    },
    onMove: ({ dx, width }) => {
      by.current += (dx / width) * reach;
      hands.preview(strip.id, dial, by.current);
    },
    onEnd: (how) => {
      if (how === "moved") hands.commit(strip.id, dial, by.current);
      else hands.drop();
      if (how === "pressed") hands.press(strip.id, column);
    },
  });
}

function LookCell({ strip, depth, fold, hands }: CellProps) {
  const Mark = fold === "folded" ? ChevronRight : ChevronDown;
  return (
    <span className="flex min-w-0 items-center gap-2" style={{ paddingLeft: depth * 14 }}>
      {fold && (
        <button
          type="button"
          tabIndex={-1}
          aria-expanded={fold === "open"}
          aria-label={`${fold === "open" ? "Fold" : "Unfold"} ${strip.look.name}`}
          className="-my-2 -mr-1 -ml-[5px] flex-none cursor-pointer rounded-card py-2 text-soft hover:text-ink"
          onClick={(event) => {
            event.stopPropagation();
            hands.fold(strip.id);
          }}
          onDoubleClick={(event) => event.stopPropagation()}
        >
          <Mark size={14} aria-hidden="true" />
        </button>
      )}
      <StripMark kind={strip.kind} icon={strip.look.icon} colour={strip.look.colour} />
      <span className="name truncate">{strip.look.name}</span>
    </span>
  );
}

function SourceCell(props: CellProps) {
  const { strip, members } = props;
  if (strip.kind === "folder") return <span className="truncate text-small text-soft">{`folder of ${members}`}</span>;
  const source = strip.kind === "group" ? `group of ${members}` : describeSource(strip, around(props));
  const clips = strip.media.length > 0 ? describeMedia(strip.media) : null;
  return (
    <Opens
      props={props}
      column="source"
      className="text-small text-soft"
      title={[source, clips].filter(Boolean).join(" · ")}
    >
      {clips ? (
        // One above the other: beside the source it would be cut.
        <>
          <span className="block truncate leading-[17px]">{source}</span>
          <span className="block truncate leading-[17px]">{clips}</span>
        </>
      ) : (
        source
      )}
    </Opens>
  );
}

/** Pixels that a shape takes in a row, with the gap behind it; and what the count of the rest takes. */
const [SHAPE, REST] = [59, 22];

function InsertsCell({ strip, tempo, standing, width }: CellProps & { readonly width: number }) {
  const processors = processorsOf(strip.inserts);
  const hasSound = processors.length > 0 || layersOf(strip).length > 0;
  const room = Math.floor((width + 3) / SHAPE);
  const most = processors.length <= room ? room : Math.max(1, Math.floor((width - REST) / SHAPE));
  return (
    <span className="grid min-w-0 gap-px">
      {processors.length > 0 ? (
        <Shapes processors={processors} tempo={tempo} most={most} />
      ) : (
        <span className="text-small text-faint">no plugins</span>
      )}
      {hasSound && (
        <span className="flex min-w-0 whitespace-pre text-[11px] leading-[13px] text-soft">
          <span className="min-w-0 truncate">
            {standing ? standing.reference.name : <span className="text-edit">not saved</span>}
          </span>
          {/* What has to be known is not cut off behind a long name. */}
          {standing?.newer && (
            <span className="flex-none">{` · version ${standing.reference.version} of ${standing.newer}`}</span>
          )}
          {standing?.differs && (
            <span className={`text-edit ${standing.newer ? "min-w-[24px] flex-initial truncate" : "flex-none"}`}>
              {" · "}
              <span className="sr-only">differs by </span>
              {standing.differs}
            </span>
          )}
        </span>
      )}
    </span>
  );
}

/** The upper part of a fader's way is where it is worked: −30 to +12 dB. */
const WORKED = { ...FADER, min: -30 };
const REACH = WORKED.max - WORKED.min;

function Ruler({ level, quiet = false }: { readonly level: number; readonly quiet?: boolean }) {
  return (
    <span className="relative block h-4 min-w-0 flex-1" aria-hidden="true">
      <i className="absolute inset-x-0 top-[9px] h-px bg-edge" />
      <i className="absolute top-[6px] h-[7px] w-px bg-edge" style={{ left: `${100 * positionOf(WORKED, 0)}%` }} />
      <i
        className={cx(
          "absolute top-[2px] -translate-x-1/2 border-x-[4px] border-x-transparent border-t-[6px]",
          quiet ? "border-t-faint" : "border-t-ink",
        )}
        style={{ left: `${100 * positionOf(WORKED, level)}%` }}
      />
    </span>
  );
}

function LevelCell(props: CellProps) {
  const { level } = props.strip;
  const turns = useTurns(props, { of: "fader" }, { reach: REACH, column: "level" });
  return (
    <span className="flex min-w-0 items-center gap-2">
      <span {...turns} data-value className="block min-w-0 flex-1 cursor-ew-resize touch-none">
        <Ruler level={level.fader} quiet={level.mute} />
      </span>
      <Opens
        props={props}
        column="level"
        title={level.mute ? "muted" : undefined}
        className="num w-[44px] flex-none overflow-visible text-right"
      >
        <span className={cx(level.mute && "text-faint line-through")}>{formatLevel(level.fader, FADER.min)}</span>
        <span className="sr-only">{formatFader(level)}</span>
      </Opens>
    </span>
  );
}

function PanCell(props: CellProps) {
  const { pan } = props.strip;
  const turns = useTurns(props, { of: "pan" }, { reach: specOf({ of: "pan" }).max, column: "pan" });
  return (
    <span
      {...turns}
      data-value
      title={describePan(pan)}
      className="num grid cursor-ew-resize touch-none truncate rounded-card hover:bg-sunk"
    >
      {formatPan(pan.pan)}
      {pan.width !== WIDTH.default && (
        <span className="num-small leading-[13px] text-soft">{formatValue(WIDTH, pan.width).text} %</span>
      )}
    </span>
  );
}

/** So many sends are told one above the other; what more there are is counted. */
const LINES = 2;

function SendLine({ send, ...props }: CellProps & { readonly send: Send }) {
  const to = "strip" in send.to ? send.to.strip : "";
  const turns = useTurns(props, { of: "send", to, key: send.key }, { reach: REACH, column: "sends" });
  const where = around(props);
  return (
    <span
      {...turns}
      data-value
      title={`Send to ${describeSend(send, where)}`}
      className={cx(
        "flex cursor-ew-resize touch-none items-baseline gap-1 rounded-card text-small leading-[18px] hover:bg-sunk",
        !send.on && "text-faint line-through",
      )}
    >
      <span className="min-w-0 truncate">{nameOfTarget(send.to, where)}</span>
      {send.tap === "pre" && <span className="text-soft">pre</span>}
      <span className="num-small ml-auto">{formatLevel(send.level, FADER.min)}</span>
    </span>
  );
}

function SendsCell(props: CellProps) {
  const { sends } = props.strip;
  if (sends.length === 0) return <Nothing props={props} column="sends" label="No sends" />;
  const shown = sends.length <= LINES ? sends : sends.slice(0, LINES - 1);
  const more = sends.length - shown.length;
  return (
    <span className="grid min-w-0">
      {shown.map((send) => (
        <SendLine key={send.key} {...props} send={send} />
      ))}
      {more > 0 && (
        <Opens props={props} column="sends" className="text-small text-soft">
          and {more} more
        </Opens>
      )}
    </span>
  );
}

/** An empty cell that can be pressed all the same. */
function Nothing({ props, column, label }: { props: CellProps; column: ColumnId; label: string }) {
  return (
    <Opens
      props={props}
      column={column}
      className="size-6 text-center text-soft opacity-0 in-[[role=row]:hover]:opacity-100"
    >
      <span aria-hidden="true">+</span>
      <span className="sr-only">{label}</span>
    </Opens>
  );
}

/** The plugins of a strip that hear another strip. */
const keyed = (strip: Strip): readonly Processor[] =>
  processorsOf(strip.inserts).filter(({ keyInput }) => keyInput !== undefined && "strip" in keyInput);

function KeysCell(props: CellProps) {
  const { strip, names } = props;
  const plugins = keyed(strip);
  if (plugins.length === 0) return <Nothing props={props} column="keys" label="Keyed by none" />;
  const nameOf = ({ keyInput }: Processor): string =>
    keyInput && "strip" in keyInput ? nameOfTarget(keyInput.strip, { nameOf: (id) => names.get(id) ?? null }) : "";
  return (
    <Opens
      props={props}
      column="keys"
      className="text-small"
      title={plugins.map((plugin) => `${processorName(plugin)} hears ${nameOf(plugin)}`).join("; ")}
    >
      {[...new Set(plugins.map(nameOf))].join(", ")}
    </Opens>
  );
}

function RoutingCell(props: CellProps) {
  const { output } = props.strip.routing;
  const words = ROUTING.words(props.strip.routing, around(props));
  return (
    <Opens props={props} column="routing" className="text-small text-soft" title={words}>
      {output && "external" in output ? `${words} (not here)` : words}
    </Opens>
  );
}

/** What stands in each column. The inserts know how wide theirs is. */
export const CELLS: Readonly<Record<ColumnId, (props: CellProps & { readonly width: number }) => ReactNode>> = {
  look: LookCell,
  source: SourceCell,
  inserts: InsertsCell,
  sends: SendsCell,
  keys: KeysCell,
  level: LevelCell,
  pan: PanCell,
  routing: RoutingCell,
};
