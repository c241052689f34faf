import type { NoteLength } from "../../units/note-length";
import { dryAndWet, effect, frequencySpec, percentSpec, switchSpec, timeSpec } from "../specs";

/** The longest echo, in ms, which sizes the lines. */
export const ECHO_LONGEST = 4000;

const time = (id: string, name: string, start: NoteLength) =>
  timeSpec(id, name, [1, ECHO_LONGEST, start], { mayFollowTempo: true, group: "Time", meaning: `${id}.ms` });

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
});
