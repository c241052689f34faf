import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { stereoOf } from "../testing";
import { MaterialReel } from "./reels";

const RATE = 8000;
const FADE = 96;
const LEVEL = 0.25;
const TONE = 50;

/** A loop that meets itself: whole turns of a low tone. */
const tone = (seconds: number) =>
  stereoOf(seconds * RATE, RATE, (i) => LEVEL * Math.sin((2 * Math.PI * TONE * i) / RATE));

/** A loop that tells where it is. */
const ramp = stereoOf(RATE, RATE, (i) => i / RATE);

/** The steepest the tone is, and what a fade from one end of it to the other adds. */
const STEEPEST = (LEVEL * 2 * Math.PI * TONE) / RATE + (2 * LEVEL) / FADE;

function read(reel: MaterialReel, count: number): Float32Array {
  const heard = new Float32Array(count);
  for (let at = 0; at < count; at += 32) {
    const now = Math.min(32, count - at);
    reel.read(now);
    heard.set(reel.left.subarray(0, now), at);
  }
  return heard;
}

const STRETCH = fc
  .tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }))
  .map(([a, b]) => ({ from: Math.min(a, b), to: Math.max(a, b) }));

/** What a hand does, and how long it is listened to after that. */
const GESTURE = fc.tuple(
  fc.oneof(
    fc.record({ seek: fc.double({ min: 0, max: 1, noNaN: true }) }),
    fc.record({ stretch: fc.option(STRETCH) }),
    fc.record({ loop: fc.constantFrom(1, 2) }),
  ),
  fc.integer({ min: 1, max: 3000 }),
);

describe("the material", () => {
  it("never clicks, whatever is leapt to and however quickly", () =>
    fc.assert(
      fc.property(fc.array(GESTURE, { maxLength: 12 }), (gestures) => {
        const reel = new MaterialReel(32, 1 / FADE);
        reel.set(tone(1));
        let last = read(reel, 7).at(-1)!;
        for (const [gesture, count] of gestures) {
          if ("seek" in gesture) reel.seek(gesture.seek);
          else if ("stretch" in gesture) reel.setStretch(gesture.stretch);
          else reel.set(tone(gesture.loop));
          for (const sample of read(reel, count)) {
            expect(Math.abs(sample - last)).toBeLessThanOrEqual(STEEPEST * 1.001);
            last = sample;
          }
        }
      }),
    ));

  it("goes on where it is told to", () => {
    const reel = new MaterialReel(32, 1 / FADE);
    reel.set(ramp);
    reel.seek(0.5);
    expect(read(reel, 1000).at(-1)).toBeCloseTo(0.5 + 999 / RATE, 4);
    expect(reel.progress).toBeCloseTo(0.5 + 1000 / RATE, 4);
  });

  it("stays within a stretch, round and round, and goes on through all of it when that is let go", () => {
    const reel = new MaterialReel(32, 1 / FADE);
    reel.set(ramp);
    reel.setStretch({ from: 0.25, to: 0.5 });
    read(reel, FADE);
    const places = new Set<number>();
    for (let i = 0; i < 3 * RATE; i += 32) {
      read(reel, 32);
      places.add(Math.floor(reel.progress * 20));
    }
    expect([...places].toSorted((a, b) => a - b)).toEqual([5, 6, 7, 8, 9]);
    reel.setStretch(null);
    read(reel, RATE / 2);
    expect(reel.progress).toBeGreaterThan(0.5);
  });

  it("does not leave the stretch for a place outside of it, and forgets it with another loop", () => {
    const reel = new MaterialReel(32, 1 / FADE);
    reel.set(ramp);
    reel.setStretch({ from: 0.25, to: 0.5 });
    read(reel, FADE + 1);
    reel.seek(0.9);
    read(reel, 2 * FADE);
    expect(reel.progress).toBeLessThan(0.5);
    reel.set(tone(1));
    read(reel, 2 * FADE + (3 * RATE) / 4);
    expect(reel.progress).toBeGreaterThan(0.5);
  });
});
