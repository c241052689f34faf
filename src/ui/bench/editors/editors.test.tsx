// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, waitFor, within } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { drag, furnish, layOut, layOutPlot } from "@/app/testing/furnish";
import type { Processor } from "@/core/chains/chain";
import { completeProcessor } from "@/core/chains/complete";
import { findProcessorProblem } from "@/core/chains/problems";
import { gainY } from "@/core/plots/axes";
import { eqRange } from "@/core/plots/equaliser";
import { BAND_TYPES } from "@/core/processors/equaliser/parametric-eq/bands";
import { type Model, getSpec } from "@/core/processors/model";
import { MODELS, getModel } from "@/core/processors/models";
import type { Values } from "@/core/units/param-spec";
import { ModelEditor } from "./model-editor";

let previews: Values[];
let turns: Values[];
/** As it stands after the last turn. */
let held: Processor;

beforeEach(() => {
  furnish();
  layOut({ width: 200, height: 20 });
  [previews, turns] = [[], []];
});

afterEach(cleanup);

interface StageProps {
  readonly start: Processor;
  readonly saved: Processor | null;
}

/** As the bench holds a plugin: what is previewed is shown, what is turned stays. */
function Stage({ start, saved }: StageProps) {
  const [values, setValues] = useState(start.values);
  const [pulled, setPulled] = useState<Values>({});
  return (
    <ModelEditor
      model={getModel(start.model)}
      processor={{ ...start, values: { ...values, ...pulled } }}
      saved={saved}
      tempo={120}
      onTouch={() => false}
      movedBy={() => []}
      onPreview={(next) => {
        previews.push(next);
        setPulled(next);
      }}
      onTurn={(next) => {
        turns.push(next);
        held = { ...held, values: { ...held.values, ...next } };
        setPulled({});
        setValues((now) => ({ ...now, ...next }));
      }}
    />
  );
}

const pluginOf = (model: string, values: Values = {}): Processor =>
  completeProcessor({ type: "processor", key: "p", model, enabled: true, values });

/** Shows the editor of a plugin once its code is there. */
async function open(model: string, values: Values = {}, saved: Values | null = null): Promise<void> {
  held = pluginOf(model, values);
  render(<Stage start={held} saved={saved && pluginOf(model, saved)} />);
  await waitFor(() => expect(sliders()).not.toHaveLength(0));
}

/** By their roles as they are written: there are hundreds of them over all models. */
const sliders = () => [...document.querySelectorAll("[role=slider]")];
const handles = () => sliders().filter((s) => s instanceof SVGElement);
const handle = (name: RegExp | string) => {
  const found = screen.getByRole("slider", { name });
  const plot = found.closest("svg");
  if (plot) layOutPlot(plot);
  return found;
};
const press = (on: Element, key: string, more = {}) => fireEvent.keyDown(on, { key, ...more });
const click = (name: RegExp | string, within_: HTMLElement = document.body) =>
  fireEvent.click(within(within_).getByRole("button", { name }));

/** Every parameter of one turn is one of the model's, and the plugin holds together after it. */
function expectSound(model: Model): void {
  for (const turn of [...turns, ...previews])
    for (const id of Object.keys(turn)) expect(() => getSpec(model, id), `${model.id} ${id}`).not.toThrow();
  expect(findProcessorProblem(held, ""), model.id).toBeNull();
}

/** What an editor names: its controls, and the radio buttons of its choices through their group. */
const named = (): readonly string[] => [
  ...new Set([...document.querySelectorAll("[aria-label]")].map((e) => e.getAttribute("aria-label") ?? "")),
];

const ONE_AT_A_TIME: Readonly<Record<string, RegExp>> = {
  "parametric-eq": /^band/,
  "multitap-delay": /^tap([2-9]|\d.on)/,
};

