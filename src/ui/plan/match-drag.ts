"use client";

import type { DragEvent } from "react";
import { create } from "zustand";
import { mayGoOnto } from "@/core/recall/match/alike";
import { putOnto } from "@/core/recall/match/exchange";
import { answerFor } from "@/core/recall/plan-places";
import type { PlannedMatch } from "@/core/recall/plan-shape";
import type { Strip } from "@/core/strips/strip";

const KIND = "application/x-diathesis-match";

/** The strip of a set that is on its way by the hand, and the strip here over which it is. */
const useDrag = create<{ readonly match: PlannedMatch | null; readonly over: string | null }>(() => ({
  match: null,
  over: null,
}));

export type Put = (answers: Readonly<Record<string, string>>) => void;

interface Dropping {
  readonly matches: readonly PlannedMatch[];
  readonly onPut: Put;
}

/** What makes a strip of a set be dragged. */
export const dragOf = (match: PlannedMatch) => ({
  draggable: true,
  onDragStart: ({ dataTransfer }: DragEvent) => {
    dataTransfer.setData(KIND, match.id);
    dataTransfer.effectAllowed = "move";
    useDrag.setState({ match, over: null });
  },
  onDragEnd: () => useDrag.setState({ match: null, over: null }),
});

/** What a place takes that stands for a strip here; `isOver`: it would be taken there. */
export function useMatchDrop({ matches, onPut }: Dropping) {
  const { match, over } = useDrag();
  return (strip: Strip | null) => {
    const takes = strip && match && match.answer !== answerFor(strip.id) && mayGoOnto(match, strip);
    if (!takes) return { isOver: false, handlers: {} };
    return {
      isOver: over === strip.id,
      handlers: {
        onDragOver: (event: DragEvent) => {
          event.preventDefault();
          if (over !== strip.id) useDrag.setState({ over: strip.id });
        },
        onDragLeave: () => useDrag.setState({ over: null }),
        onDrop: (event: DragEvent) => {
          event.preventDefault();
          useDrag.setState({ match: null, over: null });
          onPut(putOnto(matches, match.id, strip.id));
        },
      },
    };
  };
}
