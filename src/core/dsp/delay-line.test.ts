import { describe, expect, it } from "vitest";
import { DelayLine } from "./delay-line";

const RATE = 44_100;

/** The height of a sine that is read at a delay, and how far it is off in samples: over a second, a whole number of its waves. */
function readAt(hz: number, delay: number): { readonly dB: number; readonly late: number } {
  const line = new DelayLine(64);
  const turn = (2 * Math.PI * hz) / RATE;
  let [cos, sin, n] = [0, 0, 0];
  for (let i = 0; i < RATE + 100; i++) {
    line.write(Math.sin(turn * i));
    if (i < 100) continue;
    const x = line.readBetween(delay);
    // The last written is one behind.
    cos += x * Math.cos(turn * (i + 1));
    sin += x * Math.sin(turn * (i + 1));
    n += 1;
  }
  const phase = Math.atan2(cos, sin);
  const expected = -turn * delay;
  const off = Math.atan2(Math.sin(phase - expected), Math.cos(phase - expected));
  return { dB: 20 * Math.log10((2 * Math.hypot(cos, sin)) / n), late: -off / turn };
}

describe("a delay line", () => {
  it("gives what was written, so many writes ago", () => {
    const line = new DelayLine(8);
    for (let i = 1; i <= 20; i++) line.write(i);
    expect([1, 2, 8].map((delay) => line.read(delay))).toEqual([20, 19, 13]);
    expect(line.readBetween(5)).toBeCloseTo(16, 9);
  });

  it("is flat between samples within 0.1 dB up to 15 kHz at 44.1 kHz, and as late as is asked", () => {
    for (const delay of [5, 5.25, 7.5, 20.125, 33.9])
      for (const hz of [50, 1000, 5000, 10_000, 15_000]) {
        const { dB, late } = readAt(hz, delay);
        expect(Math.abs(dB), `${hz} Hz at ${delay}`).toBeLessThan(0.1);
        expect(Math.abs(late), `${hz} Hz at ${delay}`).toBeLessThan(0.02);
      }
  });

  it("meets itself from one place between samples to the next, without a step", () => {
    const line = new DelayLine(64);
    for (let i = 0; i < 64; i++) line.write(Math.sin(i * 1.3));
    for (const delay of [9, 9.0078125, 9.5, 10]) {
      const step = line.readBetween(delay + 1e-9) - line.readBetween(delay - 1e-9);
      expect(Math.abs(step)).toBeLessThan(1e-7);
    }
  });
});
