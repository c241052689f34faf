"use client";

import { DndContext, type DragEndEvent, PointerSensor, pointerWithin, useSensor, useSensors } from "@dnd-kit/core";
import { useEffect, useRef } from "react";
import type { Chain } from "@/core/chains/chain";
import type { Place } from "@/core/chains/tree";
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

/** The chain as its shapes, sections and lanes; tiles and groups are dragged from gap to gap. */
export function ChainStrip({ chain, view, onMove }: Props) {
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_BEGINS } }));
  const scroller = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (view.selected)
      scroller.current
        ?.querySelector(`[data-node="${CSS.escape(view.selected)}"]`)
        ?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [view.selected]);
  const drop = ({ active, over }: DragEndEvent) => {
    if (over) onMove(String(active.id), placeOfGap(String(over.id)));
  };
  const hasSections = chain.nodes.some((node) => node.type === "section");
  return (
    <DndContext
      id="chain"
      sensors={sensors}
      collisionDetection={pointerWithin}
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
        <div style={{ paddingTop: hasSections ? 20 : 1 }}>
          <AddPlugin onAdd={(model) => view.onAdd(model, { within: null, after: chain.nodes.at(-1)?.key ?? null })} />
        </div>
      </div>
    </DndContext>
  );
}
