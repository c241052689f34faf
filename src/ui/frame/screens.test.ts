import { expect, it } from "vitest";
import { SCREENS, addressOf } from "./screens";

const PAGES = Object.keys(import.meta.glob("../../app/*/page.tsx")).map((file) => `/${file.split("/").at(-2)!}`);

it("are all that have a page, each once, each with a way that leads to it and keys of its own", () => {
  expect(SCREENS.map((screen) => screen.path).toSorted()).toEqual(PAGES.toSorted());
  const keys = SCREENS.flatMap((screen) => screen.ways.flatMap((way) => way.keys));
  expect(new Set(keys).size).toBe(keys.length);
  for (const screen of SCREENS) {
    expect(addressOf(screen, { project: null, bench: null })).toBe(screen.path);
    expect(addressOf(screen, { project: "neap-tide", bench: "/bench?preset=rim" }).startsWith(screen.path)).toBe(true);
  }
});
