import { heardValues } from "../processors/model";
import { findModel } from "../processors/models";
import type { BeatsPerMinute } from "../units/quantities";
import type { Chain, ChainNode, Lane } from "./chain";
import { type HeardChain, type HeardLane, type HeardNode, heardProcessor } from "./heard-chain";
import { LANE_LEVEL } from "./params";
import { findLane, keysIn, listsIn, panLawOf } from "./tree";

/** Another strip that keys a processor has no sound here: this material stands in for it. */
export const STAND_IN = "drum-with-cello";

export interface Hearing {
  /** The key of a lane that is heard alone among those beside it. */
  readonly solo?: string | null;
  /** The keys of nodes that are passed by, for the while. */
  readonly without?: readonly string[];
}

/**
 * A chain as it sounds at a tempo. A section that is switched off switches off all that it holds, so that its latency
 * stays. What cannot be heard is passed by.
 */
export function hearChain(
  chain: Chain,
  tempo: BeatsPerMinute,
  { solo = null, without = [] }: Hearing = {},
): HeardChain {
  const alone = solo !== null && findLane(chain, solo) ? solo : null;
  const holdsAlone = (lane: Lane): boolean =>
    lane.key === alone ||
    lane.nodes.some((node) => listsIn(node).some((list) => list.key === alone || keysIn(node).includes(alone ?? "")));
  const lane = (own: Lane, beside: readonly Lane[], isOn: boolean): HeardLane => ({
    key: own.key,
    enabled: own.enabled && (!beside.some(holdsAlone) || holdsAlone(own)),
    gain: own.level <= LANE_LEVEL.min ? 0 : 10 ** (own.level / 20),
    pan: own.pan,
    panLaw: panLawOf(own),
    nodes: own.nodes.flatMap((node) => hear(node, isOn)),
  });
  const hear = (node: ChainNode, isOn: boolean): readonly HeardNode[] => {
    const on = isOn && !without.includes(node.key);
    switch (node.type) {
      case "processor": {
        const model = findModel(node.model);
        if (!model?.hearable) return [];
        return [
          {
            ...heardProcessor(model, heardValues(model, node.values, tempo), {
              key: node.key,
              enabled: on && node.enabled,
            }),
            ...(node.keyInput ? { keyedBy: "material" in node.keyInput ? node.keyInput.material : STAND_IN } : {}),
          },
        ];
      }
      case "section":
        return node.nodes.flatMap((inner) => hear(inner, on && node.enabled));
      case "split":
        return [
          {
            key: node.key,
            enabled: on,
            crossovers: node.by.way === "bands" ? node.by.crossovers : null,
            lanes: node.lanes.map((own) => lane(own, node.lanes, on)),
          },
        ];
    }
  };
  return chain.nodes.flatMap((node) => hear(node, true));
}
