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
import { useEffect, useRef, useState } from "react";
import { type Chain, nodeName } from "@/core/chains/chain";
import { type Place, findNode } from "@/core/chains/tree";
import { AddPlugin } from "./add-plugin";
import { type ChainView, placeOfGap } from "./chain-view";
import { NodeList } from "./node-view";

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
  const scroller = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (view.selected)
      scroller.current
        ?.querySelector(`[data-node="${CSS.escape(view.selected)}"]`)
        ?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [view.selected]);
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
      <div className="flex flex-none items-start">
        <div
          ref={scroller}
          role="group"
          aria-label="Chain"
          className="-ml-[14px] min-w-0 overflow-x-auto px-px pb-1"
          style={{ paddingTop: hasSections ? 20 : 1 }}
        >
          <NodeList nodes={chain.nodes} within={null} view={view} />
        </div>
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
