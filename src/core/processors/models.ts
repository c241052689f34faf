import type { Model } from "./model";
import { MULTITAP_DELAY } from "./delay/multitap-delay/model";
import { PARAMETRIC_EQ } from "./equaliser/parametric-eq/model";
import { VCA_COMPRESSOR } from "./dynamics/vca-compressor/model";

/** Every model that Diathesis knows, in the order in which lists show them. */
export const MODELS: readonly Model[] = [PARAMETRIC_EQ, VCA_COMPRESSOR, MULTITAP_DELAY];

const BY_ID = new Map(MODELS.map((model) => [model.id, model]));

export const findModel = (id: string): Model | null => BY_ID.get(id) ?? null;

export function getModel(id: string): Model {
  const model = findModel(id);
  if (!model) throw new Error(`No model is called ${id}`);
  return model;
}
