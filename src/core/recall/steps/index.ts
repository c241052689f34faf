import type { z } from "zod";
import { MOVE_NODE } from "./move-node";
import { PLACE_NODE } from "./place-node";
import { PLACE_SEND } from "./place-send";
import { PLACE_STRIP } from "./place-strip";
import { SET_CHAIN } from "./set-chain";
import { SET_DETAIL, type SetDetail } from "./set-detail";
import { SET_ENABLED } from "./set-enabled";
import { SET_FROM } from "./set-from";
import { SET_KEY_INPUT } from "./set-key-input";
import { SET_LABEL } from "./set-label";
import { SET_LANE } from "./set-lane";
import { SET_MACROS } from "./set-macros";
import { SET_MIX } from "./set-mix";
import { SET_NODE } from "./set-node";
import { SET_PART, type SetPart } from "./set-part";
import { SET_RELIEF } from "./set-relief";
import { SET_SEND } from "./set-send";
import { SET_VALUE } from "./set-value";
import { VIEW_STEP } from "./set-view";
import type { AnyStepSchema } from "./schemas";
import type { Cell, StepKind } from "./step-kind";

type AnyStep = Readonly<z.infer<typeof AnyStepSchema>>;

/** A change that carries both sides: what stands there, and what will. Where it changes something follows from its kind. */
export type Step = Exclude<AnyStep, { kind: "setPart" | "setDetail" }> | SetPart | SetDetail;
export type StepOf<K extends Step["kind"]> = Extract<Step, { kind: K }>;

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
  placeSend: PLACE_SEND,
  setSend: SET_SEND,
  placeStrip: PLACE_STRIP,
  setDetail: SET_DETAIL,
  setMix: SET_MIX,
  setRelief: SET_RELIEF,
  setView: VIEW_STEP,
};

export const cellOf = (step: Step): Cell => kindOf(step).cell(step);

/** What is known of the kind of a step, for that step. */
export const kindOf = (step: Step): StepKind<Step> => KINDS[step.kind] as unknown as StepKind<Step>;
