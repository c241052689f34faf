import { type HeardChain, type HeardProcessor, heardProcessor } from "../../chains/heard-chain";
import type { HeardInstrument } from "../../chains/heard-instrument";
import type { Model } from "../../processors/model";
import { getModel } from "../../processors/models";
import type { Values } from "../../units/param-spec";
import { rms, setTo, sine } from "../testing";
import { type Audition, createAudition } from "./audition";

/*
 * A change while a tone plays: what was before it, what is heard during it, and what is behind it. For the tests and the bench.
 */

const TONE = 110;
const LEVEL = 0.5;
/** In seconds: over what a level is told. */
const WINDOW = 0.05;
/** In seconds: what it takes to sound as though it had always run. */
const settledFor = (model: Model): number =>
  model.family === "reverb" || model.family === "delay" ? 4 : model.family === "modulation" ? 2.5 : 1.2;
/** In seconds: of what turns slowly, and of what wanders, a level is told over a while. */
const LONG = 2;
const SHORT = 0.6;

export const set = (
  model: Model,
  values: Values = {},
  more: { key?: string; enabled?: boolean } = {},
): HeardProcessor => heardProcessor(model, setTo(model, values), more);

export const gain = (dB: number, key = "g"): HeardProcessor => set(getModel("gain"), { gain: dB }, { key });

const STEADY: Values = { detune: 0, width: 0, motion: 0, attack: 20, sustain: 100 };

/** A steady note: no vibrato, no movement between its voices. */
export const pad = (effects: HeardChain = []): HeardInstrument => ({
  layers: [
    {
      key: "l",
      model: "pad-synth",
      enabled: true,
      values: setTo(getModel("pad-synth"), STEADY),
      sample: null,
      keys: { low: 0, high: 127 },
      velocities: { low: 0, high: 127 },
      effects,
    },
  ],
  output: null,
  phrase: { seconds: 2, notes: [] },
});

/** As good as wet: what is dry would hide a hole. */
const WET: Values = { dry: -60, wet: 0, mix: 100 };
const wetOf = (model: Model): Values =>
  Object.fromEntries(Object.entries(WET).filter(([id]) => model.params.some((spec) => spec.id === id)));

/** Another preset of the same model: each value a third of the way to an end of its range. */
function otherOf(model: Model): Values {
  const start = setTo(model, {});
  const moved = model.params.map((spec, at): [string, number] => {
    const now = start[spec.id]!;
    return [spec.id, spec.choices ? now : now + ((at % 2 === 0 ? spec.max : spec.min) - now) / 3];
  });
  return Object.fromEntries(moved);
}

/** What an equaliser takes away of the tone's neighbourhood when its first cut is switched on. */
function cutsOf(model: Model): [string, number][] {
  if (model.id === "parametric-eq") return [["band1.used", 1]];
  const cut = model.family === "equaliser" && model.params.find(({ id }) => id === "lowCut");
  return cut ? [["lowCut", 100]] : [];
}

export function largestStep(samples: Float32Array): number {
  let largest = 0;
  for (let i = 1; i < samples.length; i++) largest = Math.max(largest, Math.abs(samples[i]! - samples[i - 1]!));
  return largest;
}

/** The level of each moment, in steps of a quarter of one. */
function levelsOf(samples: Float32Array, sampleRate: number): readonly number[] {
  const window = Math.round(WINDOW * sampleRate);
  const count = Math.floor((4 * (samples.length - window)) / window) + 1;
  return Array.from({ length: count }, (_, n) => {
    const at = Math.round((n * window) / 4);
    return rms(samples.subarray(at, at + window));
  });
}

