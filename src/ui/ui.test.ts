import { describe, expect, it } from "vitest";
import { getSpec } from "@/core/processors/model";
import { getModel } from "@/core/processors/models";
import { keyOf, showKey } from "./actions/actions";
import { formatDate, formatDay, plainDate } from "./kit/dates";
import { stepValue } from "./kit/value-line";
import { planAddress } from "./plan/address";

const press = (key: string, held: Partial<Record<"ctrlKey" | "metaKey" | "altKey" | "shiftKey", boolean>> = {}) =>
  keyOf({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held });

describe("a key press", () => {
  it("is written as actions name it", () => {
    expect(press("k", { ctrlKey: true })).toBe("Ctrl+K");
    expect(press("k", { metaKey: true })).toBe("Ctrl+K");
    expect(press("Z", { ctrlKey: true, shiftKey: true })).toBe("Ctrl+Shift+Z");
    expect(press("?", { shiftKey: true })).toBe("?");
    expect(press("b")).toBe("B");
    expect(press("B", { shiftKey: true })).toBe("Shift+B");
    expect(press(" ")).toBe("Space");
    expect(press(" ", { ctrlKey: true })).toBe("Ctrl+Space");
    expect(press("Enter", { shiftKey: true })).toBe("Shift+Enter");
    expect(press("ArrowLeft", { altKey: true })).toBe("Alt+ArrowLeft");
    expect(press("1", { altKey: true })).toBe("Alt+1");
    expect(showKey("Ctrl+Shift+ArrowUp")).toBe("Ctrl Shift ↑");
  });
});

describe("an arrow key on a value", () => {
  const spec = (model: string, id: string) => getSpec(getModel(model), id);
  it("moves a step, a tenth with Shift, and stops at the ends", () => {
    const threshold = spec("vca-compressor", "threshold");
    expect(stepValue(threshold, -20, 1, false)).toBe(-19.5);
    expect(stepValue(threshold, -20, -1, true)).toBe(-20.05);
    expect(stepValue(threshold, 0, 1, false)).toBe(0);
  });
  it("moves a frequency by its ratio", () => {
    const freq = spec("parametric-eq", "band1.freq");
    expect(stepValue(freq, 1000, 1, false) as number).toBeCloseTo(1000 * 1000 ** (1 / 40), 0);
    expect(stepValue(freq, 20_000, 1, false)).toBe(20_000);
  });
  it("goes to the next note length, and stays at the longest", () => {
    const time = spec("multitap-delay", "tap1.time");
    expect(stepValue(time, { note: "1/8", feel: "dotted" }, 1, false)).toEqual({ note: "1/4", feel: "straight" });
    expect(stepValue(time, { note: "1/8", feel: "straight" }, -1, false)).toEqual({ note: "1/16", feel: "straight" });
    expect(stepValue(time, { note: "1/1", feel: "straight" }, 1, false)).toEqual({ note: "1/1", feel: "straight" });
  });
});

describe("days and addresses", () => {
  const now = new Date("2026-11-25T12:00:00");
  it("are short where they can be", () => {
    expect(formatDay("2026-11-25T08:00:00", now)).toBe("today");
    expect(formatDay("2026-11-02T08:00:00", now)).toBe("2 Nov");
    expect(formatDay("2025-12-31T08:00:00", now)).toBe("Dec 2025");
    expect(formatDate("2026-11-24")).toBe("24 Nov 2026");
    expect(plainDate(now)).toBe("2026-11-25");
  });
  it("name what is planned", () => {
    const of = (...presets: { id: string; version: number }[]) => ({ presets });
    expect(planAddress("p", of({ id: "x", version: 3 }), { strips: ["a", "b"] })).toBe(
      "/projects/p/plan?preset=x&version=3&strips=a%2Cb",
    );
    expect(planAddress("p", of({ id: "x", version: 1 }, { id: "y", version: 2 }), { strips: [] })).toBe(
      "/projects/p/plan?preset=x&version=1&preset=y&version=2",
    );
    expect(planAddress("p", { project: "q", strips: ["a", "b"], revision: 7 }, { strips: ["c"] })).toBe(
      "/projects/p/plan?from=q&take=a%2Cb&revision=7&strips=c",
    );
    const slot = { strip: "a", after: null };
    expect(planAddress("p", of({ id: "x", version: 1 }), { strips: [], slot, parts: ["inserts"] })).toBe(
      "/projects/p/plan?preset=x&version=1&strips=a&behind=&parts=inserts",
    );
  });
});
