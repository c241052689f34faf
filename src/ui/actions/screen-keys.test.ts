import { expect, it } from "vitest";
import { KEY_USES_ANYWHERE } from "./screen-keys";

const SOURCES = import.meta.glob(["../**/*.ts", "../**/*.tsx", "!../**/*.test.*"], {
  query: "?raw",
  import: "default",
  eager: true,
});

it("are all that any screen offers", () => {
  const written = Object.values(SOURCES).flatMap((source) =>
    [...(source as string).matchAll(/keys: (?:[^[\n]*\? )?\[([^\]]*)\]/g)].flatMap(([, list]) =>
      [...(list ?? "").matchAll(/"([^"]+)"/g)].map(([, key]) => key ?? ""),
    ),
  );
  expect(written.length).toBeGreaterThan(50);
  const known = new Set(KEY_USES_ANYWHERE.map(({ keys }) => keys));
  expect([...new Set(written)].filter((key) => !known.has(key))).toEqual([]);
});
