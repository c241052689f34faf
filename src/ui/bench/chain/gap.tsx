"use client";

import { useDndContext, useDroppable } from "@dnd-kit/core";
import type { Place } from "@/core/chains/tree";
import { cx } from "../../kit/class-names";
import { gapId } from "./chain-view";

interface Props {
  readonly place: Place;
  /** From the upper edge to the middle of the tiles beside it, in pixels. */
  readonly middle: number;
  /** The last of its list takes the room that is left. */
  readonly last?: boolean;
}

/** The wire between two tiles; while one is dragged, a place to drop it. */
export function Gap({ place, middle, last = false }: Props) {
  const { active } = useDndContext();
  const { setNodeRef, isOver } = useDroppable({ id: gapId(place) });
  return (
    <span
      ref={setNodeRef}
      className={cx("relative block self-stretch", last ? "min-w-[22px] flex-1" : "min-w-[14px] flex-none")}
      style={{ minHeight: 2 * middle }}
    >
      <i className="absolute inset-x-0 h-px bg-edge" style={{ top: middle }} />
      {active && (
        <i
          className={cx(
            "absolute top-0 left-1/2 -translate-x-1/2 rounded-card border border-dashed",
            isOver ? "w-[10px] border-live bg-live-tint" : "w-[3px] border-edge",
          )}
          style={{ height: middle * 2 }}
        />
      )}
    </span>
  );
}