function joined(parts: readonly Float32Array[]): Float32Array {
  const whole = new Float32Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

export const loudest = (samples: Float32Array, sampleRate: number): number =>
  Math.max(...levelsOf(samples, sampleRate));

export type Listen = (seconds: number) => Float32Array;

/** Something that a hand does: how it begins, and what it does then. What is heard meanwhile may be given back. */
export interface Change {
  readonly what: string;
  readonly begin: (hand: Audition) => void;
  readonly change: (hand: Audition, listen: Listen) => readonly Float32Array[] | void;
  /** In seconds. */
  readonly settled: number;
}

/** Plays until it is settled, does something, and goes on until that is. */
export function around({ begin, change, settled }: Omit<Change, "what">, sampleRate: number) {
  const hand = createAudition(sampleRate);
  const listen: Listen = (seconds) => {
    const length = Math.round(seconds * sampleRate);
    const [left, right] = [new Float32Array(length), new Float32Array(length)];
    for (let at = 0; at < length; at += 128) hand.process(left.subarray(at, at + 128), right.subarray(at, at + 128));
    return left;
  };
  hand.setLoop(sine(TONE, LEVEL, 2, sampleRate));
  hand.setGains({ dry: 1, a: 1, b: 1 });
  begin(hand);
  hand.play(true);
  const long = settled > 2 ? LONG : SHORT;
  listen(settled - long);
  const before = listen(long);
  const changing = change(hand, listen) ?? [];
  const during = joined([...changing, listen(settled)]);
  return { before, during, after: listen(long) };
}

/** The largest step, as many times the sound's own, and the deepest hole under the lower of before and after, in dB. */
export function faultsOf(change: Omit<Change, "what">, sampleRate: number) {
  const { before, during, after } = around(change, sampleRate);
  const lowest = (samples: Float32Array) => Math.min(...levelsOf(samples, sampleRate));
  return {
    step: largestStep(during) / Math.max(largestStep(before), largestStep(after)),
    hole: 20 * Math.log10(lowest(during) / Math.min(lowest(before), lowest(after))),
  };
}

export const playing = (chain: HeardChain) => (hand: Audition) => {
  hand.setSound("a", { chain });
  hand.select("a");
};

/** All that is done with a model; `next`: another that takes its place. */
export function changesOf(model: Model, next: Model): readonly Change[] {
  const wet = set(model, wetOf(model));
  const settled = Math.max(settledFor(model), settledFor(next));
  const swap = (what: string, from: HeardChain, to: HeardChain): Change => ({
    what,
    begin: playing(from),
    change: (hand) => hand.setSound("a", { chain: to }),
    settled,
  });
  const both = (hand: Audition) => {
    hand.setSound("a", { chain: [wet] });
    hand.setSound("b", { chain: [wet] });
    hand.select("a");
  };
  const dry = (hand: Audition) => {
    both(hand);
    hand.select("dry");
  };
  const cut = set(model, Object.fromEntries(cutsOf(model)));
  const cuts =
    cutsOf(model).length === 0
      ? []
      : [swap("cut switched on", [set(model)], [cut]), swap("cut switched off", [cut], [set(model)])];
  return [
    swap("added", [gain(0)], [gain(0), wet]),
    swap("taken out", [gain(0), wet], [gain(0)]),
    swap("switched on", [{ ...wet, enabled: false }], [wet]),
    swap("switched off", [wet], [{ ...wet, enabled: false }]),
    swap("moved", [gain(-6), wet, gain(6, "h")], [wet, gain(-6), gain(6, "h")]),
    swap("another preset", [wet], [set(model, { ...otherOf(model), ...wetOf(model) })]),
    swap("another model", [wet], [set(next, wetOf(next))]),
    ...cuts,
    { what: "A to B", begin: both, change: (hand) => hand.select("b"), settled },
    { what: "A to dry", begin: both, change: (hand) => hand.select("dry"), settled },
    { what: "dry to A", begin: dry, change: (hand) => hand.select("a"), settled },
  ];
}

/** Each effect, and the one that takes its place: of another family. */
export const pairsOf = (models: readonly Model[]): readonly (readonly [model: Model, next: Model])[] =>
  models.map((model, at) => [model, models[(at + 7) % models.length]!]);
