// @vitest-environment jsdom
import { waitFor } from "@testing-library/react";
import { QueryClient } from "@tanstack/react-query";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { type House, openHouse, presetOf } from "@/app/testing/house";
import { pressSaid, said } from "@/app/testing/said";
import { LONGEST_NAME } from "@/core/names/free";
import { INCLUDED } from "@/core/packs/included";
import { value } from "@/server/testing";
import { patchCards } from "@/server/use-cases/filing/cards";
import { findPresets } from "@/server/use-cases/find-presets";
import { savePresets } from "@/server/use-cases/library";
import { installPack } from "@/server/use-cases/packs";
import { duplicate, vary } from "./copies";
import { refetchWalked } from "./filing";

vi.mock("../kit/say", () => import("@/app/testing/said"));

const CONTENT = INCLUDED.presets.find((p) => p.content.kind === "plugin")!.content;

let house: House;
const queries = new QueryClient();

beforeEach(async () => {
  said.length = 0;
  house = await openHouse();
});

afterEach(() => house.close());

const keep = async (...names: readonly string[]) =>
  value(await savePresets(house.context, { presets: names.map((name) => presetOf(CONTENT, { name, rating: 4 })) }));
const all = async () => (await findPresets(house.context, { sort: "name", limit: 500 })).items;
const names = async () => (await all()).map((p) => p.card.name);

describe("copies", () => {
  it("are made all at once, under names that are free, and know what they were made from", async () => {
    const rows = await keep("Rim", "Air", "Air, copy");
    await duplicate(queries, rows.slice(0, 2));
    expect(await names()).toEqual(["Air", "Air, copy", "Air, copy 2", "Rim", "Rim, copy"]);
    expect(said).toEqual(["Made copies of 2 sounds"]);
    const made = (await all()).find((p) => p.card.name === "Rim, copy")!;
    expect(made).toMatchObject({
      pack: null,
      card: { rating: 4, origin: { from: { preset: rows[0]!.id, version: 1 } } },
    });
    expect(made.content).toEqual(rows[0]!.content);
    expect(house.asked.filter((a) => a.startsWith("POST"))).toEqual(["POST /api/names", "POST /api/presets/batch"]);
  });

  it("go into the bin by their undo, also once this window has changed their cards", async () => {
    const [rim] = await keep("Rim");
    await duplicate(queries, [rim!]);
    const made = (await all()).find((p) => p.card.name === "Rim, copy")!;
    const changes = [{ id: made.id, baseCard: made.cardRevision, card: { ...made.card, rating: 1 } }];
    const [card] = value(await patchCards(house.context, { changes, label: "Give “Rim, copy” one star" }));
    await refetchWalked(queries, [{ ...made, ...card! }]);
    pressSaid();
    await waitFor(async () => expect(await names()).toEqual(["Rim"]));
    expect(said).toEqual(["Made a copy of “Rim”"]);
  });

  it("of copies are further copies of the same", async () => {
    const [, copy] = await keep("Rim", "Rim, copy");
    await duplicate(queries, [copy!]);
    await duplicate(queries, [copy!]);
    expect(await names()).toEqual(["Rim", "Rim, copy", "Rim, copy 2", "Rim, copy 3"]);
  });

  it("find a free name among more copies than one page holds", async () => {
    const many = Array.from({ length: 620 }, (_, n) => (n === 0 ? "Rim, copy" : `Rim, copy ${n + 1}`));
    const [rim] = await keep("Rim", ...many);
    await duplicate(queries, [rim!]);
    expect((await findPresets(house.context, { q: 'name:"Rim, copy 621"' })).total).toBe(1);
  });

  it("of the longest names are no longer than that", async () => {
    const [long] = await keep("x".repeat(LONGEST_NAME));
    await duplicate(queries, [long!]);
    await duplicate(queries, [long!]);
    const lengths = (await names()).map((name) => name.length);
    expect(Math.max(...lengths)).toBe(LONGEST_NAME);
    expect(new Set(await names()).size).toBe(3);
  });

  it("of what comes with a pack are one's own", async () => {
    await installPack(house.context, INCLUDED);
    const [packed] = (await findPresets(house.context, { q: "pack:included kind:plugin" })).items;
    await duplicate(queries, [packed!]);
    const [made] = (await findPresets(house.context, { only: "pack:own" })).items;
    expect(made).toMatchObject({ pack: null, card: { name: `${packed!.card.name}, copy` } });
  });

  it("to be turned are called so", async () => {
    const [rim] = await keep("Rim");
    const made = await vary(queries, rim!);
    expect(made.card.name).toBe("Rim, variation");
    expect((await vary(queries, made)).card.name).toBe("Rim, variation 2");
    expect(said.at(-1)).toBe("Made “Rim, variation 2”");
  });
});
