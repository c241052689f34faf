import type { PresetRef } from "../chains/chain";
import type { StripKind } from "../documents/strip-kinds";
import type { Content, KeyedStrip } from "../presets/preset";
import type { Project } from "../projects/project";
import type { PartName } from "../strips/parts";
import type { InsertMode, Slot } from "./plan-inserts";
import type { LayerTake } from "./plan-layers";
import type { SendMode } from "./plan-sends";
import type { Step } from "./steps";

/* What a plan is made from, and what it says. */

export interface RecallSource {
  readonly content: Content;
  /** The preset and version that it is; null for a document in hand. */
  readonly from: PresetRef | null;
  readonly name: string;
  /** The tempo where it comes from, in beats per minute, where that is known. */
  readonly tempo?: number | undefined;
  /** Buses to which it leads there by their names, as they are there, where that is known. */
  readonly around?: readonly KeyedStrip[] | undefined;
  /** Strips of the project itself, as they are or were: each goes to the strip of its own id, where that is there. */
  readonly isOfSame?: boolean | undefined;
}

/** Where the strips of a set go. */
export interface SetTargets {
  /** Each to the strip here that is most like it, or all to new ones. */
  readonly onto: "matched" | "new";
  /** Only to some of those here; to any where null. */
  readonly among: readonly string[] | null;
  /** Behind which strip new ones come to stand; null for the first place. */
  readonly after: string | null;
}

export type RecallTargets =
  | { readonly strips: readonly string[] }
  | { readonly slot: Slot & { readonly strip: string } }
  | { readonly newStrip: { readonly after: string | null } }
  | { readonly set: SetTargets };

export interface RecallRequest {
  readonly source: RecallSource;
  /** Those that are asked for; what the source does not hold is passed by. */
  readonly parts: readonly PartName[];
  readonly targets: RecallTargets;
  readonly mode: InsertMode;
  /** "whole" where it is not said. */
  readonly layers?: LayerTake | undefined;
  /** "replace" where it is not said. */
  readonly sends?: SendMode | undefined;
}

/** Switched off: a cell, a whole row (no part) or a whole column (no strip); of sends also a single one, by its key in the plan. */
export interface Exception {
  readonly strip?: string | undefined;
  readonly part?: PartName | undefined;
  readonly send?: string | undefined;
}

/** What a plan cannot decide alone. `answer` is in force until another is given. */
export interface Question {
  readonly id: string;
  readonly strip: string;
  readonly text: string;
  readonly choices: readonly { readonly id: string; readonly text: string }[];
  readonly answer: string;
}

/** Something that stays as it is, or is left out, and why. */
export interface PlanNote {
  readonly strip: string;
  readonly text: string;
}

export interface PlanRow {
  readonly strip: string;
  /** What it is called where it is switched off, as a whole or in parts; the same in every plan of the same request. */
  readonly key: string;
  readonly isNew: boolean;
  /** What the source holds for this strip, and whether it is switched on. */
  readonly parts: readonly PlannedPart[];
}

export interface PlannedPart {
  readonly part: PartName;
  readonly on: boolean;
  readonly steps: readonly string[];
  /** Of sends: each that would come or go, by the bus that it goes to. */
  readonly sends?: readonly PlannedSend[] | undefined;
}

export interface PlannedSend {
  readonly key: string;
  readonly name: string;
  readonly on: boolean;
}

/** Which strip here one of a set goes to, and why. */
export interface PlannedMatch {
  /** What an answer to it is called. */
  readonly id: string;
  /** The strip of the set, how it is called there, and what it is. */
  readonly saved: string;
  readonly name: string;
  readonly kind: StripKind;
  /** "strip:" and the id of one here, "new" or "out". */
  readonly answer: string;
  /** The strip that it goes to, also where that is new; null where it is left out. */
  readonly strip: string | null;
  readonly reason: string;
  /** 0 to 1. */
  readonly confidence: number;
}

export interface Plan {
  readonly project: string;
  readonly steps: readonly Step[];
  readonly rows: readonly PlanRow[];
  /** Of sets and mixes: which of their strips goes where. */
  readonly matches: readonly PlannedMatch[];
  readonly questions: readonly Question[];
  readonly notes: readonly PlanNote[];
}

export interface PlanInput {
  readonly project: Project;
  readonly requests: readonly RecallRequest[];
  readonly except: readonly Exception[];
  /** Question id → choice id. */
  readonly answers: Readonly<Record<string, string>>;
  /** Makes a new id each time; ids of new strips and keys of copied plugins come from here. */
  readonly mint: () => string;
}
