import { describe, expect, it } from "vitest";
import { liftInside } from "../library/inside";
import { liftLibrarySteps } from "../library/migrations";
import { liftCard } from "./migrations";
import { emptyCard } from "./preset";

describe("what stands in a column", () => {
  it("of a card is whole, whatever an earlier Diathesis did not know", () => {
    expect(liftCard({ name: "Choir air" })).toEqual(emptyCard("Choir air"));
    const card = { ...emptyCard("Choir air"), rating: 4, tags: ["soft"], icon: "voice" };
    expect(liftCard(JSON.parse(JSON.stringify(card)))).toEqual(card);
  });

  it("of what is inside has a list for each thing that is looked for", () => {
    const first = { names: ["Desk"], models: ["Console EQ"], families: ["equaliser"], makers: ["Diathesis"] };
    expect(liftInside(first)).toEqual({ ...first, length: 0, found: [] });
  });

  it("is refused where nobody wrote it", () => {
    for (const stored of [null, 3, "card", {}, { name: 3 }]) expect(() => liftCard(stored)).toThrow("not a card");
    for (const stored of [null, "inside"]) expect(() => liftInside(stored)).toThrow("what is inside");
    for (const stored of [null, {}, "steps"]) expect(() => liftLibrarySteps(stored)).toThrow("not steps");
  });
});
