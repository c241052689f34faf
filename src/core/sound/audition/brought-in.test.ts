import { describe, expect, it } from "vitest";
import { type HeardChain, type HeardProcessor, heardProcessor } from "../../chains/heard-chain";
import type { Model } from "../../processors/model";
import type { HeardInstrument } from "../../chains/heard-instrument";
import { EFFECTS, getModel } from "../../processors/models";
import type { Values } from "../../units/param-spec";
import { rms, setTo, sine } from "../testing";
import { createAudition } from "./audition";

/*
 * What is brought in, over all models: nothing clicks, and nothing falls into a hole. The tone's own largest step and its
 * own level, before and after, are what every change is held against.
 */

const RATE = 48_000;
const TONE = 110;
const LEVEL = 0.5;
/** In samples: over what a level is told. */
const WINDOW = 2400;
/** In seconds: what it takes to sound as though it had always run. */
const settledFor = (model: Model): number =>
  model.family === "reverb" || model.family === "delay" ? 4 : model.family === "modulation" ? 2.5 : 1.2;
const LONG = 2;
const SHORT = 0.6;

const CLICK = 1.5;
const HOLE = -1;

const set = (model: Model, values: Values = {}, more: { key?: string; enabled?: boolean } = {}): HeardProcessor =>
  heardProcessor(model, setTo(model, values), more);
const gain = (dB: number, key = "g") => set(getModel("gain"), { gain: dB }, { key });

const STEADY: Values = { detune: 0, width: 0, motion: 0, attack: 20, sustain: 100 };

