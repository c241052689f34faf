"use client";

import { useDraggable } from "@dnd-kit/core";
import { Fragment } from "react";
import type { ChainNode, Lane, Section, Split } from "@/core/chains/chain";
import { LANE_LEVEL } from "@/core/chains/params";
import type { Nodes } from "@/core/chains/tree";
import { formatLevel, formatPan } from "@/core/units/format";
import { cx } from "../../kit/class-names";
import { AddPlugin } from "./add-plugin";
import type { ChainView } from "./chain-view";
import { Gap } from "./gap";
import { Tile } from "./tile";

interface ListProps {
  readonly nodes: Nodes;
  readonly within: string | null;
  readonly view: ChainView;
  readonly small?: boolean;
}

/** From the upper edge of a tile to its wire, in pixels. */
export const wireOf = (small: boolean): number => (small ? 17 : 25);

/** Nodes in a row, with a gap before, between and behind them. */
export function NodeList({ nodes, within, view, small = false }: ListProps) {
  const middle = wireOf(small);
  return (
    <div className={cx("flex min-w-0 items-start", within !== null && "w-full")}>
      <Gap place={{ within, after: null }} middle={middle} last={nodes.length === 0} />
      {nodes.map((node, at) => (
        <Fragment key={node.key}>
          <NodeView node={node} view={view} small={small} />
          <Gap place={{ within, after: node.key }} middle={middle} last={at === nodes.length - 1 && within !== null} />
        </Fragment>
      ))}
    </div>
  );
}

function NodeView({
  node,
  view,
  small,
}: {
  readonly node: ChainNode;
  readonly view: ChainView;
  readonly small: boolean;
}) {
  switch (node.type) {
    case "processor":
      return <Tile processor={node} view={view} small={small} />;
    case "section":
      return <SectionView section={node} view={view} />;
    case "split":
      return <SplitView split={node} view={view} />;
  }
}

interface HandleProps {
  readonly id: string;
  readonly label: string;
  readonly view: ChainView;
  readonly className?: string;
  readonly children: React.ReactNode;
}

/** The name of a group: a click opens it, dragging moves all of it. */
function GroupHandle({ id, label, view, className, children }: HandleProps) {
  const { listeners, setNodeRef } = useDraggable({ id });
  const { onKeyDown: _, ...pointer } = listeners ?? {};
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...pointer}
      data-node={id}
      aria-pressed={view.selected === id}
      aria-label={label}
      onClick={(event) => view.onSelect(id, event.ctrlKey || event.metaKey ? "also" : "only")}
      className={cx(
        "touch-none rounded-card text-small",
        view.selected === id ? "text-live" : view.chosen.has(id) ? "text-live" : "text-soft hover:text-ink",
        className,
      )}
    >
      {children}
    </button>
  );
}

/** A named stretch of the chain, held together by a bracket below its name. */
function SectionView({ section, view }: { readonly section: Section; readonly view: ChainView }) {
  const isOpen = view.selected === section.key;
  return (
    <section aria-label={`Section ${section.name}`} className="-mt-[19px] flex-none">
      <span className={cx("flex h-[16px] items-center border-b", isOpen ? "border-live" : "border-edge")}>
        <GroupHandle id={section.key} label={`Section ${section.name}`} view={view} className="px-1 leading-4">
          {section.name}
          {!section.enabled && <span className="text-soft"> · off</span>}
        </GroupHandle>
      </span>
      <div className={cx("mt-[3px]", !section.enabled && "opacity-55")}>
        <NodeList nodes={section.nodes} within={section.key} view={view} />
      </div>
    </section>
  );
}

/** Lanes one above the other between two uprights. */
function SplitView({ split, view }: { readonly split: Split; readonly view: ChainView }) {
  const isBands = split.by.way === "bands";
  return (
    <div role="group" aria-label={isBands ? "Bands" : "Lanes"} className="flex flex-none items-stretch">
      <GroupHandle
        id={split.key}
        label={isBands ? "Bands: open and set" : "Lanes: open and blend"}
        view={view}
        className={cx(
          "my-[16px] w-[10px] rounded-none border-y border-l",
          view.selected === split.key ? "border-live" : "border-edge hover:border-ink",
        )}
      >
        <span className="sr-only">Lanes</span>
      </GroupHandle>
      <div className="grid gap-y-1">
        {split.lanes.map((lane) => (
          <LaneView key={lane.key} lane={lane} view={view} />
        ))}
      </div>
      <i className="my-[16px] w-[8px] border-edge border-y border-r" />
    </div>
  );
}

function LaneView({ lane, view }: { readonly lane: Lane; readonly view: ChainView }) {
  const level = lane.enabled ? formatLevel(lane.level, LANE_LEVEL.min) : "off";
  return (
    <div className="flex items-start gap-1">
      <span className="grid w-[88px] flex-none gap-px pt-[1px] pl-[6px]">
        <span className="truncate text-small" title={lane.name}>
          {lane.name}
        </span>
        <span className="flex items-center gap-[5px]">
          <button
            type="button"
            aria-pressed={view.solo === lane.key}
            aria-label={`Hear lane ${lane.name} alone`}
            title="Hear this lane alone"
            onClick={() => view.onSolo(view.solo === lane.key ? null : lane.key)}
            className="num-small size-[16px] rounded-card border border-edge text-center leading-[14px] text-soft hover:text-ink aria-pressed:border-live aria-pressed:bg-live-tint aria-pressed:text-live"
          >
            S
          </button>
          <span className="num-small text-[11px] text-soft">
            {level}
            {lane.pan !== 0 && ` ${formatPan(lane.pan).replace(" ", "")}`}
          </span>
        </span>
      </span>
      <div className={cx("min-h-[34px] min-w-[40px] flex-1", !lane.enabled && "opacity-55")}>
        <NodeList nodes={lane.nodes} within={lane.key} view={view} small />
      </div>
      <AddPlugin
        small
        label={`Add a plugin to lane ${lane.name}`}
        onAdd={(model) => view.onAdd(model, { within: lane.key, after: lane.nodes.at(-1)?.key ?? null })}
      />
    </div>
  );
}
