import { describe, expect, it } from "vitest";
import type { HeardProcessor } from "../../chains/heard-chain";
import { EFFECTS, getModel } from "../../processors/models";
import type { Values } from "../../units/param-spec";
import type { Audition } from "./audition";
import {
  type Change,
  type Listen,
  around,
  changesOf,
  faultsOf,
  gain,
  largestStep,
  loudest,
  pad,
  pairsOf,
  playing,
  set,
} from "./testing";

/*
 * What is brought in, over all models: nothing clicks, and nothing falls into a hole. The tone's own largest step and its
 * own level, before and after, are what every change is held against.
 */

const RATE = 48_000;
const CLICK = 1.5;
/** In dB. */
const HOLE = -1;

function hold(name: string, change: Change): void {
  const { step, hole } = faultsOf(change, RATE);
  expect.soft(step, `${name} ${change.what}: the largest step, times the sound's own`).toBeLessThanOrEqual(CLICK);
  expect.soft(hole, `${name} ${change.what}: the deepest hole in dB`).toBeGreaterThanOrEqual(HOLE);
}

describe("without a click or a hole", () => {
  it.each(pairsOf(EFFECTS).map(([model, next]) => ({ name: model.id, model, next })))(
    "$name is added, taken out, moved, switched, compared, and gives way to others",
    ({ model, next }) => {
      for (const change of changesOf(model, next)) hold(model.id, change);
    },
  );
});

describe("another look-ahead", () => {
  it.each(["gate", "expander"])("of a %s, which makes all later, comes without a click or a hole", (id) => {
    const ahead = (ms: number) => set(getModel(id), { ahead: ms, threshold: -80 });
    for (const [from, to] of [
      [0, 5],
      [5, 0],
      [2, 10],
    ] as const)
      hold(id, {
        what: `looks ${to} ms ahead, not ${from}`,
        begin: playing([ahead(from)]),
        change: (hand) => hand.setSound("a", { chain: [ahead(to)] }),
        settled: 1,
      });
  });
});

describe("a hand that is quicker than what comes", () => {
  const hall = (values: Values = {}): HeardProcessor => set(getModel("hall"), { dry: -60, wet: 0, ...values });

  it("drags the size of a room without a click or a hole", () => {
    const drag = (hand: Audition, listen: Listen) => {
      const heard: Float32Array[] = [];
      for (let size = 100; size <= 140; size++) {
        hand.setSound("a", { chain: [hall({ size })] });
        heard.push(listen(0.016));
      }
      return heard;
    };
    const { before, during } = around({ begin: playing([hall()]), change: drag, settled: 5 }, RATE);
    // The sizes on the way are louder than both ends.
    const steepest = (largestStep(before) / loudest(before, RATE)) * loudest(during, RATE);
    expect(largestStep(during)).toBeLessThan(CLICK * steepest);
  });

  it("takes out and brings back at once, and chooses what is still on its way, without a click or a hole", () => {
    const undo = (hand: Audition, listen: Listen) => {
      hand.setSound("a", { chain: [] });
      const heard = [listen(0.004)];
      hand.setSound("a", { chain: [hall(), gain(0)] });
      heard.push(listen(0.02));
      hand.setSound("a", { chain: [hall()] });
      return heard;
    };
    hold("hall", { what: "undone at once", begin: playing([hall()]), change: undo, settled: 5 });
    const choose = (hand: Audition) => {
      hand.setSound("b", { chain: [gain(-1), hall()] });
      hand.select("b");
    };
    hold("hall", { what: "chosen at once", begin: playing([hall()]), change: choose, settled: 5 });
  });

  it("holds a key through another chain, another instrument and A against B", () => {
    const start = (hand: Audition) => {
      hand.setSound("a", { chain: [], instrument: pad() });
      hand.setSound("b", { chain: [gain(0)], instrument: pad() });
      hand.select("a");
      hand.noteOn(45, 100);
    };
    const changes: readonly [string, (hand: Audition) => void][] = [
      ["a chain", (hand) => hand.setSound("a", { chain: [gain(0), hall({ dry: 0, wet: -20 })], instrument: pad() })],
      ["an effect of a layer", (hand) => hand.setSound("a", { chain: [], instrument: pad([gain(0)]) })],
      ["A to B", (hand) => hand.select("b")],
      ["A to dry", (hand) => hand.select("dry")],
    ];
    for (const [what, change] of changes) hold("pad", { what, begin: start, change, settled: 5 });
  });
});
