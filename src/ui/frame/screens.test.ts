import { expect, it } from "vitest";
import { SCREENS, addressOf, benchAddress } from "./screens";

const PAGES = Object.keys(import.meta.glob("../../app/*/page.tsx")).map((file) => `/${file.split("/").at(-2)!}`);

const NONE = { project: null, strips: [], bench: null, last: "bench" } as const;

it("are all that have a page, each once, each with a way that leads to it and keys of its own", () => {
  expect(SCREENS.map((screen) => screen.path).toSorted()).toEqual(PAGES.toSorted());
  const keys = SCREENS.flatMap((screen) => screen.ways.flatMap((way) => way.keys));
  expect(new Set(keys).size).toBe(keys.length);
  for (const screen of SCREENS) {
    expect(addressOf(screen, { ...NONE })).toBe(screen.path);
    expect(
      addressOf(screen, { ...NONE, project: "neap-tide", bench: "/bench?preset=rim" }).startsWith(screen.path),
    ).toBe(true);
  }
});

it("the bench opens what the head of the screen names: never a strip of another project", () => {
  const horn = { ...NONE, project: "neap-tide", strips: ["horn"] };
  const cello = "/bench?project=salt-lanterns&strip=cello";
  expect(benchAddress({ ...horn, bench: cello, last: "bench" })).toBe("/bench?project=neap-tide&strip=horn");
  expect(benchAddress({ ...NONE, project: "neap-tide", bench: cello })).toBe("/bench");
  // A sound of the library that was put on the bench since, and a strip that was chosen since.
  expect(benchAddress({ ...horn, bench: "/bench?preset=rim" })).toBe("/bench?preset=rim");
  expect(benchAddress({ ...horn, bench: "/bench?preset=rim", last: "strips" })).toBe(
    "/bench?project=neap-tide&strip=horn",
  );
  // What is inside an instrument of the strip in hand is of that strip.
  const inside = "/bench?project=neap-tide&strip=horn&layer=l1";
  expect(benchAddress({ ...horn, bench: inside, last: "strips" })).toBe(inside);
});
