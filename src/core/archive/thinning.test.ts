import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NO_SETTINGS } from "../settings/settings";
import { isDue, thinnedOut } from "./thinning";

const USUAL_PLAN = NO_SETTINGS.backups;

const HOUR = 3_600_000;
const BEGIN = Date.UTC(2026, 0, 1);

const times = fc
  .uniqueArray(fc.integer({ min: 0, max: 24 * 400 }), { maxLength: 120 })
  .map((hours) => hours.map((hour) => new Date(BEGIN + hour * HOUR)));

const kept = (made: readonly Date[], plan = USUAL_PLAN): readonly Date[] => {
  const gone = new Set(thinnedOut(made, plan));
  return made.filter((at) => !gone.has(at)).toSorted((a, b) => a.getTime() - b.getTime());
};

describe("Backups that are thinned", () => {
  it("keep the newest, and once more nothing goes", () => {
    fc.assert(
      fc.property(times, (made) => {
        const left = kept(made);
        expect(kept(left)).toEqual(left);
        const newest = made.toSorted((a, b) => b.getTime() - a.getTime())[0];
        if (newest) expect(left).toContain(newest);
        expect(left.length).toBeLessThanOrEqual(7 + 4 + 6);
      }),
    );
  });

  it("one made and thinned after the other are as if all had been thinned at the end", () => {
    fc.assert(
      fc.property(times, (made) => {
        let left: readonly Date[] = [];
        for (const at of made.toSorted((a, b) => a.getTime() - b.getTime())) left = kept([...left, at]);
        // The newest of a stretch is the same, whichever went before.
        expect(left.at(-1)).toEqual(kept(made).at(-1));
        expect(left.length).toBe(kept(made).length);
      }),
    );
  });

  it("made every day for a year are those of a week of days, four weeks and six months", () => {
    const daily = Array.from({ length: 365 }, (_, day) => new Date(BEGIN + day * 24 * HOUR + 20 * HOUR));
    const left = kept(daily).map((at) => at.toISOString().slice(0, 10));
    expect(left).toEqual([
      "2026-07-31",
      "2026-08-31",
      "2026-09-30",
      "2026-10-31",
      "2026-11-30",
      "2026-12-13",
      "2026-12-20",
      "2026-12-25",
      "2026-12-26",
      "2026-12-27",
      "2026-12-28",
      "2026-12-29",
      "2026-12-30",
      "2026-12-31",
    ]);
  });
});

describe("A backup is due", () => {
  it("where none was made, and a day or a week after the last", () => {
    const last = new Date(BEGIN);
    const after = (hours: number) => new Date(BEGIN + hours * HOUR);
    expect(isDue(USUAL_PLAN, null, last)).toBe(true);
    expect(isDue(USUAL_PLAN, last, after(23))).toBe(false);
    expect(isDue(USUAL_PLAN, last, after(24))).toBe(true);
    expect(isDue({ ...USUAL_PLAN, every: "week" }, last, after(24 * 6))).toBe(false);
    expect(isDue({ ...USUAL_PLAN, every: "week" }, last, after(24 * 7))).toBe(true);
    expect(isDue({ ...USUAL_PLAN, every: "never" }, null, last)).toBe(false);
  });
});
