import type { Lane } from "./chain";
import { panLawOf } from "./tree";
import type { ParamSpec } from "../units/param-spec";
import { gainSpec, panSpec } from "../processors/specs";

/** The blend of a lane; at its least it is silent. */
export const LANE_LEVEL: ParamSpec = gainSpec("level", "Level", [-90, 12, 0], { silentAtMin: true });
export const LANE_PAN: ParamSpec = panSpec("pan", "Pan", [-100, 100, 0]);
export const LANE_BALANCE: ParamSpec = { ...LANE_PAN, name: "Balance" };

export const panSpecOf = (lane: Pick<Lane, "panLaw">): ParamSpec =>
  panLawOf(lane) === "pan" ? LANE_PAN : LANE_BALANCE;
