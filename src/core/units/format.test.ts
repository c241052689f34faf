import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { MODELS, getModel } from "../processors/models";
import { getSpec } from "../processors/model";
import { type ParamSpec, positionOf, valueAt } from "./param-spec";
import { FADER, PAN } from "../strips/params";
import { formatFader } from "../strips/parts/level";
import { formatHeard, formatNumber, formatPlain, formatValue, parseValue } from "./format";
import { FEELS, NOTES, beatsOf, findNoteLength, formatNoteLength } from "./note-length";
import { beatsPerMinute, decibels, decibelsOf, gainOf, millisecondsOf } from "./quantities";

const spec = (model: string, param: string): ParamSpec => getSpec(getModel(model), param);
const FREQ = spec("parametric-eq", "band1.freq");
const GAIN = spec("parametric-eq", "band1.gain");
const TIME = spec("multitap-delay", "tap1.time");
const RATIO = spec("vca-compressor", "ratio");

describe("numbers as they stand on screen", () => {
  it.each([
    [FREQ, 900, "900 Hz"],
    [FREQ, 6500, "6.5 kHz"],
    [FREQ, 999.7, "1 kHz"],
    [FREQ, 82.41, "82.4 Hz"],
    [GAIN, -7, "−7.0 dB"],
    [GAIN, 2.5, "+2.5 dB"],
    [GAIN, -0.04, "0.0 dB"],
    [spec("vca-compressor", "knee"), 14, "14.0 dB"],
    [spec("vca-compressor", "threshold"), -24, "−24.0 dB"],
    [RATIO, 2.5, "2.5:1"],
    [TIME, 12, "12 ms"],
    [TIME, { note: "1/8", feel: "dotted" } as const, "1/8 dotted"],
    [spec("multitap-delay", "wet"), -60, "−∞ dB"],
    [spec("multitap-delay", "tap1.pan"), -30, "L 30"],
    [PAN, 0, "C"],
    [PAN, 100, "R 100"],
    [spec("parametric-eq", "channels"), 1, "Mid"],
    [spec("parametric-eq", "mix"), 62.5, "62.5 %"],
  ])("%#: writes %o as it is read", (s, value, text) => {
    expect(formatPlain(s, value)).toBe(text);
  });

  it("has a true minus and no negative zero", () => {
    expect(formatNumber(-3.25, 1)).toBe("−3.3");
    expect(formatNumber(-0.001, 1)).toBe("0.0");
    expect(formatFader({ fader: FADER.min, mute: false })).toBe("−∞");
    expect(formatFader({ fader: 2, mute: true })).toBe("+2.0, muted");
  });

  it("tells a note length in milliseconds at a tempo, and nothing for a plain time", () => {
    const eighth = { note: "1/8", feel: "straight" } as const;
    const time = getSpec(getModel("multitap-delay"), "tap1.time");
    expect(formatHeard(time, eighth, beatsPerMinute(120))).toEqual({ text: "250", unit: "ms" });
    expect(formatHeard(time, 250, beatsPerMinute(120))).toBeNull();
    expect(formatHeard(getSpec(getModel("chorus"), "rate"), eighth, beatsPerMinute(120))).toEqual({
      text: "4",
      unit: "Hz",
    });
  });
});

