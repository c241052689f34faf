import equal from "fast-deep-equal";
import type { z } from "zod";
import { LANE_LEVEL } from "../../chains/params";
import { findLane, laneSettings, mapLane, panLawOf } from "../../chains/tree";
import { fail, ok } from "../../result";
import { formatLevel, formatPan } from "../../units/format";
import { chainStepKind } from "./chain-step";
import type { SetLaneSchema } from "./schemas";

type SetLane = Readonly<z.infer<typeof SetLaneSchema>>;

/** The name, the switch, the level and the pan of a lane. */
export const SET_LANE = chainStepKind<SetLane>({
  apply: (chain, { node: key, from, to }) => {
    const lane = findLane(chain, key);
    if (!lane) return fail({ why: "missing", what: "lane", key });
    if (!equal(laneSettings(lane), from)) return fail({ why: "changed", what: "the lane" });
    return ok(mapLane(chain, key, ({ nodes }) => ({ key, ...to, nodes })));
  },
  words: ({ from, to }) => {
    if (from.name !== to.name) return `lane ${from.name} is now called ${to.name}`;
    if (from.enabled !== to.enabled) return `switch lane ${to.name} ${to.enabled ? "on" : "off"}`;
    if (from.panLaw !== to.panLaw) return `lane ${to.name} is moved by a ${panLawOf(to)}`;
    return `lane ${to.name}, ${formatLevel(to.level, LANE_LEVEL.min)} dB, ${formatPan(to.pan)}`;
  },
});