describe.each(MODELS.map((model) => [model.id, model] as const))("the editor of %s", (id, model) => {
  it("reaches every parameter by a control with its name", async () => {
    await open(id);
    // Of bands and taps that come and go one at a time is open.
    const shown = model.params.filter((spec) => !ONE_AT_A_TIME[id]?.test(spec.id));
    expect(shown.length).toBeGreaterThan(0);
    for (const spec of shown) expect(named(), id).toContain(spec.name);
  });

  it("tells each value in words, and each ruler's place within its ends", async () => {
    await open(id);
    for (const slider of sliders()) {
      expect(slider.getAttribute("aria-label"), id).toBeTruthy();
      expect(slider.getAttribute("aria-valuetext"), `${id} ${slider.getAttribute("aria-label")}`).toBeTruthy();
      const [least, now, most] = ["min", "now", "max"].map((n) => Number(slider.getAttribute(`aria-value${n}`)));
      expect(now).toBeGreaterThanOrEqual(least!);
      expect(now).toBeLessThanOrEqual(most!);
    }
  });

  it("does one sound turn for each press of an arrow, on rulers and on the plot", async () => {
    await open(id);
    for (const at of sliders().keys())
      for (const key of ["ArrowUp", "ArrowLeft", "ArrowRight"]) {
        const before = turns.length;
        const one = sliders()[at]!;
        const name = `${id} ${one.getAttribute("aria-label")} ${key}`;
        // What a key is taken for is done once; a handle leaves those alone that lead off its plot.
        const isTaken = !fireEvent.keyDown(one, { key });
        expect(turns.length - before, name).toBe(isTaken ? 1 : 0);
        if (!(one instanceof SVGElement)) expect(isTaken, name).toBe(true);
      }
    expect(turns.length).toBeGreaterThan(0);
    expectSound(model);
  });

  it("previews while a handle is dragged, and turns once, to what was shown last", async () => {
    await open(id);
    for (const at of handles().keys()) {
      const one = handles()[at]!;
      layOutPlot(one.closest("svg")!);
      [previews, turns] = [[], []];
      drag(one, [
        [40, 40],
        [47, 37],
        [55, 32],
      ]);
      expect(previews, id).toHaveLength(2);
      expect(turns, id).toEqual([previews[1]]);
      expectSound(model);
    }
  });

  it("goes back to what was there where a drag is broken off", async () => {
    await open(id);
    for (const one of handles()) {
      layOutPlot(one.closest("svg")!);
      fireEvent.pointerDown(one, { clientX: 40, clientY: 40, button: 0 });
      fireEvent.pointerMove(one, { clientX: 60, clientY: 30 });
      fireEvent.pointerCancel(one);
      expect(previews.at(-1), id).toEqual({});
    }
    expect(turns).toEqual([]);
  });

  it("does nothing for a press on a handle that goes nowhere", async () => {
    await open(id);
    for (const one of handles()) {
      layOutPlot(one.closest("svg")!);
      drag(one, [[40, 40]]);
    }
    expect(turns).toEqual([]);
  });

  it("shows beside a value what was saved, and nothing where that is the same", async () => {
    await open(id, {}, {});
    expect(document.querySelectorAll(".text-edit")).toHaveLength(0);
    cleanup();
    const spec = model.params.find((s) => !s.choices && typeof s.default === "number" && s.default < s.max)!;
    await open(id, { [spec.id]: spec.max }, {});
    expect(document.querySelectorAll(".text-edit").length, `${id} ${spec.id}`).toBeGreaterThanOrEqual(
      named().includes(spec.name) ? 1 : 0,
    );
  });
});

