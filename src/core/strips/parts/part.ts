import type { PresetRef, StripRef } from "../../chains/chain";
import type { StripKind } from "../../documents/strip-kinds";

/** What a part is told beside: its strip, and how other strips are called; null for one that is not here. */
export interface Surroundings {
  readonly kind: StripKind;
  readonly nameOf: (strip: string) => string | null;
}

/** What is asked where a reference leads to nothing here. */
export interface AimQuestion {
  /** Whether it is asked of each strip by itself, or once of all that lead to what is missing. */
  readonly of: "each" | "all";
  readonly text: (missing: string, strip: string) => string;
  readonly leave: string;
  /** Whether what is answered by leaving is kept by its name, rather than as `whenNone` says. */
  readonly keepsName?: boolean;
  /** Whether a strip can be made in place of a missing one of this kind. */
  readonly makes: (kind: StripKind) => boolean;
}

/** Other strips that a part names. */
export interface Aims<V> {
  /** Whether sound goes out to them by it, or comes in from them; null where none does: it is for the eye. */
  readonly way: "out" | "in" | null;
  readonly of: (value: V) => readonly StripRef[];
  /** Between the two names: "goes to", "is keyed by". */
  readonly leads: string;
  /** Where the reference of that number stands within the value, as ".output". */
  readonly at: (n: number) => string;
  /** The value with each reference replaced; where there is none for it, what led there is left out. */
  readonly mapped: (value: V, aim: (ref: StripRef) => StripRef | null) => V;
  /** Whether a strip of this kind can be led to, or heard, by it. */
  readonly takes: (kind: StripKind) => boolean;
  /** What becomes of the part where there is no strip for a reference: it stays as it was, or is taken without it. */
  readonly whenNone: "stays" | "leftOut";
  /** Null where nobody is asked. */
  readonly question: AimQuestion | null;
}

/**
 * A part of a strip: all that the rest needs to know of it, in one place. Whoever adds one writes such a record and enters
 * it in `parts/index.ts`; the compiler names what the interface has to show of it.
 */
export interface Part<V> {
  /** Over its column, and on its tick. */
  readonly title: string;
  /** Within a sentence: "the level". */
  readonly phrase: string;
  /** What a new strip has of it. */
  readonly empty: (kind: StripKind) => V;
  /** What it says, in a cell. */
  readonly words: (value: V, around: Surroundings) => string;
  /** How a change of it is told behind the strip's name: "level −6.0 → −3.0 dB". */
  readonly change: (from: V, to: V, around: Surroundings) => string;
  readonly aims: Aims<V> | null;
  /** Whether a saved strip holds something of it that can be applied. */
  readonly isHeld: (saved: V) => boolean;
  /** Whether a strip of a kind offers it to be saved. */
  readonly isOffered: (kind: StripKind) => boolean;
  /** Why a strip of another kind cannot take it, behind the strip's name; "" where nobody needs to hear it. Null where it can. */
  readonly misfit: (kind: StripKind) => string | null;
  /** Presets that something in it was loaded from. */
  readonly presets: (value: V) => readonly PresetRef[];
  /** Whether sound has to do with it; else folders have it too. */
  readonly isOfSound: boolean;
  /** Whether it says one value, which may be set on a newer revision of its project too. */
  readonly isOneValue: boolean;
  /** Every value that there can be is there. */
  readonly complete: (value: V) => V;
}

type Optional = "aims" | "isHeld" | "isOffered" | "misfit" | "presets" | "isOfSound" | "isOneValue" | "complete";

/** Why a folder takes none of what sounds, behind its name. */
const NO_SOUND = "is a folder and carries no sound";

/** A part of which nothing special is to be said but what is given. */
export function part<V>(given: Omit<Part<V>, Optional> & Partial<Pick<Part<V>, Optional>>): Part<V> {
  const whole: Part<V> = {
    aims: null,
    isHeld: () => true,
    isOffered: () => true,
    misfit: () => null,
    presets: () => [],
    isOfSound: true,
    isOneValue: false,
    complete: (value) => value,
    ...given,
  };
  const isNothingOf = (kind: StripKind) => kind === "folder" && whole.isOfSound;
  return {
    ...whole,
    isOffered: (kind) => !isNothingOf(kind) && whole.isOffered(kind),
    misfit: (kind) => (isNothingOf(kind) ? NO_SOUND : whole.misfit(kind)),
  };
}
