import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { formatTime, parseTime } from "./time";

describe("a time in a recording", () => {
  it.each([
    [0, "0:00"],
    [62, "1:02"],
    [3605, "1:00:05"],
  ])("%d s is written %s", (seconds, text) => {
    expect(formatTime(seconds)).toBe(text);
  });

  it("is read as it is written, and as one types it", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100_000 }), (seconds) => {
        expect(parseTime(formatTime(seconds))).toEqual({ ok: true, value: seconds });
      }),
    );
    expect(parseTime(" 90,5 ")).toEqual({ ok: true, value: 90.5 });
    expect(parseTime("soon")).toEqual({ ok: false, error: "“soon” is not a time; try 1:30." });
  });
});
