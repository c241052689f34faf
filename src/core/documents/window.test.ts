import fc from "fast-check";
import { expect, it } from "vitest";
import { isWindowName, windowName, windowOpened } from "./window";

it("a window's name says when it was opened", () => {
  fc.assert(
    fc.property(
      fc.date({ min: new Date("2001-01-01"), max: new Date("2150-01-01"), noInvalidDate: true }),
      (opened) => {
        const name = windowName(opened, "a0z9");
        expect(isWindowName(name)).toBe(true);
        expect(windowOpened(name)).toEqual(opened);
      },
    ),
  );
});

it("what is no window's name tells nothing", () => {
  for (const name of ["", "abc", "lq2x9k3f-a0z", "LQ2X9K3F-A0Z9", "lq2x9k3f-a0z9\n", "<b>lq2x9k3f-a0z9"]) {
    expect(isWindowName(name)).toBe(false);
    expect(windowOpened(name)).toBeNull();
  }
});
