import { type Model, USUAL } from "../../model";
import { type ParamSpec, SWITCH } from "../../../units/param-spec";

export const BANDS = [1, 2, 3, 4, 5, 6] as const;
export type BandNumber = (typeof BANDS)[number];

export const BAND_TYPES = ["bell", "low shelf", "high shelf", "low cut", "high cut", "notch", "band pass"] as const;
export type BandType = (typeof BAND_TYPES)[number];

export const CHANNEL_MODES = ["Both", "Mid", "Side"] as const;

/** Full, so that a band's seven parameters have one spelling. */
export const bandParam = (band: BandNumber, what: "used" | "on" | "type" | "freq" | "gain" | "q" | "slope") =>
  `band${band}.${what}`;

/** Where a new band starts, spread over the ear's range. */
const STARTS: Record<BandNumber, { type: BandType; freq: number }> = {
  1: { type: "low cut", freq: 40 },
  2: { type: "low shelf", freq: 120 },
  3: { type: "bell", freq: 400 },
  4: { type: "bell", freq: 1500 },
  5: { type: "bell", freq: 4000 },
  6: { type: "high shelf", freq: 9000 },
};

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** The three values that are turned. */
const turnedSpecs = (band: BandNumber, group: string): ParamSpec[] => [
  {
    id: bandParam(band, "freq"),
    name: `${group} frequency`,
    unit: "Hz",
    min: 20,
    max: 20_000,
    default: STARTS[band].freq,
    taper: "log",
    group,
    meaning: `band${band}.hz`,
  },
  {
    id: bandParam(band, "gain"),
    name: `${group} gain`,
    unit: "dB",
    min: -24,
    max: 24,
    default: 0,
    taper: "linear",
    step: 0.5,
    group,
    meaning: `band${band}.dB`,
  },
  {
    id: bandParam(band, "q"),
    name: `${group} Q`,
    unit: "Q",
    min: 0.1,
    max: 18,
    default: 0.71,
    taper: "log",
    group,
    meaning: `band${band}.q`,
  },
];

function bandSpecs(band: BandNumber): ParamSpec[] {
  const group = `Band ${band}`;
  const choice = { unit: "", min: 0, taper: "linear", group } as const;
  return [
    { ...choice, id: bandParam(band, "used"), name: group, max: 1, default: 0, choices: SWITCH },
    { ...choice, id: bandParam(band, "on"), name: `${group} on`, max: 1, default: 1, choices: SWITCH },
    {
      ...choice,
      id: bandParam(band, "type"),
      name: `${group} type`,
      max: BAND_TYPES.length - 1,
      default: BAND_TYPES.indexOf(STARTS[band].type),
      choices: BAND_TYPES.map((label, value) => ({ value, label: capital(label) })),
      meaning: `band${band}.type`,
    },
    ...turnedSpecs(band, group),
    {
      ...choice,
      id: bandParam(band, "slope"),
      name: `${group} slope`,
      unit: "dB/oct",
      min: 6,
      max: 48,
      default: 12,
      choices: [6, 12, 18, 24, 36, 48].map((value) => ({ value, label: `${value}` })),
    },
  ];
}

export const PARAMETRIC_EQ: Model = {
  ...USUAL,
  id: "parametric-eq",
  name: "Parametric EQ",
  maker: "Diathesis",
  family: "equaliser",
  params: [
    ...BANDS.flatMap(bandSpecs),
    {
      id: "output",
      name: "Output",
      unit: "dB",
      min: -24,
      max: 24,
      default: 0,
      taper: "linear",
      step: 0.5,
      meaning: "output.dB",
    },
    { id: "mix", name: "Mix", unit: "%", min: 0, max: 100, default: 100, taper: "linear", step: 1, meaning: "mix.pct" },
    {
      id: "channels",
      name: "Channels",
      unit: "",
      min: 0,
      max: 2,
      default: 0,
      taper: "linear",
      choices: CHANNEL_MODES.map((label, value) => ({ value, label })),
    },
  ],
  structural: ["channels"],
  lead: "output",
};