describe("numbers as they are typed", () => {
  it.each([
    [FREQ, "1.5k", 1500],
    [FREQ, " 1,5 kHz ", 1500],
    [FREQ, "440", 440],
    [FREQ, "1k2", 1200],
    [FREQ, "A4", 440],
    [FREQ, "Bb2", 116.541],
    [FREQ, "c#5", 554.365],
    [FREQ, "20000.1", 20000],
    [GAIN, "−3", -3],
    [GAIN, "-3 db", -3],
    [RATIO, "4:1", 4],
    [TIME, "0.5 s", 500],
    [TIME, "1/8 dotted", { note: "1/8", feel: "dotted" }],
    [TIME, "1/4t", { note: "1/4", feel: "triplet" }],
    [PAN, "l 30", -30],
    [PAN, "C", 0],
    [PAN, "r", 100],
    [PAN, "50R", 50],
    [PAN, "12,5 l", -12.5],
    [spec("multitap-delay", "wet"), "off", -60],
    [spec("multitap-delay", "wet"), "-70", -60],
    [spec("multitap-delay", "wet"), "-inf", -60],
    [spec("parametric-eq", "band1.on"), "off", 0],
    [spec("parametric-eq", "band1.slope"), "18", 18],
    [spec("parametric-eq", "channels"), "side", 2],
  ])("%#: understands what a person writes", (s, typed, value) => {
    const parsed = parseValue(s, typed);
    if (typeof value === "number") expect(parsed.ok && parsed.value).toBeCloseTo(value, 3);
    else expect(parsed).toEqual({ ok: true, value });
  });

  it.each([
    [FREQ, "30k", "30k is out of range: Band 1 frequency goes from 20 Hz to 20 kHz."],
    [FREQ, "−3 Hz", "−3 Hz is out of range: Band 1 frequency goes from 20 Hz to 20 kHz."],
    [GAIN, "+100 dB", "+100 dB is out of range: Band 1 gain goes from −24.0 dB to +24.0 dB."],
    [GAIN, "off", "“off” is not a value for Band 1 gain; try 0.0 dB."],
    [PAN, "R 300", "R 300 is out of range: Pan goes from L 100 to R 100."],
    [spec("parametric-eq", "band1.slope"), "20", "Band 1 slope is one of 6, 12, 18, 24, 36, 48."],
  ])("%#: refuses what it cannot do, with the range", (s, typed, words) => {
    expect(parseValue(s, typed)).toEqual({ ok: false, error: words });
  });

  it.each([
    [RATIO, "six"],
    [RATIO, ""],
    [FREQ, "3 dB"],
    [GAIN, "1/8"],
    [spec("parametric-eq", "channels"), "left"],
  ])("%#: says what it did not understand, and what would do", (s, typed) => {
    const parsed = parseValue(s, typed);
    expect(parsed.ok).toBe(false);
    if (!parsed.ok) expect(parsed.error).toMatch(/try|one of/);
  });

  it("reads back everything that it writes, to the figures that are shown", () => {
    for (const model of MODELS)
      for (const s of model.params)
        fc.assert(
          fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (position) => {
            const value = s.choices
              ? s.choices[Math.floor(position * (s.choices.length - 1))]!.value
              : valueAt(s, position);
            // What is shown as its minimum is read as it: silence.
            fc.pre(!s.silentAtMin || value === s.min || value > s.min + 0.05);
            const written = formatPlain(s, value);
            const parsed = parseValue(s, written);
            expect(parsed.ok && formatPlain(s, parsed.value)).toBe(written);
          }),
          { numRuns: 15, seed: 7 },
        );
  });
});

describe("rulers", () => {
  it("have a place for every value, and a value for every place", () => {
    for (const s of [FREQ, GAIN, TIME, RATIO, { ...GAIN, min: 0, taper: "power" as const }])
      for (const position of [0, 0.25, 0.5, 1]) expect(positionOf(s, valueAt(s, position))).toBeCloseTo(position, 9);
    expect(positionOf(FREQ, 632.4555)).toBeCloseTo(0.5, 6);
    expect(positionOf(FREQ, 1)).toBe(0);
  });
});

describe("note lengths", () => {
  it("are counted in quarter notes", () => {
    expect(beatsOf({ note: "1/4", feel: "straight" })).toBe(1);
    expect(beatsOf({ note: "1/8", feel: "dotted" })).toBe(0.75);
    expect(beatsOf({ note: "1/2", feel: "triplet" })).toBeCloseTo(4 / 3, 12);
    expect(millisecondsOf(beatsOf({ note: "3/16", feel: "straight" }), beatsPerMinute(60))).toBe(750);
  });

  it("are read back as they are written", () => {
    for (const note of NOTES)
      for (const feel of FEELS) expect(findNoteLength(formatNoteLength({ note, feel }))).toEqual({ note, feel });
    for (const wrong of ["1/7", "1/8 swung", "eighth", "1/8dd"]) expect(findNoteLength(wrong)).toBeNull();
  });

  it("levels: −∞ is a gain of 0 and back", () => {
    expect(gainOf(decibels(Number.NEGATIVE_INFINITY))).toBe(0);
    expect(decibelsOf(0)).toBe(Number.NEGATIVE_INFINITY);
    expect(decibelsOf(gainOf(decibels(-6)))).toBeCloseTo(-6, 12);
    expect(formatValue(GAIN, 6)).toEqual({ text: "+6.0", unit: "dB" });
  });
});
