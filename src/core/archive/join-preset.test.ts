import { describe, expect, it } from "vitest";
import { INCLUDED } from "../packs/included";
import { fingerprint } from "../presets/fingerprint";
import { emptyCard } from "../presets/preset";
import { type FiledPreset, lineageOf } from "./documents";
import { type OwnPreset, filingOf, joinPreset, refiled } from "./join-preset";

const { content } = INCLUDED.presets[0]!;
const at = (minute: number): string => new Date(Date.UTC(2026, 10, 2, 10, minute)).toISOString();

const filed = (more: Partial<FiledPreset> = {}): FiledPreset => ({
  diathesis: "preset",
  form: 1,
  id: "p1",
  pack: null,
  card: emptyCard("Mine"),
  filedAt: at(0),
  binnedAt: null,
  mergedInto: null,
  usedAt: null,
  versions: [{ version: 1, savedAt: at(0), name: null, basedOn: null, content, fingerprint: fingerprint(content) }],
  ...more,
});

const here = (id: string): string => id;

const own = (preset: FiledPreset): OwnPreset => ({ ...preset, ...filingOf(preset, here), versions: lineageOf(preset) });

const standing = (mine: FiledPreset, theirs: FiledPreset) =>
  joinPreset(own(mine), theirs, filingOf(theirs, here)).standing;

const version = (n: number, minute: number): FiledPreset["versions"][number] => ({
  ...filed().versions[0]!,
  version: n,
  savedAt: at(minute),
});

describe("A preset that comes in", () => {
  const [one] = filed().versions;
  const more = (...minutes: readonly number[]) =>
    filed({ versions: [one!, ...minutes.map((minute, n) => version(n + 2, minute))] });

  it("is the same, newer, older, or forked", () => {
    expect(standing(filed(), filed())).toBe("same");
    expect(standing(filed(), more(5))).toBe("newer");
    expect(standing(more(5), filed())).toBe("older");
    expect(standing(more(5), more(6))).toBe("forked");
  });

  it("is newer where only its card is, whatever its versions lack; from the other side it is older", () => {
    const renamed = filed({ card: emptyCard("Yours"), filedAt: at(9) });
    expect(standing(filed(), renamed)).toBe("newer");
    expect(standing(more(5), renamed)).toBe("newer");
    expect(standing(renamed, filed())).toBe("older");
    const binned = filed({ binnedAt: at(9), filedAt: at(9) });
    expect(standing(filed(), binned)).toBe("newer");
    const named = filed({ versions: [{ ...one!, name: "Vocal take" }], filedAt: at(9) });
    expect(standing(filed(), named)).toBe("newer");
  });

  it("is judged the same way from both sides where both were filed in the same instant", () => {
    const [a, b] = [filed({ card: emptyCard("A") }), filed({ card: emptyCard("B") })];
    expect([standing(a, b), standing(b, a)].sort()).toEqual(["newer", "older"]);
  });

  it("of a pack is held against what the person set beside it only", () => {
    const pack = filed({ pack: "Included" });
    const louder = filed({ pack: "Included", card: { ...emptyCard("Other words"), rating: 0 }, filedAt: at(9) });
    expect(standing(pack, louder)).toBe("same");
    expect(standing(pack, filed({ pack: "Included", card: { ...pack.card, rating: 4 }, filedAt: at(9) }))).toBe(
      "newer",
    );
    expect(standing(pack, { ...more(7), pack: "Included" })).toBe("same");
  });
});

describe("A card in other folders", () => {
  it("lies in each once, and in none where its home is in none", () => {
    const card = { ...emptyCard("x"), folder: "a", alsoIn: ["b", "c"] };
    const to = (map: Readonly<Record<string, string>>) => {
      const { folder, alsoIn } = refiled(card, (id) => map[id] ?? null);
      return { folder, alsoIn };
    };
    expect(to({ a: "a", b: "a", c: "d" })).toEqual({ folder: "a", alsoIn: ["d"] });
    expect(to({ b: "b" })).toEqual({ folder: "b", alsoIn: undefined });
    expect(to({})).toEqual({ folder: null, alsoIn: undefined });
  });
});
