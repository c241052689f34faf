import { describe, expect, it } from "vitest";
import { DelayLine } from "../dsp/delay-line";
import { noise, setTo } from "../sound/testing";
import type { Kernel } from "./kernel";
import { findKernel } from "./kernels";
import { defaultValues } from "./model";
import { EFFECTS } from "./models";

const RATE = 48_000;
const BLOCK = 480;

/** A number somewhere in a kernel, and how it is set. */
interface Slot {
  readonly path: string;
  readonly get: () => number;
  readonly set: (value: number) => void;
}

/** Every number that a kernel remembers outside of its rings of samples, whatever it stands in. */
function slotsIn(thing: object, path = "", seen = new Set<object>()): readonly Slot[] {
  if (seen.has(thing)) return [];
  seen.add(thing);
  return Object.entries(thing).flatMap(([name, value]: [string, unknown]): readonly Slot[] => {
    const own = `${path}.${name}`;
    if (typeof value === "number") {
      const holder = thing as Record<string, number>;
      return [{ path: own, get: () => holder[name]!, set: (next) => (holder[name] = next) }];
    }
    if (typeof value !== "object" || value === null || ArrayBuffer.isView(value)) return [];
    return slotsIn(value, own, seen);
  });
}

const sound = noise(2, RATE, 5);

function run(kernel: Kernel, from: number, to: number): Float32Array {
  const [left, right] = [sound.left.slice(from, to), sound.right.slice(from, to)];
  for (let at = 0; at < left.length; at += BLOCK) kernel.process(left, right, at, Math.min(left.length, at + BLOCK));
  return left;
}

const begun = (id: string): Kernel => {
  const model = EFFECTS.find((one) => one.id === id)!;
  const kernel = findKernel(id)!(RATE);
  kernel.set(setTo(model, defaultValues(model)), true);
  return kernel;
};

/** A place in a ring, which comes back to its beginning: what is below says so, and a long ring has not come round here. */
const isPlace = (path: string): boolean => path.endsWith(".written");

/** Numbers that count what has been heard: in each of two stretches they grow by as much as it has samples. */
function clocksIn(kernel: Kernel): readonly string[] {
  const slots = slotsIn(kernel);
  const values = () => slots.map(({ get }) => get());
  const stretch = 40 * BLOCK;
  run(kernel, 0, stretch);
  const first = values();
  run(kernel, stretch, 2 * stretch);
  const second = values();
  // Every fourth sample is counted, too.
  return slots
    .filter((_, n) => [1, 4].some((part) => second[n]! - first[n]! === stretch / part))
    .map(({ path }) => path)
    .filter((path) => !isPlace(path));
}

describe.each(EFFECTS.filter(({ hearable }) => hearable).map(({ id }) => id))("the kernel of %s", (id) => {
  // What counts samples in 32 bits ends after 12.4 hours; what adds fractions to a long count loses them.
  it.each([2 ** 31 - 1000, 2 ** 53 / 4])("does not care that it has heard %d samples", (heard) => {
    const clocks = clocksIn(begun(id));
    const [fresh, old] = [begun(id), begun(id)];
    for (const slot of slotsIn(old)) if (clocks.includes(slot.path)) slot.set(slot.get() + heard);
    expect(run(old, 0, 40 * BLOCK)).toEqual(run(fresh, 0, 40 * BLOCK));
  });

  it("counts nothing beyond what its rings hold, but for the times of a sliding least", () => {
    expect(clocksIn(begun(id)).filter((path) => path !== ".least.time")).toEqual([]);
  });
});

describe("the place in a ring", () => {
  it("of a delay line is within the ring, however much has been written, and reads what was", () => {
    const line = new DelayLine(100);
    const written = () =>
      slotsIn(line)
        .find(({ path }) => path === ".written")!
        .get();
    for (let n = 0; n < 1000; n++) {
      line.write(n);
      expect(written()).toBeLessThan(128);
      if (n > 90) expect([line.read(1), line.read(90)]).toEqual([n, n - 89]);
    }
    line.writeBlock(
      Float64Array.from({ length: 200 }, (_, n) => 1000 + n),
      200,
    );
    line.writeFrom(
      Float32Array.from({ length: 300 }, (_, n) => 1200 + n),
      0,
      300,
    );
    expect(written()).toBeLessThan(128);
    expect([line.read(1), line.read(90)]).toEqual([1499, 1410]);
  });

  it("of every reverb and delay comes round", () => {
    let rings = 0;
    for (const { id } of EFFECTS.filter(({ family }) => family === "reverb" || family === "delay")) {
      const kernel = begun(id);
      const places = slotsIn(kernel).filter(({ path }) => isPlace(path));
      rings += places.length;
      // As after as much as no ring holds, but for a block.
      for (const { get, set } of places) set(get() + 2 ** 22 - BLOCK);
      run(kernel, 0, 2 * BLOCK);
      for (const { path, get } of places) expect(get(), `${id}${path}`).toBeLessThan(2 ** 22 - BLOCK);
    }
    expect(rings).toBeGreaterThan(4);
  });
});