/** A steady note: no vibrato, no movement between its voices. */
const pad = (effects: HeardChain = []): HeardInstrument => ({
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

function largestStep(samples: Float32Array): number {
  let largest = 0;
  for (let i = 1; i < samples.length; i++) largest = Math.max(largest, Math.abs(samples[i]! - samples[i - 1]!));
  return largest;
}

function lowest(samples: Float32Array): number {
  let least = Infinity;
  for (let at = 0; at + WINDOW <= samples.length; at += WINDOW / 4)
    least = Math.min(least, rms(samples.subarray(at, at + WINDOW)));
  return least;
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

function loudest(samples: Float32Array): number {
  let most = 0;
  for (let at = 0; at + WINDOW <= samples.length; at += WINDOW)
    most = Math.max(most, rms(samples.subarray(at, at + WINDOW)));
  return most;
}

type Hand = ReturnType<typeof createAudition>;

/** Plays until it is settled, does something, and goes on until that is. */
function around(
  begin: (hand: Hand) => void,
  change: (hand: Hand, listen: (seconds: number) => Float32Array) => readonly Float32Array[] | void,
  settled: number,
) {
  const hand = createAudition(RATE);
  const listen = (seconds: number) => {
    const length = Math.round(seconds * RATE);
    const [left, right] = [new Float32Array(length), new Float32Array(length)];
    for (let at = 0; at < length; at += 128) hand.process(left.subarray(at, at + 128), right.subarray(at, at + 128));
    return left;
  };
  hand.setLoop(sine(TONE, LEVEL, 2, RATE));
  hand.setGains({ dry: 1, a: 1, b: 1 });
  begin(hand);
  hand.play(true);
  // Of what turns slowly, and of what wanders, a level is told over a while.
  const long = settled > 2 ? LONG : SHORT;
  listen(settled - long);
  const before = listen(long);
  const changing = change(hand, listen) ?? [];
  const during = joined([...changing, listen(settled)]);
  const after = listen(long);
  return { before, during, after };
}

function hold(name: string, what: string, { before, during, after }: ReturnType<typeof around>): void {
  const step = largestStep(during) / Math.max(largestStep(before), largestStep(after));
  const hole = 20 * Math.log10(lowest(during) / Math.min(lowest(before), lowest(after)));
  expect.soft(step, `${name} ${what}: the largest step, times the sound's own`).toBeLessThanOrEqual(CLICK);
  expect.soft(hole, `${name} ${what}: the deepest hole in dB`).toBeGreaterThanOrEqual(HOLE);
}

const playing = (chain: HeardChain) => (hand: Hand) => {
  hand.setSound("a", { chain });
  hand.select("a");
};

describe.each(EFFECTS.map((model, at) => ({ name: model.id, model, next: EFFECTS[(at + 7) % EFFECTS.length]! })))(
  "$name",
  ({ model, next }) => {
    const wet = set(model, wetOf(model));
    const cuts = cutsOf(model);
    const settled = Math.max(settledFor(model), settledFor(next));
    const changing = (what: string, from: HeardChain, to: HeardChain) =>
      hold(
        model.id,
        what,
        around(playing(from), (hand) => hand.setSound("a", { chain: to }), settled),
      );

    it("is added, taken out, switched and moved without a click or a hole", () => {
      changing("added", [gain(0)], [gain(0), wet]);
      changing("taken out", [gain(0), wet], [gain(0)]);
      changing("switched on", [{ ...wet, enabled: false }], [wet]);
      changing("switched off", [wet], [{ ...wet, enabled: false }]);
      changing("moved", [gain(-6), wet, gain(6, "h")], [wet, gain(-6), gain(6, "h")]);
    });

    it("gives way to another preset and to another model without a click or a hole", () => {
      changing("another preset", [wet], [set(model, { ...otherOf(model), ...wetOf(model) })]);
      changing("another model", [wet], [set(next, wetOf(next))]);
    });

    it.runIf(cuts.length > 0)("has its cuts switched on and off without a click or a hole", () => {
      const cut = set(model, Object.fromEntries(cuts));
      changing("cut switched on", [set(model)], [cut]);
      changing("cut switched off", [cut], [set(model)]);
    });

    it("is compared without a click or a hole", () => {
      const begin = (hand: Hand) => {
        hand.setSound("a", { chain: [wet] });
        hand.setSound("b", { chain: [wet] });
        hand.select("a");
      };
      hold(
        model.id,
        "A to B",
        around(begin, (hand) => hand.select("b"), settled),
      );
      hold(
        model.id,
        "A to dry",
        around(begin, (hand) => hand.select("dry"), settled),
      );
      hold(
        model.id,
        "dry to A",
        around(
          (hand) => {
            begin(hand);
            hand.select("dry");
          },
          (hand) => hand.select("a"),
          settled,
        ),
      );
    });
  },
);

describe("a hand that is quicker than what comes", () => {
  const hall = (values: Values = {}) => set(getModel("hall"), { dry: -60, wet: 0, ...values });

  it("drags the size of a room without a click or a hole", () => {
    const drag = (hand: Hand, listen: (seconds: number) => Float32Array) => {
      const heard: Float32Array[] = [];
      for (let size = 100; size <= 140; size++) {
        hand.setSound("a", { chain: [hall({ size })] });
        heard.push(listen(0.016));
      }
      return heard;
    };
    const { before, during } = around(playing([hall()]), drag, 5);
    // The sizes on the way are louder than both ends.
    const steepest = (largestStep(before) / loudest(before)) * loudest(during);
    expect(largestStep(during)).toBeLessThan(CLICK * steepest);
  });

  it("takes out and brings back at once, and chooses what is still on its way, without a click or a hole", () => {
    const undo = (hand: Hand, listen: (seconds: number) => Float32Array) => {
      hand.setSound("a", { chain: [] });
      const heard = [listen(0.004)];
      hand.setSound("a", { chain: [hall(), gain(0)] });
      heard.push(listen(0.02));
      hand.setSound("a", { chain: [hall()] });
      return heard;
    };
    hold("hall", "undone at once", around(playing([hall()]), undo, 5));
    const choose = (hand: Hand) => {
      hand.setSound("b", { chain: [gain(-1), hall()] });
      hand.select("b");
    };
    hold("hall", "chosen at once", around(playing([hall()]), choose, 5));
  });

  it("holds a key through another chain, another instrument and A against B", () => {
    const start = (hand: Hand) => {
      hand.setSound("a", { chain: [], instrument: pad() });
      hand.setSound("b", { chain: [gain(0)], instrument: pad() });
      hand.select("a");
      hand.noteOn(45, 100);
    };
    const changes: readonly [string, (hand: Hand) => void][] = [
      ["a chain", (hand) => hand.setSound("a", { chain: [gain(0), hall({ dry: 0, wet: -20 })], instrument: pad() })],
      ["an effect of a layer", (hand) => hand.setSound("a", { chain: [], instrument: pad([gain(0)]) })],
      ["A to B", (hand) => hand.select("b")],
      ["A to dry", (hand) => hand.select("dry")],
    ];
    for (const [what, change] of changes) hold("pad", what, around(start, change, 5));
  });
});
