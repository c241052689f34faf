import type { Processor } from "./chain";
import { type Written, formatValue } from "../units/format";
import { beatsPerMinute } from "../units/quantities";
import { designOf, findSpec, getSpec, heardValues, type Model } from "../processors/model";
import { findModel } from "../processors/models";
import { type ParamId, valueIn } from "../units/param-spec";
import { MULTITAP_DELAY } from "../processors/delay/multitap-delay/model";
import { TAPS, tapParam } from "../processors/delay/multitap-delay/taps";
import { PARAMETRIC_EQ } from "../processors/equaliser/parametric-eq/model";
import { BANDS, BAND_TYPES, type BandNumber, bandParam } from "../processors/equaliser/parametric-eq/bands";

/** A value worth telling, with the shortest word for it. */
export interface Telling {
  readonly label: string;
  readonly written: Written;
}

const tell = (processor: Processor, model: Model, label: string, id: ParamId): Telling => {
  const spec = getSpec(model, id);
  return { label, written: formatValue(spec, valueIn(processor.values, spec)) };
};

function tellBand(processor: Processor, model: Model, band: BandNumber): readonly Telling[] {
  const { values } = processor;
  if (values[bandParam(band, "used")] !== 1 || values[bandParam(band, "on")] !== 1) return [];
  const type = BAND_TYPES[Number(values[bandParam(band, "type")])] ?? "bell";
  if (type !== "bell" && type !== "low shelf" && type !== "high shelf")
    return [tell(processor, model, type === "low cut" || type === "high cut" ? "cut" : type, bandParam(band, "freq"))];
  const { text, unit } = tell(processor, model, "", bandParam(band, "freq")).written;
  return [tell(processor, model, `${text} ${unit}`, bandParam(band, "gain"))];
}

/** The bands of any other equaliser that do something: a gain that is set, a cut that is in the way. */
function tellCurve(processor: Processor, model: Model): readonly Telling[] {
  const values = heardValues(model, processor.values, ANY_TEMPO);
  return designOf(model, "equaliser")
    .bands(values, 48_000)
    .flatMap(({ key, name, on, gain, params }) => {
      if (params.gain === undefined) return on ? [tell(processor, model, name.toLowerCase(), params.freq ?? key)] : [];
      if (gain === 0) return [];
      const freq = params.freq === undefined ? null : tell(processor, model, "", params.freq).written;
      return [tell(processor, model, freq ? `${freq.text} ${freq.unit}` : name, params.gain)];
    });
}

/** An equaliser has no note lengths. */
const ANY_TEMPO = beatsPerMinute(120);

const tellEqualiser = (processor: Processor, model: Model): readonly Telling[] =>
  model === PARAMETRIC_EQ ? BANDS.flatMap((band) => tellBand(processor, model, band)) : tellCurve(processor, model);

type Words = readonly (readonly [label: string, id: ParamId])[];

/** Those of the values that the model has. */
const tellThese =
  (words: Words) =>
  (processor: Processor, model: Model): readonly Telling[] =>
    words.flatMap(([label, id]) => (findSpec(model, id) ? [tell(processor, model, label, id)] : []));

const tellTaps = (processor: Processor, model: Model): readonly Telling[] =>
  model === MULTITAP_DELAY
    ? TAPS.filter((tap) => processor.values[tapParam(tap, "on")] === 1).map((tap) =>
        tell(processor, model, `tap ${tap}`, tapParam(tap, "time")),
      )
    : tellThese([
        ["left", "left"],
        ["right", "right"],
        ["fb", "feedback"],
      ])(processor, model);

const TELLINGS: Record<Model["family"], (processor: Processor, model: Model) => readonly Telling[]> = {
  equaliser: tellEqualiser,
  dynamics: tellThese([
    ["thr", "threshold"],
    ["low", "low.threshold"],
    ["mid", "mid.threshold"],
    ["high", "high.threshold"],
    ["gain", "gain"],
    ["ceiling", "ceiling"],
    ["from", "freq"],
    ["ratio", "ratio"],
    ["range", "range"],
    ["att", "attack"],
    ["rel", "release"],
  ]),
  saturation: tellThese([
    ["drive", "drive"],
    ["speed", "speed"],
    ["tone", "tone"],
    ["cab", "cabinet"],
    ["mix", "mix"],
  ]),
  modulation: tellThese([
    ["rate", "rate"],
    ["depth", "depth"],
    ["centre", "centre"],
    ["wet", "wet"],
    ["mix", "mix"],
  ]),
  delay: (processor, model) => [...tellTaps(processor, model), tell(processor, model, "wet", "wet")],
  reverb: tellThese([
    ["decay", "decay"],
    ["pre", "predelay"],
    ["wet", "wet"],
  ]),
  utility: tellThese([
    ["gain", "gain"],
    ["polarity", "polarity"],
    ["width", "width"],
    ["mono below", "monoBelow"],
    ["A", "reference"],
    ["target", "target"],
  ]),
  instrument: tellThese([
    ["tone", "tone"],
    ["bar", "bar"],
    ["cutoff", "cutoff"],
    ["kick", "kickTune"],
    ["root", "root"],
    ["ring", "ring"],
    ["att", "attack"],
    ["rel", "release"],
  ]),
};

/** The values by which a person knows a setting again, in a few words. */
export function summaryOf(processor: Processor): readonly Telling[] {
  const model = findModel(processor.model);
  return model ? TELLINGS[model.family](processor, model) : [];
}
