import type { Processor } from "../../chains/chain";
import type { PanLaw } from "../../dsp/pan";
import {
  type LaneSettings,
  findLane,
  findNode,
  findProcessor,
  laneSettings,
  panLawOf,
  withPanLaw,
} from "../../chains/tree";
import type { ParamId, Value } from "../../units/param-spec";
import type { Step } from "../steps";
import equal from "fast-deep-equal";
import { labelOf } from "../steps/set-label";
import { type Hand, base, chainOf } from "./hand";

/** Sets values of one processor; what is the same already makes no step. */
export function turn(hand: Hand, node: string, values: Readonly<Record<ParamId, Value>>): readonly Step[] {
  const processor = findProcessor(chainOf(hand), node);
  return Object.entries(values).flatMap(([param, to]): Step[] => {
    const from = processor?.values[param];
    return from === undefined || equal(from, to) ? [] : [{ ...base(hand), kind: "setValue", node, param, from, to }];
  });
}

/** Switches plugins, sections and lanes on or off, all at once. */
export const switchOn = (hand: Hand, keys: readonly string[], to: boolean): readonly Step[] =>
  keys.flatMap((node): Step[] => {
    const chain = chainOf(hand);
    const found = findNode(chain, node)?.node ?? findLane(chain, node);
    return found && "enabled" in found && found.enabled !== to
      ? [{ ...base(hand), kind: "setEnabled", node, from: found.enabled, to }]
      : [];
  });

/** null takes the name away, so that the model's shows. A section keeps its name. */
export function rename(hand: Hand, key: string, to: string | null): readonly Step[] {
  const node = findNode(chainOf(hand), key)?.node;
  const from = labelOf(node);
  if (from === undefined || from === to || (node?.type === "section" && to === null)) return [];
  return [{ ...base(hand), kind: "setLabel", node: key, from, to }];
}

export type LaneChange = Partial<Omit<LaneSettings, "panLaw">> & { readonly panLaw?: PanLaw };

/** A lane with some of its settings otherwise. */
export const withLane = <L extends LaneSettings>(lane: L, { panLaw = panLawOf(lane), ...settings }: LaneChange) =>
  withPanLaw({ ...lane, ...settings }, panLaw);

export function setLane(hand: Hand, key: string, change: LaneChange): readonly Step[] {
  const lane = findLane(chainOf(hand), key);
  if (!lane) return [];
  const from = laneSettings(lane);
  const to = withLane(from, change);
  return equal(from, to) ? [] : [{ ...base(hand), kind: "setLane", node: key, from, to }];
}

export function keyBy(hand: Hand, node: string, to: Processor["keyInput"] | null): readonly Step[] {
  const processor = findProcessor(chainOf(hand), node);
  const from = processor?.keyInput ?? null;
  const wanted = to ?? null;
  return !processor || equal(from, wanted) ? [] : [{ ...base(hand), kind: "setKeyInput", node, from, to: wanted }];
}
