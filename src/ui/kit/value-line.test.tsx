// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import * as fc from "fast-check";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { drag, furnish, layOut } from "@/app/testing/furnish";
import { MODELS, getModel } from "@/core/processors/models";
import { getSpec } from "@/core/processors/model";
import { tapParam } from "@/core/processors/delay/multitap-delay/taps";
import { type ParamSpec, type Value, positionOf } from "@/core/units/param-spec";
import { isNoteLength } from "@/core/units/note-length";
import { useKeepFocus } from "./keep-focus";
import { ValueLine, round, stepValue } from "./value-line";

const THRESHOLD = getSpec(getModel("vca-compressor"), "threshold");
const ATTACK = getSpec(getModel("vca-compressor"), "attack");
const TIME = getSpec(getModel("multitap-delay"), tapParam(1, "time"));
/** Every parameter that a value line can stand for. */
const RULED = MODELS.flatMap((model) => model.params).filter((spec) => !spec.choices);
const WIDTH = 200;

let previews: Value[];
let turns: Value[];
let takesTouch: boolean;

beforeEach(() => {
  furnish();
  layOut({ width: WIDTH, height: 20 });
  [previews, turns, takesTouch] = [[], [], false];
});

afterEach(cleanup);

/** As an editor holds it: what is previewed is shown, what is turned stays. */
function Stage({ spec, start, saved }: { spec: ParamSpec; start: Value; saved?: Value | undefined }) {
  useKeepFocus();
  const [held, setHeld] = useState(start);
  const [pulled, setPulled] = useState<Value | null>(null);
  return (
    <ValueLine
      spec={spec}
      value={pulled ?? held}
      saved={saved}
      tempo={120}
      onTouch={() => takesTouch}
      onChange={(value) => {
        previews.push(value);
        setPulled(value);
      }}
      onChangeEnd={(value) => {
        turns.push(value);
        setPulled(null);
        setHeld(value);
      }}
    />
  );
}

const show = (spec: ParamSpec, start: Value, saved?: Value) =>
  void render(<Stage spec={spec} start={start} saved={saved} />);
const ruler = () => screen.getByRole("slider");
const number = () => screen.getByRole("button");
const press = (key: string, held = {}) => fireEvent.keyDown(ruler(), { key, ...held });

function type(text: string, end = "Enter") {
  if (!screen.queryByRole("textbox")) fireEvent.click(number());
  fireEvent.change(screen.getByRole("textbox"), { target: { value: text } });
  if (end === "blur") fireEvent.blur(screen.getByRole("textbox"));
  else fireEvent.keyDown(screen.getByRole("textbox"), { key: end });
}

describe("the wheel over a value line", () => {
  it("steps it, heard with each notch, done once when it rests", () => {
    vi.useFakeTimers();
    show(THRESHOLD, -18);
    for (const deltaY of [-100, -100, 100]) fireEvent.wheel(ruler(), { deltaY });
    fireEvent.wheel(ruler(), { deltaY: -100, shiftKey: true });
    const [one, two, three, fine] = previews as number[];
    expect(previews).toHaveLength(4);
    expect([one! > -18, two! > one!, three === one, fine! > three! && fine! < two!]).toEqual([true, true, true, true]);
    expect(turns).toEqual([]);
    act(() => void vi.advanceTimersByTime(500));
    expect(turns).toEqual([fine]);
    vi.useRealTimers();
  });

  it("is done before it rests where the page is left", () => {
    show(THRESHOLD, -18);
    fireEvent.wheel(ruler(), { deltaY: -100 });
    expect(turns).toEqual([]);
    act(() => void window.dispatchEvent(new Event("pagehide")));
    expect(turns).toEqual(previews);
    act(() => void window.dispatchEvent(new Event("pageshow")));
  });

  it("leaves it alone where Control makes the page larger", () => {
    show(THRESHOLD, -18);
    fireEvent.wheel(ruler(), { deltaY: -100, ctrlKey: true });
    expect(previews).toEqual([]);
  });
});

