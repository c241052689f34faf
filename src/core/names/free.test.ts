import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { withoutClashes } from "./free";
import { fold } from "./words";

describe("clashes", () => {
  it("are numbered, also against what is there, case and accents aside", () => {
    expect(withoutClashes(["Room", "Room", "Éclat"], ["room 2", "eclat"])).toEqual(["Room", "Room 3", "Éclat 2"]);
  });
  it("are gone afterwards, whatever the names", () => {
    const names = fc.array(fc.constantFrom("a", "A", "b", "b 2", "ä"), { maxLength: 12 });
    fc.assert(
      fc.property(names, names, (wanted, taken) => {
        const free = withoutClashes(wanted, taken);
        expect(new Set(free.map(fold)).size).toBe(free.length);
        for (const name of free) expect(taken.map(fold)).not.toContain(fold(name));
      }),
    );
  });
});
