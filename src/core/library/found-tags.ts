import type { Processor } from "../chains/chain";
import { processorsOf } from "../chains/tree";
import { type Content, chainOf } from "../presets/preset";
import { levelCurve } from "../processors/equaliser/eq-design";
import { designOf, heardAt, type Family, findSpec, heardValues, type Model } from "../processors/model";
import type { HeardValues } from "../units/param-spec";
import { findModel } from "../processors/models";
import { harmonicsOf } from "../processors/saturation/shaper";
import { isNoteLength } from "../units/note-length";
import { beatsPerMinute, decibels, gainOf } from "../units/quantities";

/** The words that can be found, and what each says was measured. */
export const FOUND_TAGS = {
  bright: "5 to 12 kHz at least 2 dB above the middle",
  dark: "5 to 12 kHz at least 3 dB below the middle",
  warm: "80 to 250 Hz at least 1 dB above the middle, and no brighter than it",
  thin: "80 to 250 Hz at least 5 dB below the middle",
  gentle: "a level of −10 dB is turned down by 1 to 4 dB",
  squeezed: "a level of −10 dB is turned down by 10 dB or more",
  driven: "a sine at −12 dB gets a third harmonic of −34 dB or more",
  "long tail": "a decay of 2.5 s or more that is heard",
  "short room": "a decay of up to 0.6 s that is heard",
  "wet only": "nothing dry comes out",
  wide: "sides raised above the middle",
  "tempo-locked": "a time that follows the tempo",
} as const;

export type FoundTag = keyof typeof FOUND_TAGS;

/** A tempo to hear note lengths at; nothing that is measured depends on it. */
const ANY_TEMPO = beatsPerMinute(120);
const RATE = 48_000;
const LOW = [80, 110, 160, 250];
const MIDDLE = [500, 800, 1200, 1900];
const HIGH = [5000, 7000, 9500, 12_000];
/** A loud note of material at −18 dB, in dB. */
const LOUD = -10;
/** Where a curve is asked for its harmonics: a steady tone of material at −18 dB, in dB. */
const STEADY = decibels(-12);

interface Measured {
  readonly processor: Processor;
  readonly model: Model;
  readonly values: HeardValues;
}

const mean = (list: readonly number[]): number => list.reduce((sum, x) => sum + x, 0) / list.length;

function balanceTags(equalisers: readonly Measured[]): readonly FoundTag[] {
  const curves = equalisers.map(({ model, values }) => levelCurve(designOf(model, "equaliser"), values, RATE));
  const level = (at: readonly number[]): number =>
    mean(at.map((hz) => curves.reduce((sum, curve) => sum + curve(hz), 0)));
  const [low, high] = [level(LOW) - level(MIDDLE), level(HIGH) - level(MIDDLE)];
  const tags: FoundTag[] = [];
  if (high >= 2) tags.push("bright");
  if (high <= -3) tags.push("dark");
  if (low >= 1 && high <= 0) tags.push("warm");
  if (low <= -5) tags.push("thin");
  return tags;
}

/** By how many dB a loud note is turned down; of several bands the mean. */
function reductionOf({ model, values }: Measured): number {
  const lines = designOf(model, "dynamics").lines(values);
  const share = (values.mix ?? 100) / 100;
  const reduced = mean(lines.map((line) => LOUD - line.at(LOUD)));
  return reduced <= 0 ? 0 : -20 * Math.log10(1 - share + share * gainOf(decibels(-reduced)));
}

function dynamicsTags(dynamics: readonly Measured[]): readonly FoundTag[] {
  const reduced = dynamics.filter((m) => m.model.holdsLevels).reduce((sum, m) => sum + reductionOf(m), 0);
  if (reduced >= 10) return ["squeezed"];
  return reduced >= 1 && reduced <= 4 ? ["gentle"] : [];
}

function isDriven({ model, values }: Measured): boolean {
  const [, , third = -120] = harmonicsOf(designOf(model, "saturation").shape(values), gainOf(STEADY), 3);
  return third + 20 * Math.log10(Math.max(1e-6, (values.mix ?? 100) / 100)) >= -34;
}

const isSilent = ({ model, values }: Measured, id: string): boolean => {
  const spec = findSpec(model, id);
  return spec?.silentAtMin === true && values[id] === spec.min;
};

/** The longest decay that is heard, in seconds; null where nothing rings. */
function longestOf(reverbs: readonly Measured[]): number | null {
  const decays = reverbs.filter((m) => !isSilent(m, "wet")).map(({ values }) => heardAt(values, "decay"));
  return decays.length === 0 ? null : Math.max(...decays);
}

function tailTags(reverbs: readonly Measured[]): readonly FoundTag[] {
  const longest = longestOf(reverbs);
  if (longest === null) return [];
  return longest >= 2.5 ? ["long tail"] : longest <= 0.6 ? ["short room"] : [];
}

const followsTempo = ({ model, processor: { values } }: Measured): boolean =>
  Object.entries(values).some(([id, value]) => isNoteLength(value) && !isOfSilentTap(model, values, id));

/** A time of a tap that is switched off is heard by nobody. */
const isOfSilentTap = (model: Model, values: Processor["values"], id: string): boolean => {
  const tap = id.endsWith(".time") ? id.replace(/\.time$/, ".on") : null;
  return tap !== null && findSpec(model, tap) !== null && values[tap] !== 1;
};

/** Plugins that are on and known here. */
const heardIn = (content: Content): readonly Measured[] =>
  processorsOf(chainOf(content)).flatMap((processor): readonly Measured[] => {
    const model = processor.enabled ? findModel(processor.model) : null;
    return model ? [{ processor, model, values: heardValues(model, processor.values, ANY_TEMPO) }] : [];
  });

/**
 * Tags that a sound earns by how it is set: measured on the responses, transfer lines and curves that its plugins are heard
 * by, and read from what is in it. Plugins that are off, and those not known here, say nothing.
 */
export const foundTags = (content: Content): readonly FoundTag[] => measuredIn(content).tags;

/** What is measured of a sound: its tags, and how long the longest of its reverbs rings, in seconds; null where none is heard. */
export function measuredIn(content: Content): { readonly tags: readonly FoundTag[]; readonly decay: number | null } {
  const on = heardIn(content);
  const of = (family: Family) => on.filter((m) => m.model.family === family);
  const when = (says: boolean, tag: FoundTag): readonly FoundTag[] => (says ? [tag] : []);
  const tags = [
    ...balanceTags(of("equaliser")),
    ...dynamicsTags(of("dynamics")),
    ...when(of("saturation").some(isDriven), "driven"),
    ...tailTags(of("reverb")),
    ...when(
      on.some((m) => isSilent(m, "dry") && !isSilent(m, "wet")),
      "wet only",
    ),
    ...when(
      on.some(({ model, values }) => model.needsTwoSides && heardAt(values, "width") > 100),
      "wide",
    ),
    ...when(on.some(followsTempo), "tempo-locked"),
  ];
  return { tags, decay: longestOf(of("reverb")) };
}