describe("a number typed on a value line", () => {
  it("is the value, from the first figure on, and the hand is where it was", () => {
    show(THRESHOLD, -18);
    ruler().focus();
    press("-");
    const field = screen.getByRole<HTMLInputElement>("textbox");
    expect([document.activeElement, field.value]).toEqual([field, "-"]);
    fireEvent.change(field, { target: { value: "-24" } });
    fireEvent.keyDown(field, { key: "Enter" });
    expect(turns).toEqual([-24]);
    expect(document.activeElement).toBe(ruler());
  });

  it("may begin with a letter: Enter opens the field, with what stood there to be typed over", () => {
    show(THRESHOLD, -18);
    ruler().focus();
    fireEvent.keyDown(ruler(), { key: "Enter", ctrlKey: true });
    expect(screen.queryByRole("textbox")).toBeNull();
    press("Enter");
    const field = screen.getByRole<HTMLInputElement>("textbox");
    expect(field.value.slice(field.selectionStart ?? 0, field.selectionEnd ?? 0)).toBe(field.value);
    fireEvent.keyDown(field, { key: "Escape" });
    expect([turns, document.activeElement]).toEqual([[], ruler()]);
  });

  it("stays to be mended where it is out of range, and is forgotten by Escape", () => {
    show(THRESHOLD, -18);
    number().focus();
    fireEvent.keyDown(number(), { key: "9" });
    fireEvent.keyDown(screen.getByRole("textbox"), { key: "Enter" });
    expect(screen.getByRole("alert").textContent).toMatch(/goes from/);
    expect(document.activeElement).toBe(screen.getByRole("textbox"));
    fireEvent.keyDown(screen.getByRole("textbox"), { key: "Escape" });
    expect(turns).toEqual([]);
    expect(document.activeElement).toBe(number());
  });
});

describe("a ruler", () => {
  it("tells a screen reader what stands on it, in words", () => {
    show(THRESHOLD, -18);
    expect(ruler()).toHaveProperty("ariaLabel", THRESHOLD.name);
    expect(ruler().getAttribute("aria-valuetext")).toBe("−18.0 dB");
    expect(Number(ruler().getAttribute("aria-valuenow"))).toBe(-18);
  });

  it("is dragged: heard on the way, done once at the end, where the pointer let go", () => {
    show(THRESHOLD, THRESHOLD.min);
    drag(ruler(), [
      [10, 0],
      [100, 0],
      [150, 0],
    ]);
    expect(previews).toHaveLength(2);
    expect(turns).toEqual([previews.at(-1)]);
    expect(positionOf(THRESHOLD, turns[0] as number)).toBeCloseTo(150 / WIDTH, 2);
  });

  it("does not move for a press that goes nowhere", () => {
    show(THRESHOLD, -18);
    drag(ruler(), [
      [10, 0],
      [12, 0],
    ]);
    expect([previews, turns]).toEqual([[], []]);
  });

  it("goes a tenth of the way with Shift, from where the value was", () => {
    show(THRESHOLD, -18);
    drag(
      ruler(),
      [
        [10, 0],
        [60, 0],
        [110, 0],
      ],
      { shiftKey: true },
    );
    const way = positionOf(THRESHOLD, turns[0] as number) - positionOf(THRESHOLD, -18);
    expect(way).toBeCloseTo(100 / WIDTH / 10, 2);
  });

  it("takes the value back where the drag is broken off", () => {
    show(THRESHOLD, -18);
    fireEvent.pointerDown(ruler(), { clientX: 10, button: 0 });
    fireEvent.pointerMove(ruler(), { clientX: 90 });
    fireEvent.pointerCancel(ruler());
    fireEvent.pointerUp(ruler());
    expect(turns).toEqual([]);
    expect(previews.at(-1)).toBe(-18);
    expect(ruler().getAttribute("aria-valuetext")).toBe("−18.0 dB");
  });

  it("leaves the value alone where the touch was for something else", () => {
    takesTouch = true;
    show(THRESHOLD, -18);
    drag(ruler(), [
      [10, 0],
      [90, 0],
    ]);
    press("ArrowUp");
    fireEvent.doubleClick(ruler());
    expect([previews, turns]).toEqual([[], []]);
  });

  it("goes to its ends, to its default, and not anywhere with Ctrl or Alt", () => {
    show(THRESHOLD, -18);
    press("Home");
    press("End");
    press("Delete");
    press("ArrowUp", { ctrlKey: true });
    press("ArrowLeft", { altKey: true });
    fireEvent.doubleClick(ruler());
    expect(turns).toEqual([THRESHOLD.min, THRESHOLD.max, THRESHOLD.default, THRESHOLD.default]);
  });

  it("marks the value that was saved only where it reads differently", () => {
    show(THRESHOLD, -18, -18.001);
    expect(number().className).not.toContain("text-edit");
    cleanup();
    show(THRESHOLD, -18, -20);
    expect(number().className).toContain("text-edit");
  });

  it("steps note lengths from one to the next longer and shorter, and says how long they are", () => {
    show(TIME, { note: "1/8", feel: "straight" });
    expect(screen.getByText("250 ms")).toBeTruthy();
    press("ArrowRight");
    press("ArrowLeft");
    press("ArrowLeft");
    expect(turns).toEqual([
      { note: "3/16", feel: "straight" },
      { note: "1/8", feel: "straight" },
      { note: "1/16", feel: "straight" },
    ]);
  });
});