describe("the bands of the equaliser", () => {
  const plot = () => {
    const found = screen.getByRole("group", { name: "Response of the equaliser" }) as unknown as SVGSVGElement;
    layOutPlot(found);
    return found;
  };
  const band = (n: number) => handle(new RegExp(`^Band ${n},`));
  const openBare = async () => {
    held = pluginOf("parametric-eq");
    render(<Stage start={held} saved={null} />);
    await screen.findByRole("button", { name: /Add a band/ });
  };

  it("come by the button, one after the other, until all six are in use", async () => {
    await openBare();
    for (let n = 1; n <= 6; n++) {
      click("Add a band");
      expect(band(n).getAttribute("aria-valuetext")).toContain("0.0 dB");
    }
    expect(screen.getByRole("button", { name: "All six bands are in use" })).toHaveProperty("disabled", true);
    expect(turns).toHaveLength(6);
  });

  it("come by pulling the line where none stands, at the frequency where it was taken hold of", async () => {
    await openBare();
    drag(plot(), [
      [406, 110],
      [406, 80],
      [420, 60],
    ]);
    const [turn] = turns;
    expect(turns).toHaveLength(1);
    expect(turn).toMatchObject({ "band1.used": 1, "band1.on": 1, "band1.q": 1 });
    expect(turn!["band1.freq"]).toBeCloseTo(632, -1);
    expect(turn!["band1.gain"]).toBeGreaterThan(0);
  });

  it("come by a double click, at the frequency and the gain of the pointer", async () => {
    await openBare();
    fireEvent.doubleClick(plot(), { clientX: 0, clientY: 131 });
    expect(turns).toMatchObject([{ "band1.used": 1, "band1.freq": 20, "band1.gain": 0 }]);
    fireEvent.doubleClick(plot(), { clientX: 406, clientY: 60 });
    expect(turns[1]!["band2.gain"]).toBeGreaterThan(5);
    expect(band(2).getAttribute("transform")).toMatch(/^translate\(40[56][^ ]* (59|60|61)/);
  });

  it("get their Q by the wheel over them, heard with each notch, done once when it rests", async () => {
    await openBare();
    click("Add a band");
    const before = Number(held.values["band1.q"]);
    const done = turns.length;
    for (let n = 0; n < 3; n++) fireEvent.wheel(band(1), { deltaY: -100 });
    await waitFor(() => expect(turns).toHaveLength(done + 1));
    expect(Number(held.values["band1.q"])).toBeGreaterThan(before);
  });

  it("are moved by the pointer, finely with Shift, and set flat by a double click", async () => {
    await openBare();
    click("Add a band");
    const freq = Number(held.values["band1.freq"]);
    drag(band(1), [
      [100, 100],
      [150, 60],
    ]);
    const far = Math.log2(Number(held.values["band1.freq"]) / freq);
    const gain = Number(held.values["band1.gain"]);
    expect(far).toBeGreaterThan(0.3);
    expect(gain).toBeGreaterThan(2);
    const from = Number(held.values["band1.freq"]);
    drag(
      band(1),
      [
        [100, 100],
        [150, 100],
      ],
      { shiftKey: true },
    );
    expect(Math.log2(Number(held.values["band1.freq"]) / from)).toBeCloseTo(far / 10, 1);
    fireEvent.doubleClick(band(1));
    expect(held.values["band1.gain"]).toBe(0);
  });

  it("stay on the plot and in their range, however far they are pulled", async () => {
    await openBare();
    click("Add a band");
    drag(band(1), [
      [400, 100],
      [9000, -9000],
    ]);
    expect(held.values).toMatchObject({ "band1.freq": 20_000, "band1.gain": 24 });
    expect(band(1).getAttribute("transform")).toMatch(/^translate\(812 14\.5/);
  });

  it("are widened, narrowed and taken out by key", async () => {
    await openBare();
    click("Add a band");
    press(band(1), "]");
    expect(held.values["band1.q"]).toBeGreaterThan(1);
    press(band(1), "[");
    press(band(1), "[");
    expect(held.values["band1.q"]).toBeLessThan(1);
    press(band(1), "ArrowUp", { ctrlKey: true });
    expect(held.values["band1.gain"]).toBe(0);
    press(band(1), "Delete");
    expect(held.values["band1.used"]).toBe(0);
    expect(screen.getByText(/No bands yet/)).toBeTruthy();
  });

  it("are cuts without gain and with a slope, by their type", async () => {
    await openBare();
    click("Add a band");
    const types = screen.getByRole("combobox", { name: "Band 1 type" });
    const cut = within(types)
      .getAllByRole("option")
      .find((o) => o.textContent === "low cut") as HTMLOptionElement;
    fireEvent.change(types, { target: { value: cut.value } });
    expect(screen.queryByText("Gain")).toBeNull();
    fireEvent.click(within(screen.getByRole("radiogroup", { name: "Band 1 slope in dB per octave" })).getByText("48"));
    expect(held.values["band1.slope"]).toBe(48);
    press(band(1), "ArrowUp");
    expect(held.values["band1.gain"]).toBe(0);
  });
});

describe("the taps of the delay", () => {
  const tap = (n: number) => handle(`Tap ${n}`);

  it("come by the button and go by key, four at the most", async () => {
    await open("multitap-delay");
    while (screen.queryByRole("button", { name: "Add a tap" })) click("Add a tap");
    expect(handles()).toHaveLength(4);
    expect(screen.getByRole("button", { name: "All four taps are in use" })).toHaveProperty("disabled", true);
    press(tap(4), "Backspace");
    expect(handles()).toHaveLength(3);
  });

  it("move in time and across, and up is to the left", async () => {
    await open("multitap-delay", { "tap1.time": 300, "tap1.pan": 0 });
    drag(tap(1), [
      [100, 100],
      [140, 70],
    ]);
    expect(held.values["tap1.time"]).toBeGreaterThan(300);
    expect(held.values["tap1.pan"]).toBeLessThan(0);
    press(tap(1), "ArrowDown");
    fireEvent.doubleClick(tap(1));
    expect(held.values["tap1.pan"]).toBe(0);
  });

  it("land on note lengths while they follow the tempo, and keep their time when they stop", async () => {
    await open("multitap-delay", { "tap1.time": { note: "1/8", feel: "straight" } });
    drag(tap(1), [
      [100, 100],
      [200, 100],
      [300, 100],
    ]);
    expect(held.values["tap1.time"]).toHaveProperty("note");
    press(tap(1), "ArrowLeft");
    expect(held.values["tap1.time"]).toHaveProperty("note");
    const follows = screen.getByRole("radiogroup", { name: "Tap 1 follows" });
    fireEvent.click(within(follows).getByText("Milliseconds"));
    expect(held.values["tap1.time"]).toBeTypeOf("number");
    fireEvent.click(within(follows).getByText("Follows the tempo"));
    expect(held.values["tap1.time"]).toHaveProperty("note");
  });
});

describe("the transfer line", () => {
  it("is pulled across for the threshold, and down for more ratio", async () => {
    await open("vca-compressor", { threshold: -24, ratio: 2 });
    const name = "Threshold and ratio";
    drag(handle(name), [
      [100, 100],
      [130, 100],
    ]);
    expect(held.values.threshold).toBeGreaterThan(-24);
    expect(held.values.ratio).toBe(2);
    drag(handle(name), [
      [100, 100],
      [100, 130],
    ]);
    expect(held.values.ratio).toBeCloseTo(2 * Math.exp(30 / 60), 1);
    press(handle(name), "ArrowUp");
    expect(held.values.ratio).toBeLessThan(2 * Math.exp(0.5));
  });

  it("gives its make-up by hand or by itself, and says how much that is", async () => {
    await open("vca-compressor", { threshold: -24, ratio: 4, makeupMode: 1 });
    expect(screen.queryByRole("slider", { name: /Make-up/ })).toBeNull();
    expect(screen.getByText(/^\+9\.0/)).toBeTruthy();
    fireEvent.click(screen.getByText("Automatic"));
    expect(held.values.makeupMode).toBe(2);
    expect(screen.getByText(/^\+10\./)).toBeTruthy();
    fireEvent.click(screen.getByText("By hand"));
    expect(held.values.makeupMode).toBe(0);
    expect(screen.getByRole("slider", { name: /Make-up/ })).toBeTruthy();
  });
});

describe("the picture of an equaliser", () => {
  const BAND = {
    "band1.type": BAND_TYPES.indexOf("bell"),
    "band1.used": 1,
    "band1.on": 1,
    "band1.freq": 1000,
    "band1.gain": 24,
    "band1.q": 1,
  };
  const yOf = (element: Element) =>
    Number(/translate\([^ ]+ ([^)]+)\)/.exec(element.getAttribute("transform") ?? "")?.[1]);
  const grid = () => [...document.querySelectorAll("svg.plot text.num-small")].map((t) => t.textContent);

  it("follows its handles, so that each stands where its value is, to the end of the range", async () => {
    await open("parametric-eq", BAND);
    expect(yOf(handle("Band 1, bell"))).toBeCloseTo(gainY(24, eqRange([24]), { width: 812, height: 262 }), 1);
    expect(grid()).toContain("+24");
    press(handle("Band 1, bell"), "ArrowDown");
    for (let n = 0; n < 21; n++) press(handle("Band 1, bell"), "ArrowDown");
    expect(held.values["band1.gain"]).toBeLessThan(14);
    expect(grid()).not.toContain("+24");
    expect(eqRange([13.9])).toBe(eqRange([0]));
    expect(gainY(-24, eqRange([-24]), { width: 1, height: 100 })).toBeLessThan(95);
  });

  it("has the spectrum of what is heard behind it, where it is asked for", async () => {
    await open("parametric-eq", BAND);
    expect(document.querySelector("[data-spectrum]")).toBeNull();
    click("Spectrum");
    expect(document.querySelector("[data-spectrum]")).toBeTruthy();
    click("Spectrum");
    expect(document.querySelector("[data-spectrum]")).toBeNull();
  });
});
