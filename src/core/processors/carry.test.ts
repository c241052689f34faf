import { describe, expect, it } from "vitest";
import { beatsPerMinute } from "../units/quantities";
import { carryValues } from "./carry";
import { levelCurve } from "./equaliser/eq-design";
import { fitEq } from "./equaliser/fit-eq";
import { FIT_FREQUENCIES } from "./equaliser/fit-points";
import { designOf, findFault, getSpec } from "./model";
import { EFFECTS, getModel } from "./models";
import type { Values } from "../units/param-spec";
import { setTo } from "../sound/testing";

const TEMPO = beatsPerMinute(96);
const EQS = ["parametric-eq", "console-eq", "graphic-eq", "tilt-eq"] as const;

const CONSOLE: Values = { lowCut: 80, "low.gain": 4, "lowMid.gain": -6, "lowMid.freq": 350, "high.gain": 5 };

/** The largest difference of two responses in dB where it is compared. */
function apart(one: readonly [string, Values], two: readonly [string, Values]): number {
  const [a, b] = [one, two].map(([id, values]) =>
    levelCurve(designOf(getModel(id), "equaliser"), setTo(getModel(id), values), 48_000),
  );
  return Math.max(...FIT_FREQUENCIES.map((hz) => Math.abs(a!(hz) - b!(hz))));
}

describe("another equaliser, same curve", () => {
  it("finds a console's curve with six parametric bands within half a dB, and says by how much it misses", () => {
    const { values, fit } = carryValues(getModel("console-eq"), CONSOLE, getModel("parametric-eq"), TEMPO);
    expect(fit!.rms).toBeLessThan(0.15);
    expect(apart(["console-eq", CONSOLE], ["parametric-eq", values])).toBeLessThan(0.5);
    expect(Math.abs(apart(["console-eq", CONSOLE], ["parametric-eq", values]) - fit!.worst)).toBeLessThan(0.25);
  });
  it("finds its own setting again, to a tenth of a dB, which nobody hears", () => {
    for (const [id, values] of [
      ["console-eq", CONSOLE],
      ["tilt-eq", { tilt: 4, pivot: 900 }],
      ["graphic-eq", { gain125: 5, gain2000: -6 }],
    ] as const)
      expect(fitEq(getModel(id), setTo(getModel(id), values), getModel(id)).rms, id).toBeLessThan(0.1);
  });
  it("does what ten bands can do for a bell, and is no worse than doing nothing wherever it goes", () => {
    const bell: Values = { "band3.used": 1, "band3.freq": 1000, "band3.gain": 6, "band3.q": 1 };
    const graphic = carryValues(getModel("parametric-eq"), bell, getModel("graphic-eq"), TEMPO);
    expect(graphic.fit!.worst).toBeLessThan(1);
    for (const from of EQS)
      for (const to of EQS) {
        const values = from === "parametric-eq" ? bell : from === "console-eq" ? CONSOLE : {};
        const { fit } = carryValues(getModel(from), values, getModel(to), TEMPO);
        expect(fit!.worst, `${from} to ${to}`).toBeLessThanOrEqual(apart([from, values], [to, {}]) + 1e-6);
      }
  });
  it("keeps a cut where it is, and works no band against another beside it", () => {
    const cut: Values = {
      "band1.used": 1,
      "band1.type": 3,
      "band1.freq": 90,
      "band1.slope": 24,
      "band2.used": 1,
      "band2.type": 0,
      "band2.freq": 240,
      "band2.gain": -3,
      "band2.q": 1,
    };
    for (const to of ["console-eq", "tilt-eq"] as const) {
      const { values, report } = carryValues(getModel("parametric-eq"), cut, getModel(to), TEMPO);
      expect(values.lowCut, to).toBe(90);
      expect(values.highCut, to).toBe(20_000);
      expect(
        report.find((r) => r.name.startsWith("Band 1")),
        to,
      ).toMatchObject({ outcome: "carried", from: "90 Hz, Q 0.71" });
      for (const [id, value] of Object.entries(values))
        if (/gain|tilt/.test(id)) expect(Math.abs(value as number), `${to} ${id}`).toBeLessThan(6);
    }
    const back = carryValues(getModel("console-eq"), { ...CONSOLE, lowCut: 90 }, getModel("parametric-eq"), TEMPO);
    expect(back.values).toMatchObject({ "band1.type": 3, "band1.freq": 90 });
    // Where nothing is cut none is made.
    const shelf: Values = { "low.gain": -12 };
    expect(carryValues(getModel("console-eq"), shelf, getModel("parametric-eq"), TEMPO).values["band1.type"]).toBe(1);
  });
  it("gives values that the model takes, and the same each time", () => {
    for (const to of EQS) {
      const one = carryValues(getModel("console-eq"), CONSOLE, getModel(to), TEMPO);
      expect(carryValues(getModel("console-eq"), CONSOLE, getModel(to), TEMPO)).toEqual(one);
      for (const [id, value] of Object.entries(one.values))
        expect(findFault(getSpec(getModel(to), id), value)).toBeNull();
    }
  });
});

describe("another model, same meaning", () => {
  it("carries, clamps and drops, and says which", () => {
    const vca = { threshold: -22, ratio: 3, attack: 30, release: 200, knee: 10, mix: 60, makeupMode: 1 };
    const { values, report } = carryValues(getModel("vca-compressor"), vca, getModel("fet-compressor"), TEMPO);
    expect(values).toMatchObject({ threshold: -22, ratio: 4, attack: 2, release: 200, mix: 60, makeupMode: 1 });
    // Of a document that says nothing of its detector, too.
    expect(values.hears).toBe(0);
    const outcome = (name: string) => report.find((r) => r.name === name);
    expect(outcome("Threshold")).toEqual({ name: "Threshold", outcome: "carried", from: "−22.0 dB", to: "−22.0 dB" });
    expect(outcome("Attack")).toMatchObject({ outcome: "clamped", from: "30 ms", to: "2 ms" });
    expect(outcome("Ratio")).toMatchObject({ outcome: "clamped", to: "4:1" });
    expect(outcome("Knee")).toMatchObject({ outcome: "dropped", from: "10.0 dB" });
  });
  it("keeps a note length where the other follows the tempo too", () => {
    const dotted = { note: "1/8", feel: "dotted" } as const;
    const { values } = carryValues(getModel("chorus"), { rate: dotted }, getModel("tremolo"), TEMPO);
    expect(values.rate).toEqual(dotted);
  });
  it("gives values that the other model takes, from any model to any of its family", () => {
    for (const from of EFFECTS)
      for (const to of EFFECTS.filter((m) => m.family === from.family && m.family !== "equaliser")) {
        const extremes = Object.fromEntries(from.params.map((spec) => [spec.id, spec.max]));
        const { values } = carryValues(from, extremes, to, TEMPO);
        for (const spec of to.params) expect(findFault(spec, values[spec.id]!), `${from.id} to ${to.id}`).toBeNull();
      }
  });
});
