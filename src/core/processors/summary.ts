import type { Processor } from "../chains/chain";
import { type Written, formatValue } from "../units/format";
import { type Model, getSpec } from "./model";
import { findModel } from "./models";
import type { ParamId } from "./param-spec";
import { BANDS, BAND_TYPES, type BandNumber, bandParam } from "./equaliser/parametric-eq/model";
import { TAPS, tapParam } from "./delay/multitap-delay/model";

/** A value worth telling, with the shortest word for it. */
export interface Telling {
  readonly label: string;
  readonly written: Written;
}

const tell = (processor: Processor, model: Model, label: string, id: ParamId): Telling => {
  const spec = getSpec(model, id);
  return { label, written: formatValue(spec, processor.values[id] ?? spec.default) };
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

const TELLINGS: Record<Model["family"], (processor: Processor, model: Model) => readonly Telling[]> = {
  equaliser: (processor, model) => BANDS.flatMap((band) => tellBand(processor, model, band)),
  dynamics: (processor, model) => [
    tell(processor, model, "thr", "threshold"),
    tell(processor, model, "ratio", "ratio"),
    tell(processor, model, "att", "attack"),
    tell(processor, model, "rel", "release"),
  ],
  delay: (processor, model) => [
    ...TAPS.filter((tap) => processor.values[tapParam(tap, "on")] === 1).map((tap) =>
      tell(processor, model, `tap ${tap}`, tapParam(tap, "time")),
    ),
    tell(processor, model, "wet", "wet"),
  ],
};

/** The values by which a person knows a setting again, in a few words. */
export function summaryOf(processor: Processor): readonly Telling[] {
  const model = findModel(processor.model);
  return model ? TELLINGS[model.family](processor, model) : [];
}
