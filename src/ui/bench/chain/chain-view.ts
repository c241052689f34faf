import type { Place } from "@/core/chains/tree";
import type { Value } from "@/core/units/param-spec";
import type { LightRef } from "./lights";

/** What every part of the drawn chain needs to know and to call. */
export interface ChainView {
  readonly tempo: number;
  /** The node whose editor is open. */
  readonly selected: string | null;
  /** Nodes that the next action is for, the selected one among them. */
  readonly chosen: ReadonlySet<string>;
  /** How many values of a plugin are not as they were saved; 0 for a plugin that is new. */
  readonly changed: ReadonlyMap<string, number>;
  readonly solo: string | null;
  readonly light: LightRef;
  readonly onSelect: (key: string, how: "only" | "also" | "upTo") => void;
  readonly onPreviewLead: (key: string, value: Value) => void;
  readonly onLead: (key: string, value: Value) => void;
  readonly onSolo: (lane: string | null) => void;
  readonly onAdd: (model: string, place: Place) => void;
}

/** The id of a gap between nodes, which something can be dropped into. */
export const gapId = ({ within, after }: Place): string => `${within ?? ""}>${after ?? ""}`;

export function placeOfGap(id: string): Place {
  const [within = "", after = ""] = id.split(">");
  return { within: within === "" ? null : within, after: after === "" ? null : after };
}
