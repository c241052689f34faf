import { heardValues } from "../processors/model";
import { findModel } from "../processors/models";
import type { Strip } from "./strip";
import type { BeatsPerMinute } from "../units/quantities";
import { hearChain } from "../chains/hear";
import type { HeardInstrument, HeardLayer } from "../chains/heard-instrument";
import { phraseFor } from "../chains/phrases";

/** The instrument of a strip with the phrase that suits it; null where its source is none, or has no layer. */
export function hearInstrument(source: Strip["source"], tempo: BeatsPerMinute): HeardInstrument | null {
  if (source.type !== "layers") return null;
  const layers = source.layers.flatMap(({ key, instrument, keys, velocities, effects }): HeardLayer[] => {
    const model = findModel(instrument.model);
    if (!model?.hearable || model.family !== "instrument") return [];
    return [
      {
        key,
        model: model.id,
        enabled: instrument.enabled,
        values: heardValues(model, instrument.values, tempo),
        sample: instrument.state?.hash ?? null,
        keys,
        velocities,
        effects: hearChain(effects, tempo),
      },
    ];
  });
  return layers.length === 0 ? null : { layers, output: null, phrase: phraseFor(layers[0]!.model, tempo) };
}
