import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { PARTS } from "../strips/parts";
import { beginWith, choiceOf, choicesFor, onlyWords, rememberedAs, takenBy, usualOf } from "./choices";

const someHeld = fc.subarray([...PARTS], { minLength: 1 });

describe("named choices of parts", () => {
  it("take only what there is, and no two offered take the same", () => {
    fc.assert(
      fc.property(someHeld, someHeld, (held, own) => {
        const offered = choicesFor([{ name: "Mine", parts: own }], held);
        const taken = offered.map((choice) => takenBy(choice, held).join());
        expect(new Set(taken).size).toBe(taken.length);
        expect(taken[0]).toBe(held.join());
        for (const choice of offered) expect(choiceOf(offered, held, takenBy(choice, held))).toBe(choice);
      }),
    );
  });
  it("are remembered for what holds other parts: all stays all, some stay those, none of them is all", () => {
    expect(rememberedAs(["inserts", "sends"], ["inserts", "sends"])).toBeNull();
    expect(rememberedAs(["inserts", "sends"], ["sends"])).toEqual(["sends"]);
    expect(beginWith(["inserts", "sends", "level"], ["sends"])).toEqual(["sends"]);
    expect(beginWith(["inserts", "level"], ["sends"])).toEqual(["inserts", "level"]);
    expect(beginWith(["inserts"], undefined)).toEqual(["inserts"]);
  });
  it("leave clips to who asks for them", () => {
    const held = ["inserts", "level", "media"] as const;
    expect(usualOf(held)).toEqual(["inserts", "level"]);
    expect(usualOf(["media"])).toEqual(["media"]);
    expect(beginWith(held, undefined)).toEqual(["inserts", "level"]);
    expect(rememberedAs(held, ["inserts", "level"])).toBeNull();
    expect(beginWith(held, rememberedAs(held, held) ?? [])).toEqual(held);
    expect([onlyWords(held, usualOf(held)), onlyWords(held, held)]).toEqual([null, "with the clips"]);
  });
  it("are told in words where they are not all", () => {
    expect(onlyWords(["inserts", "sends"], ["inserts", "sends"])).toBeNull();
    expect(onlyWords([...PARTS], ["sends"])).toBe("only the sends");
    expect(onlyWords([...PARTS], ["sends", "level", "pan"])).toBe("only the sends, the level and the pan");
  });
});
