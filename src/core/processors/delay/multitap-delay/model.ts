import { type Model, USUAL } from "../../model";
import { type ParamSpec, SWITCH } from "../../../units/param-spec";
import type { NoteLength } from "../../../units/note-length";

export const TAPS = [1, 2, 3, 4] as const;
export type TapNumber = (typeof TAPS)[number];

export const tapParam = (tap: TapNumber, what: "on" | "time" | "level" | "pan") => `tap${tap}.${what}`;

/** At and below this a level is silence. */
export const SILENCE = -60;

/** The longest tap, which sizes the line. */
export const LONGEST_MS = 4000;

const STARTS: Record<TapNumber, NoteLength> = {
  1: { note: "1/8", feel: "straight" },
  2: { note: "3/16", feel: "straight" },
  3: { note: "1/4", feel: "straight" },
  4: { note: "3/8", feel: "straight" },
};

function tapSpecs(tap: TapNumber): ParamSpec[] {
  const group = `Tap ${tap}`;
  return [
    {
      id: tapParam(tap, "on"),
      name: `${group} on`,
      unit: "",
      min: 0,
      max: 1,
      default: tap === 1 ? 1 : 0,
      taper: "linear",
      choices: SWITCH,
      group,
    },
    {
      id: tapParam(tap, "time"),
      name: `${group} time`,
      unit: "ms",
      min: 1,
      max: LONGEST_MS,
      default: STARTS[tap],
      taper: "log",
      mayFollowTempo: true,
      group,
      meaning: `time${tap}.ms`,
    },
    {
      id: tapParam(tap, "level"),
      name: `${group} level`,
      unit: "dB",
      min: SILENCE,
      max: 6,
      default: -3 * (tap - 1),
      taper: "linear",
      step: 0.5,
      silentAtMin: true,
      group,
    },
    {
      id: tapParam(tap, "pan"),
      name: `${group} pan`,
      unit: "pan",
      min: -100,
      max: 100,
      default: 0,
      taper: "linear",
      step: 1,
      group,
    },
  ];
}

export const MULTITAP_DELAY: Model = {
  ...USUAL,
  id: "multitap-delay",
  name: "Multi-tap delay",
  maker: "Diathesis",
  family: "delay",
  params: [
    ...TAPS.flatMap(tapSpecs),
    {
      id: "feedback",
      name: "Feedback",
      unit: "%",
      min: 0,
      max: 95,
      default: 20,
      taper: "linear",
      step: 1,
      meaning: "feedback.pct",
    },
    {
      id: "damping",
      name: "Damping",
      unit: "Hz",
      min: 200,
      max: 20_000,
      default: 6000,
      taper: "log",
      meaning: "damping.hz",
    },
    {
      id: "dry",
      name: "Dry",
      unit: "dB",
      min: SILENCE,
      max: 6,
      default: 0,
      taper: "linear",
      step: 0.5,
      silentAtMin: true,
      meaning: "dry.dB",
    },
    {
      id: "wet",
      name: "Wet",
      unit: "dB",
      min: SILENCE,
      max: 6,
      default: -12,
      taper: "linear",
      step: 0.5,
      silentAtMin: true,
      meaning: "wet.dB",
    },
  ],
  widens: true,
  lead: "wet",
};
