import { describe, expect, it } from "vitest";
import { type Card, emptyCard } from "../presets/preset";
import { proposeCard } from "./proposal";

const card = (name: string, more: Partial<Card>): Card => ({ ...emptyCard(name), ...more });
const heron = (strip: string, more: Partial<Card> = {}, played = {}): Card =>
  card(strip, { ...more, origin: { artist: "Copper Heron", strip, ...played } });
const KNOWN = { artist: "Copper Heron", strip: "Cello" };
const OSKAR = { performer: "Oskar Vane", microphone: "ribbon pair" };

describe("a proposal for a card", () => {
  it("follows the preset that the sound was loaded from", () => {
    const loaded = card("Wood", { folder: "bowed", purpose: "Bowed", tags: ["warm"] });
    const others = [heron("Cello", { folder: "other", purpose: "Other", tags: ["x"] }, OSKAR)];
    expect(proposeCard(KNOWN, loaded, others)).toEqual({
      folder: "bowed",
      purpose: "Bowed",
      tags: ["warm"],
      played: OSKAR,
    });
  });
  it("else the same artist's strip of that name, else anybody's, whatever their case and accents", () => {
    const anybody = card("a", { folder: "anybody", purpose: "Anybody", origin: { artist: "Else", strip: "CÉLLO" } });
    const own = heron("cello", { folder: "own", purpose: "Own" });
    expect(proposeCard(KNOWN, null, [anybody, own])).toMatchObject({ folder: "own", purpose: "Own" });
    expect(proposeCard(KNOWN, null, [anybody])).toMatchObject({ folder: "anybody", purpose: "Anybody" });
    expect(proposeCard(KNOWN, null, [heron("Voice", { folder: "voices" })])).toMatchObject({
      folder: null,
      purpose: "Cello",
    });
  });
  it("never says that somebody else's player played", () => {
    const theirs = card("a", { origin: { artist: "Else", strip: "Cello", performer: "Somebody" } });
    expect(proposeCard(KNOWN, null, [theirs, heron("Voice", {}, OSKAR)]).played).toEqual({});
    expect(proposeCard(KNOWN, null, [theirs, heron("Cello", {}, OSKAR)]).played).toEqual(OSKAR);
  });
  it("takes tags that most of the same artist's have, and none from a single one", () => {
    const cards = [["warm", "wide"], ["warm"], ["warm", "close"]].map((tags) => heron("Cello", { tags }));
    expect(proposeCard(KNOWN, null, cards).tags).toEqual(["warm"]);
    expect(proposeCard(KNOWN, null, cards.slice(0, 1)).tags).toEqual([]);
  });
  it("of nothing known is empty", () => {
    expect(proposeCard({ artist: "", strip: "" }, null, [])).toEqual({
      folder: null,
      purpose: "",
      tags: [],
      played: {},
    });
  });
});