describe("the number", () => {
  it("is typed over, with its unit or another of its kind", () => {
    show(ATTACK, 10);
    type("0.02 s");
    expect(turns).toEqual([20]);
    expect(number().textContent).toBe("20ms");
  });

  it("says what it does not understand, and stays until it does", () => {
    show(THRESHOLD, -18);
    type("loud");
    expect(screen.getByRole("alert").textContent).toContain("“loud” is not a value for Threshold");
    expect(screen.getByRole("textbox").getAttribute("aria-invalid")).toBe("true");
    type("-20");
    expect(turns).toEqual([-20]);
    expect(screen.queryByRole("alert")).toBeNull();
  });

  it("is left as it was by Escape, and where what was typed means the same", () => {
    show(THRESHOLD, -18);
    type("-30", "Escape");
    type("−18 dB");
    expect(turns).toEqual([]);
    expect(number().textContent).toBe("−18.0dB");
  });

  it("is kept by leaving the field where it is a number, and given up where it is not", () => {
    show(THRESHOLD, -18);
    type("-30", "blur");
    type("quiet", "blur");
    expect(turns).toEqual([-30]);
    expect(screen.queryByRole("textbox")).toBeNull();
  });

  it("takes a note length where the value may follow the tempo", () => {
    show(TIME, 300);
    type("1/8 dotted");
    expect(turns).toEqual([{ note: "1/8", feel: "dotted" }]);
    expect(number().textContent).toBe("1/8 dotted");
  });
});

describe("a step, for every parameter that is on a ruler", () => {
  const anyPlace = fc.record({
    spec: fc.constantFrom(...RULED),
    share: fc.double({ min: 0, max: 1, noNaN: true }),
    fine: fc.boolean(),
  });
  const numberAt = ({ min, max }: ParamSpec, share: number) => round(min + (max - min) * share);

  it("stays in the range, and moves the right way or not at all at the end", () => {
    fc.assert(
      fc.property(anyPlace, fc.constantFrom(1 as const, -1 as const), ({ spec, share, fine }, direction) => {
        const value = Math.min(spec.max, Math.max(spec.min, numberAt(spec, share)));
        const next = stepValue(spec, value, direction, fine) as number;
        expect(next).toBeGreaterThanOrEqual(spec.min);
        expect(next).toBeLessThanOrEqual(spec.max);
        const end = direction > 0 ? spec.max : spec.min;
        if (Math.abs(value - end) > (spec.max - spec.min) / 1000) expect((next - value) * direction).toBeGreaterThan(0);
      }),
      { numRuns: 2000 },
    );
  });

  it("reaches both ends by coarse steps", () => {
    for (const spec of RULED)
      for (const direction of [1, -1] as const) {
        let value: Value = isNoteLength(spec.default) ? spec.min : spec.default;
        for (let n = 0; n < 400; n++) value = stepValue(spec, value, direction, false);
        expect(value, `${spec.id} by ${direction}`).toBeCloseTo(direction > 0 ? spec.max : spec.min, 6);
      }
  });
});
