import { z } from "zod";
import { MOVE_NODE, MoveNodeSchema } from "./move-node";
import { PLACE_NODE, PlaceNodeSchema } from "./place-node";
import { PLACE_STRIP, PlaceStripSchema } from "./place-strip";
import { SET_CHAIN, SetChainSchema } from "./set-chain";
import { SET_ENABLED, SetEnabledSchema } from "./set-enabled";
import { SET_FROM, SetFromSchema } from "./set-from";
import { SET_KEY_INPUT, SetKeyInputSchema } from "./set-key-input";
import { SET_LABEL, SetLabelSchema } from "./set-label";
import { SET_LANE, SetLaneSchema } from "./set-lane";
import { SET_MACROS, SetMacrosSchema } from "./set-macros";
import { SET_NODE, SetNodeSchema } from "./set-node";
import { SET_PART, type SetPart, SetPartSchema } from "./set-part";
import { SET_TEMPO, SetTempoSchema } from "./set-tempo";
import { SET_VALUE, SetValueSchema } from "./set-value";
import type { Cell, StepKind } from "./step-kind";

const AnyStepSchema = z.discriminatedUnion("kind", [
  SetValueSchema,
  SetEnabledSchema,
  SetLabelSchema,
  PlaceNodeSchema,
  MoveNodeSchema,
  SetNodeSchema,
  SetLaneSchema,
  SetKeyInputSchema,
  SetMacrosSchema,
  SetFromSchema,
  SetChainSchema,
  SetPartSchema,
  PlaceStripSchema,
  SetTempoSchema,
]);
type AnyStep = Readonly<z.infer<typeof AnyStepSchema>>;

/** A change that carries both sides: what stands there, and what will. Where it changes something follows from its kind. */
export type Step = Exclude<AnyStep, { kind: "setPart" }> | SetPart;
export type StepOf<K extends Step["kind"]> = Extract<Step, { kind: K }>;

export const StepSchema = AnyStepSchema as unknown as z.ZodType<Step>;

/** What is known of each kind of step; the compiler names one that is missing. */
const KINDS: { readonly [K in Step["kind"]]: StepKind<StepOf<K>> } = {
  setValue: SET_VALUE,
  setEnabled: SET_ENABLED,
  setLabel: SET_LABEL,
  placeNode: PLACE_NODE,
  moveNode: MOVE_NODE,
  setNode: SET_NODE,
  setLane: SET_LANE,
  setKeyInput: SET_KEY_INPUT,
  setMacros: SET_MACROS,
  setFrom: SET_FROM,
  setChain: SET_CHAIN,
  setPart: SET_PART,
  placeStrip: PLACE_STRIP,
  setTempo: SET_TEMPO,
};

export const cellOf = (step: Step): Cell => kindOf(step).cell(step);

/** What is known of the kind of a step, for that step. */
export const kindOf = (step: Step): StepKind<Step> => KINDS[step.kind] as unknown as StepKind<Step>;
