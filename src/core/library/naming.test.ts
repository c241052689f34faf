import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Card, emptyCard } from "../presets/preset";
import { fold } from "../names/words";
import { type Nameable, faultsOfName, findNamingFaults } from "./naming";

const named = (id: string, name: string, card: Partial<Card> = {}, models = ["VCA compressor"]): Nameable => ({
  id,
  kind: "plugin",
  card: { ...emptyCard(name), ...card },
  inside: { models, found: [] },
});

describe("what is wrong with a name", () => {
  it.each([
    ["???", ["unnamed"]],
    ["12", ["unnamed"]],
    ["Untitled", ["placeholder"]],
    ["new sound", ["placeholder"]],
    ["COMP", ["placeholder"]],
    ["Untitled 2", ["numbered"]],
    ["Audio 3", ["numbered"]],
    ["Preset 12", ["numbered"]],
    ["vox final FINAL", ["placeholder", "copy"]],
    ["Copy of drums", ["copy"]],
    ["Narration leveller (old)", ["copy"]],
    ["Rim and air, copy", ["copy"]],
    ["Rim and air, copy 2", ["copy"]],
  ])("%s: %j", (name, faults) => {
    expect(faultsOfName(name)).toEqual(faults);
  });
  it.each([
    "Narrator, close and calm",
    "Two to one, patient",
    "Nave, three seconds",
    "Harbour pitch, 442",
    "Éclair",
    "Old desk voice",
    "Through the old receiver",
  ])("nothing with “%s”", (name) => {
    expect(faultsOfName(name)).toEqual([]);
  });
});

describe("mending names", () => {
  it("proposes what is known: purpose and character, else strip, plugin and song", () => {
    const [first, second, third] = findNamingFaults([
      named("a", "Untitled", { purpose: "Narration", tags: ["gentle"] }),
      named("b", "comp", { origin: { strip: "Cello", song: "Salt Lanterns" } }),
      named("c", "asdf"),
    ]);
    const of = (id: string) => [first, second, third].find((f) => f?.id === id)!;
    expect(of("a").proposed).toBe("Narration, gentle");
    expect(of("b").proposed).toBe("Cello VCA compressor, Salt Lanterns");
    const heard = findNamingFaults([
      { ...named("d", "asdf"), inside: { models: ["Room reverb"], found: ["short room"] } },
    ]);
    expect(heard[0]!.proposed).toBe("Room reverb, short room");
    expect(of("c")).toEqual({ id: "c", faults: ["placeholder", "origin"], proposed: null });
  });
  it("leaves the first of a name, and tells the others apart by where they are from", () => {
    const found = findNamingFaults([
      named("a", "Voice plate", { purpose: "Voice" }),
      named("b", "voice PLATE", { purpose: "Voice", origin: { song: "Ferry Light" } }),
      named("c", "Voice plate", { purpose: "Voice" }),
    ]);
    expect(found.map((f) => [f.id, f.proposed])).toEqual([
      ["b", "voice PLATE, Ferry Light"],
      ["c", null],
    ]);
  });
  it("never proposes a name that is there, nor one twice, nor one that is faulty", () => {
    const name = fc.constantFrom("Untitled", "Untitled 2", "comp", "Copy of drums", "Narration, gentle", "Voice plate");
    const card = fc.record({
      purpose: fc.constantFrom("", "Narration", "Voice"),
      tags: fc.constantFrom<string[]>([], ["gentle"], ["warm"]),
      origin: fc.constantFrom<Card["origin"]>({}, { strip: "Cello", song: "Salt Lanterns" }, { song: "Ferry Light" }),
    });
    fc.assert(
      fc.property(fc.array(fc.tuple(name, card), { maxLength: 12 }), (list) => {
        const presets = list.map(([n, c], at) => named(String(at), n, c));
        const proposed = findNamingFaults(presets).flatMap((f) => f.proposed ?? []);
        const all = [...new Set(presets.map((p) => fold(p.card.name))), ...proposed.map(fold)];
        expect(new Set(all).size).toBe(all.length);
        for (const one of proposed) expect(faultsOfName(one)).not.toContain("placeholder");
      }),
    );
  });
});
