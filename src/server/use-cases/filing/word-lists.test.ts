import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { INCLUDED } from "@/core/packs/included";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import { refused, value } from "../../testing";
import { findPresets, findValues } from "../find-presets";
import { installPack } from "../packs";
import { patchCards } from "./cards";
import { libraryHistory, walkLibrary } from "./history";
import { changeWords } from "./word-lists";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-words-"));
  context = await openContext(folder);
  await loadDemo(context);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const cards = async () => (await findPresets(context, { sort: "name", limit: 500 })).items.map((p) => [p.id, p.card]);
const valuesOf = (field: "tag" | "for" | "artist" | "client" | "performer", begun?: string) =>
  findValues(context, { field, ...(begun === undefined ? {} : { begun }) }).values;

describe("words in order", () => {
  it("are renamed on every card, merged where the other is there, and all of it is one undo", async () => {
    const before = await cards();
    const [warm, close] = ["warm", "close"].map((tag) => valuesOf("tag", tag)[0]!.n);
    const made = value(await changeWords(context, { list: "tags", from: ["warm"], to: "close" }));
    expect(made).toEqual({ changed: warm, ofPacks: 0 });
    expect(valuesOf("tag", "warm")).toEqual([]);
    expect(valuesOf("tag", "close")[0]!.n).toBeLessThanOrEqual(warm! + close!);
    expect((await libraryHistory(context)).undo).toBe("Call “warm” “close”");
    value(await walkLibrary(context, "undo"));
    expect(await cards()).toEqual(before);
  });

  it("are one name for people, wherever cards name them", async () => {
    const heron = valuesOf("artist", "copper")[0]!;
    value(await changeWords(context, { list: "people", from: ["Copper Heron", "Maren Ask"], to: "The Herons" }));
    expect([valuesOf("artist", "copper"), valuesOf("performer", "maren")]).toEqual([[], []]);
    expect(valuesOf("artist", "herons")).toEqual([{ value: "The Herons", n: heron.n }]);
    expect(valuesOf("performer", "herons").length).toBe(1);
  });

  it("are taken away, and what no card says is refused", async () => {
    value(await changeWords(context, { list: "people", from: ["Copper Heron"], to: null }));
    expect(valuesOf("artist", "copper")).toEqual([]);
    const again = refused(await changeWords(context, { list: "people", from: ["Copper Heron"], to: null }));
    expect(again).toEqual({ code: "refused", path: "from" });
  });

  it("are refused where a card could not hold what it would say", async () => {
    const before = await cards();
    value(await changeWords(context, { list: "people", from: ["Copper Heron"], to: "Heron and Clocks" }));
    const [first] = (await findPresets(context, { q: "artist:heron", limit: 1 })).items;
    const artist = `${first!.card.origin.artist}; ${"x".repeat(20)}`;
    const card = { origin: { ...first!.card.origin, artist } };
    value(await patchCards(context, { changes: [{ id: first!.id, baseCard: first!.cardRevision, card }] }));
    const long = await changeWords(context, { list: "people", from: ["Heron and Clocks"], to: "y".repeat(199) });
    expect(refused(long)).toEqual({ code: "refused", path: "to" });
    expect((await cards()).length).toBe(before.length);
  });

  const said = (field: "tag" | "for", word: string) => valuesOf(field, word).find((one) => one.value === word)?.n ?? 0;

  it("are tags of packs, too, which are the person's own to set", async () => {
    await installPack(context, INCLUDED);
    const [tag] = INCLUDED.presets.flatMap(({ card }) => card.tags) as [string];
    const all = said("tag", tag);
    const made = value(await changeWords(context, { list: "tags", from: [tag], to: "quite another" }));
    expect(made).toEqual({ changed: all, ofPacks: 0 });
    expect([said("tag", tag), said("tag", "quite another")]).toEqual([0, all]);
  });

  it("are left as all else on what comes with a pack", async () => {
    await installPack(context, INCLUDED);
    const purpose = INCLUDED.presets.map(({ card }) => card.purpose).find((one) => one !== "")!;
    const all = said("for", purpose);
    const made = await changeWords(context, { list: "purposes", from: [purpose], to: "quite another" });
    const left = said("for", purpose);
    expect(left).toBeGreaterThan(0);
    if (made.ok) expect([made.value.changed + made.value.ofPacks, made.value.ofPacks]).toEqual([all, left]);
    else expect(left).toBe(all);
  });
});
