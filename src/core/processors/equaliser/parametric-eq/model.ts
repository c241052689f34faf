import { SWITCH } from "../../../units/param-spec";
import { MIX, OUTPUT, choiceSpec, effect, frequencySpec, gainSpec, numbersSpec, qSpec, switchSpec } from "../../specs";
import { BANDS, BAND_TYPES, type BandNumber, type BandType, bandParam } from "./bands";
import { PARAMETRIC_EQ_DESIGN } from "./design";

export const CHANNEL_MODES = ["Both", "Mid", "Side"] as const;

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

const SLOPES = [6, 12, 18, 24, 36, 48].map((value) => ({ value, label: `${value}` }));

function bandSpecs<B extends BandNumber>(band: B) {
  const group = `Band ${band}`;
  const { type, freq } = STARTS[band];
  return [
    numbersSpec(bandParam(band, "used"), group, SWITCH, { start: 0, group }),
    switchSpec(bandParam(band, "on"), `${group} on`, 1, { group }),
    choiceSpec(bandParam(band, "type"), `${group} type`, BAND_TYPES.map(capital), {
      start: BAND_TYPES.indexOf(type),
      group,
      meaning: `band${band}.type`,
    }),
    frequencySpec(bandParam(band, "freq"), `${group} frequency`, [20, 20_000, freq], {
      group,
      meaning: `band${band}.hz`,
    }),
    gainSpec(bandParam(band, "gain"), `${group} gain`, [-24, 24, 0], { group, meaning: `band${band}.dB` }),
    qSpec(bandParam(band, "q"), `${group} Q`, [0.1, 18, 0.71], { group, meaning: `band${band}.q` }),
    { ...numbersSpec(bandParam(band, "slope"), `${group} slope`, SLOPES, { start: 12, group }), unit: "dB/oct" },
  ] as const;
}

export const PARAMETRIC_EQ = effect("equaliser", "parametric-eq", "Parametric EQ", {
  params: [...BANDS.flatMap(bandSpecs), OUTPUT, MIX, choiceSpec("channels", "Channels", CHANNEL_MODES)],
  structural: ["channels"],
  lead: "output",
  design: PARAMETRIC_EQ_DESIGN,
});
