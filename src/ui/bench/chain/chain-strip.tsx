"use client";

import {
  type CollisionDetection,
  DndContext,
  type DragEndEvent,
  DragOverlay,
  PointerSensor,
  closestCenter,
  pointerWithin,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { type MouseEvent, useEffect, useState } from "react";
import { type Chain, nodeName } from "@/core/chains/chain";
import { type Place, findNode } from "@/core/chains/tree";
import { counted } from "@/core/names/count";
import { MenuOver } from "../../kit/menu";
import { AddPlugin } from "./add-plugin";
import { type ChainView, placeOfGap } from "./chain-view";
import { useChainMenu } from "./chain-menu";
import { NodeList } from "./node-view";
import { useRow } from "./use-row";

interface Props {
  readonly chain: Chain;
  readonly view: ChainView;
  readonly onMove: (key: string, place: Place) => void;
}

/** A press that moves less than this is a click. In pixels. */
const DRAG_BEGINS = 5;

/** A gap this near to what is dragged takes it, though the pointer is beside it. In pixels. */
const NEAR = 90;

/** The gap beneath the pointer, else the nearest one. */
const nearestGap: CollisionDetection = (args) => {
  const beneath = pointerWithin(args);
  return beneath.length > 0
    ? beneath
    : closestCenter(args).filter(({ data }) => ((data as { value?: number } | undefined)?.value ?? NEAR) < NEAR);
};

/** The chain as its shapes, sections and lanes; tiles and groups are dragged from gap to gap. */
export function ChainStrip({ chain, view, onMove }: Props) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_BEGINS } }));
  const [dragged, setDragged] = useState<string | null>(null);
  const { row, hidden, turn } = useRow(chain);
  const menu = useChainMenu();
  useEffect(() => {
    if (view.selected)
      row.current
        ?.querySelector(`[data-node="${CSS.escape(view.selected)}"]`)
        ?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [row, view.selected]);
  // What is asked for is meant for what the pointer is on.
  const choose = (event: MouseEvent) => {
    const key = (event.target as Element).closest("[data-tile]")?.querySelector("[data-node]") ?? event.target;
    const node = (key as Element).closest<HTMLElement>("[data-node]")?.dataset.node;
    if (node !== undefined && !view.chosen.has(node)) view.onSelect(node, "only");
  };
  const drop = ({ active, over }: DragEndEvent) => {
    setDragged(null);
    if (over) onMove(String(active.id), placeOfGap(String(over.id)));
  };
  const carried = dragged === null ? null : findNode(chain, dragged)?.node;
  const hasSections = chain.nodes.some((node) => node.type === "section");
  return (
    <DndContext
      id="chain"
      sensors={sensors}
      collisionDetection={nearestGap}
      onDragStart={({ active }) => setDragged(String(active.id))}
      onDragCancel={() => setDragged(null)}
      onDragEnd={drop}
      accessibility={{ screenReaderInstructions: { draggable: "Alt and the arrow keys move it." } }}
    >
      {/* Both ways keep their room while anything is out of sight: what is pressed does not move away under the pointer. */}
      <div className="-ml-[14px] flex flex-none items-start">
        {hidden && <Beyond count={hidden.before} way={-1} onTurn={turn} />}
        <MenuOver groups={menu}>
          <div
            ref={row}
            role="group"
            aria-label="Chain"
            onContextMenuCapture={choose}
            className="min-w-0 overflow-x-auto px-px pb-1"
            style={{ paddingTop: hasSections ? 20 : 1 }}
          >
            <NodeList nodes={chain.nodes} within={null} view={view} />
          </div>
        </MenuOver>
        {hidden && <Beyond count={hidden.after} way={1} onTurn={turn} />}
        <div className="flex-none" style={{ paddingTop: hasSections ? 20 : 1 }}>
          <AddPlugin onAdd={(model) => view.onAdd(model, { within: null, after: chain.nodes.at(-1)?.key ?? null })} />
        </div>
      </div>
      <DragOverlay dropAnimation={null}>
        {carried && (
          <span className="inline-block max-w-[160px] truncate rounded-card border border-live bg-card px-2 py-1 text-small">
            {nodeName(carried)}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  );
}

interface BeyondProps {
  readonly count: number;
  readonly way: 1 | -1;
  readonly onTurn: (way: 1 | -1) => void;
}

/** How many plugins are out of sight on one side, and the way there. */
function Beyond({ count, way, onTurn }: BeyondProps) {
  const side = way === 1 ? "after" : "before";
  const Icon = way === 1 ? ChevronRight : ChevronLeft;
  const words = `${counted(count, "more plugin", "more plugins")} ${side}`;
  return (
    <button
      type="button"
      disabled={count === 0}
      aria-label={words}
      title={words}
      onClick={() => onTurn(way)}
      className="mx-[2px] flex w-[22px] flex-none flex-col items-center self-stretch rounded-card pt-[14px] text-soft hover:not-disabled:bg-sunk hover:not-disabled:text-ink disabled:opacity-0"
    >
      <Icon size={16} aria-hidden="true" />
      <span className="num-small">{count}</span>
    </button>
  );
}
