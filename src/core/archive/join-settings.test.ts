import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { NO_SETTINGS, type Settings } from "../settings/settings";
import { type CountedSettings, joinSettings } from "./join-settings";

const some = fc.record({
  revision: fc.nat(3),
  settings: fc.record({
    patterns: fc.constantFrom<Settings["patterns"]>(
      {},
      { chain: ["{name}"] },
      { chain: ["{song}"], strip: ["{name}"] },
    ),
    searches: fc.uniqueArray(
      fc.record({
        id: fc.constantFrom("s1", "s2", "s3"),
        name: fc.constantFrom("Mine", "Yours"),
        q: fc.constant("kick"),
        only: fc.constant(""),
        folder: fc.constant(null),
      }),
      { selector: (s) => s.id },
    ),
    shortcuts: fc.uniqueArray(
      fc.record({ keys: fc.constantFrom("Q A", "Q B"), does: fc.constantFrom({ preset: "p1" }, { model: "m1" }) }),
      { selector: (s) => JSON.stringify(s.does) },
    ),
    startingPoints: fc.uniqueArray(
      fc.record({
        model: fc.constantFrom("m1", "m2"),
        strip: fc.constant(null),
        preset: fc.constantFrom("p1", "p2"),
        version: fc.constantFrom(null, 2),
      }),
      { selector: (s) => s.model },
    ),
    apart: fc.constantFrom<string[][]>([], [["p1", "p2"]]),
    choices: fc.constant([]),
    lastParts: fc.constantFrom<Settings["lastParts"]>({}, { strip: ["sends"] }),
    backups: fc.constant(NO_SETTINGS.backups),
  }),
}) as fc.Arbitrary<CountedSettings>;

describe("Settings of two sides", () => {
  it("are the same from both sides, and with what came of it that again", () => {
    fc.assert(
      fc.property(some, some, (a, b) => {
        const both = joinSettings(a, b);
        expect(joinSettings(b, a)).toEqual(both);
        expect(joinSettings(both, a).settings).toEqual(both.settings);
        expect(joinSettings(b, both).settings).toEqual(both.settings);
      }),
    );
  });

  it("hold what either has set up", () => {
    const mine = { revision: 2, settings: { ...NO_SETTINGS, searches: [search("a", "Mine")] } };
    const yours = { revision: 5, settings: { ...NO_SETTINGS, searches: [search("a", "Yours"), search("b", "More")] } };
    expect(joinSettings(mine, yours).settings.searches.map((s) => s.name)).toEqual(["Yours", "More"]);
  });
});

const search = (id: string, name: string) => ({ id, name, q: "", only: "", folder: null });
