import type { Lane, Split } from "../../chains/chain";
import { type Result, fail, ok } from "../../result";
import type { Step } from "../steps";
import type { Hand } from "./hand";
import { replaceSplit } from "./groups";
import { replaceNode } from "./wiring";

/** Bands that a sound can be parted into. */
const FEWEST_BANDS = 2;
const MOST_BANDS = 6;

/** In Hz: crossovers stand at least this far apart, and within what is heard. */
const APART = 1;
const LOWEST = 20;
const HIGHEST = 20_000;

/** In Hz: where the first band ends and the last begins when bands are made anew. */
const OUTER_BANDS = [60, 12_000] as const;

/** Crossovers in Hz for bands that are as wide as each other, by ear. */
export function evenCrossovers(bands: number): number[] {
  const [low, high] = OUTER_BANDS;
  return Array.from({ length: bands - 1 }, (_, n) => Math.round(low * (high / low) ** ((n + 1) / bands)));
}

type LaneResult = Result<readonly Step[], string>;

/** The whole sound in each lane, or a band of it in each: then the crossovers are spread evenly. */
export function splitBy(hand: Hand, split: Split, way: Split["by"]["way"]): LaneResult {
  if (way === split.by.way) return ok([]);
  if (way === "copy") return ok(replaceNode(hand, { ...split, by: { way } }));
  const bands = split.lanes.length;
  if (bands > MOST_BANDS || bands < FEWEST_BANDS) return fail("Bands go from two to six; add or remove lanes first.");
  return ok(replaceNode(hand, { ...split, by: { way, crossovers: evenCrossovers(bands) } }));
}

/** A split with one crossover moved to a frequency in Hz, as far as its neighbours let it. */
export function withCrossover(split: Split, at: number, hz: number): Split {
  const { by } = split;
  if (by.way !== "bands") return split;
  const low = Math.max(LOWEST, (by.crossovers[at - 1] ?? 0) + APART);
  const high = Math.min(HIGHEST, (by.crossovers[at + 1] ?? Number.POSITIVE_INFINITY) - APART);
  const crossovers = by.crossovers.map((c, n) => (n === at ? Math.min(high, Math.max(low, hz)) : c));
  return { ...split, by: { way: "bands", crossovers } };
}

export const setCrossover = (hand: Hand, split: Split, at: number, hz: number): readonly Step[] =>
  replaceNode(hand, withCrossover(split, at, hz));

/** A lane more, behind the others; bands are spread evenly anew. */
export function addLane(hand: Hand, split: Split): LaneResult {
  const count = split.lanes.length + 1;
  const inBands = split.by.way === "bands";
  if (inBands && count > MOST_BANDS) return fail("Six bands are the most.");
  const name = `${inBands ? "Band" : "Lane"} ${count}`;
  const lane: Lane = { key: hand.mint(), name, enabled: true, level: 0, pan: 0, panLaw: "pan", nodes: [] };
  const by: Split["by"] = inBands ? { way: "bands", crossovers: evenCrossovers(count) } : split.by;
  return ok(replaceNode(hand, { ...split, lanes: [...split.lanes, lane], by }));
}

/** A lane less, with all in it; of bands the one below takes its place, and one band alone is the whole sound. The last stays. */
export function removeLane(hand: Hand, split: Split, key: string): readonly Step[] {
  const at = split.lanes.findIndex((lane) => lane.key === key);
  const lanes = split.lanes.filter((lane) => lane.key !== key);
  if (at < 0 || lanes.length === 0) return [];
  const { by } = split;
  const staysInBands = by.way === "bands" && lanes.length >= FEWEST_BANDS;
  return replaceSplit(hand, {
    ...split,
    lanes,
    by: staysInBands
      ? { way: "bands", crossovers: by.crossovers.filter((_, n) => n !== Math.max(0, at - 1)) }
      : { way: "copy" },
  });
}
