import type { NoteLength } from "../../units/note-length";
import type { HeardValues } from "../../units/param-spec";
import { type Returns, repeatsOf } from "./delay-design";
import { dryAndWet, effect, frequencySpec, percentSpec, switchSpec, timeSpec } from "../specs";

/** The longest echo, in ms, which sizes the lines. */
export const ECHO_LONGEST = 4000;

const time = <Id extends "left" | "right">(id: Id, name: string, start: NoteLength) =>
  timeSpec(id, name, [1, ECHO_LONGEST, start], { mayFollowTempo: true, group: "Time", meaning: `${id}.ms` });

/** Crossed over, the sides take turns: left, then right after both times, and so on. */
function returns({ left, right, cross, feedback }: HeardValues<"left" | "right" | "cross" | "feedback">): Returns {
  const factor = feedback / 100;
  const first = { ms: left, gain: 1, pan: -100 };
  if (cross !== 1) {
    const second = { ms: right, gain: 1, pan: 100 };
    return {
      taps: [first, second],
      repeats: [...repeatsOf(first, left, factor), ...repeatsOf(second, right, factor)],
      reach: Math.max(left, right),
    };
  }
  const reach = left + right;
  const taps = [first, { ms: reach, gain: factor, pan: 100 }];
  return { taps, repeats: taps.flatMap((tap) => repeatsOf(tap, reach, factor ** 2)), reach };
}

export const ECHO = effect("delay", "echo", "Echo", {
  widens: true,
  params: [
    time("left", "Left", { note: "1/4", feel: "straight" }),
    time("right", "Right", { note: "1/8", feel: "dotted" }),
    switchSpec("cross", "Cross over", 0, { group: "Time" }),
    percentSpec("feedback", "Feedback", [0, 95, 35], { meaning: "feedback.pct", group: "Repeats" }),
    frequencySpec("lowCut", "Low cut", [20, 1000, 120], { meaning: "lowcut.hz", group: "Repeats" }),
    frequencySpec("damping", "Damping", [500, 20_000, 5000], { meaning: "damping.hz", group: "Repeats" }),
    percentSpec("wow", "Wow", [0, 100, 10], { group: "Repeats" }),
    ...dryAndWet(0, -10),
  ],
  lead: "wet",
  design: { returns },
});
