import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { LONGEST_NAME, withoutClashes } from "@/core/names/free";
import { INCLUDED } from "@/core/packs/included";
import { CardSchema } from "@/core/presets/schema";
import { emptyCard } from "@/core/presets/preset";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { value } from "../testing";
import { patchCards } from "./filing/cards";
import { fileBy } from "./filing/file-by";
import { listFolders } from "./filing/folders";
import { walkLibrary } from "./filing/history";
import { findPresets } from "./find-presets";
import { getPreset, savePreset, saveVersion } from "./library";
import { listTaken } from "./naming";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-names-"));
  context = await openContext(folder);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const [{ content: CONTENT } = INCLUDED.presets[0]!] = INCLUDED.presets;

async function save(name: string, origin = {}, content = CONTENT) {
  const saved = await savePreset(context, {
    preset: { kind: content.kind, content, card: { ...emptyCard(name), origin } },
  });
  if (!saved.ok) throw new Error(saved.error.message);
  return saved.value;
}

describe("names of any script", () => {
  it.each([
    ["right to left", "גיטרה חמה", "חמה"],
    ["combining signs", "Voix brise\u0301e", "brisée"],
    ["emoji", "Voice 🎙️ close", "voice close"],
    ["slashes", "Mid/side \\ wide", "side wide"],
    ["quotes and braces", 'So-called "air" {song}', "called air"],
    ["two hundred letters", `Long ${"x".repeat(195)}`, "long"],
  ])("%s: kept to the letter, and found", async (_, name, words) => {
    expect(CardSchema.shape.name.safeParse(name).success).toBe(true);
    const { id } = await save(name);
    const page = await findPresets(context, { q: words });
    expect(page.items.map((p) => [p.id, p.card.name])).toEqual([[id, name]]);
    const [renamed] = await (async () => {
      const changed = await patchCards(context, {
        changes: [{ id, baseCard: 1, card: { name: `${name.slice(0, 190)} 2` } }],
      });
      return changed.ok ? changed.value : [];
    })();
    expect(renamed!.card.name).toBe(`${name.slice(0, 190)} 2`);
  });
  it.each([
    ["10,000 letters", "x".repeat(10_000), "200 letters"],
    ["nothing but spaces", " \t ", "name"],
    ["a line break", "Rim\nand air", "hidden"],
    ["a null", "Rim\u0000", "hidden"],
    ["a turn of direction", "Rim \u202eria", "hidden"],
  ])("%s is refused with a word for it", (_, name, word) => {
    expect(CardSchema.shape.name.safeParse(name).error?.issues[0]?.message).toContain(word);
  });
});

describe("two windows", () => {
  it("that rename the same: the second is told, and nothing is lost", async () => {
    const { id } = await save("Rim");
    const first = await patchCards(context, { changes: [{ id, baseCard: 1, card: { name: "Rim and air" } }] });
    const second = await patchCards(context, { changes: [{ id, baseCard: 1, card: { name: "Rim, far" } }] });
    expect(first.ok).toBe(true);
    expect(second.ok ? null : second.error).toMatchObject({
      code: "stale",
      detail: { cardRevision: 2, card: { name: "Rim and air" } },
    });
    expect((await findPresets(context, { q: "rim" })).items.map((p) => p.card.name)).toEqual(["Rim and air"]);
  });
});

describe("a folder for each artist", () => {
  it("is made where there is none, takes its sounds, and goes again by one step back", async () => {
    const heron = await save("Cello", { artist: "Copper Heron" });
    const clocks = await save("Vibes", { artist: "Tidal Clocks" });
    const nobody = await save("Room");
    const ids = [heron.id, clocks.id, nobody.id];
    const told = {
      groups: [
        { path: "Copper Heron", isNew: true, n: 1, already: 0 },
        { path: "Tidal Clocks", isNew: true, n: 1, already: 0 },
      ],
      without: 1,
    };
    expect(value(await fileBy(context, { by: "artist", ids, preview: true }))).toEqual(told);
    expect(await listFolders(context)).toEqual([]);
    expect(value(await fileBy(context, { by: "artist", ids }))).toEqual(told);
    const folders = await listFolders(context);
    expect(folders.map((f) => [f.name, f.count])).toEqual([
      ["Copper Heron", 1],
      ["Tidal Clocks", 1],
    ]);
    expect((await findPresets(context, { q: "folder:copper" })).items.map((p) => p.id)).toEqual([heron.id]);
    expect((await fileBy(context, { by: "artist", ids })).ok).toBe(true);
    expect(await listFolders(context)).toEqual(folders);
    expect((await fileBy(context, { by: "client", ids })).ok).toBe(false);
    await walkLibrary(context, "undo");
    expect(await listFolders(context)).toEqual([]);
    expect((await findPresets(context, { q: "folder:copper" })).total).toBe(0);
  });

  it("is the one that is there, wherever it stands, however it is written; what lies in it stays", async () => {
    const inside = { newFolder: "Artists / copper héron" };
    const heron = await save("Cello", { artist: "Copper Heron" });
    const there = await save("Voice", { artist: "Copper Heron" });
    const changes = [{ id: there.id, baseCard: 1 }];
    value(await patchCards(context, { changes, ...inside }));
    const before = await listFolders(context);
    const ids = [heron.id, there.id];
    expect(value(await fileBy(context, { by: "artist", ids })).groups).toEqual([
      { path: "Artists / copper héron", isNew: false, n: 1, already: 1 },
    ]);
    const after = await listFolders(context);
    expect(after.map(({ id }) => id)).toEqual(before.map(({ id }) => id));
    expect(after.at(-1)).toMatchObject({ name: "copper héron", count: 2 });
  });
});

describe("a preset inside others", () => {
  it("knows which, while they have it; saving it again changes none of them", async () => {
    const plugin = INCLUDED.presets.find((p) => p.content.kind === "plugin")!.content;
    if (plugin.kind !== "plugin") throw new Error("no plugin");
    const held = await save("Held", {}, plugin);
    const from = { preset: held.id, version: 1, name: "Held" };
    const chain = {
      kind: "chain" as const,
      schema: 1 as const,
      chain: { nodes: [{ ...plugin.processor, from }], macros: [] },
    };
    const holder = await save("Holder", {}, chain);
    const heldBy = async () => {
      const detail = await getPreset(context, held.id);
      return detail.ok ? detail.value.heldBy : null;
    };
    expect(await heldBy()).toEqual([{ id: holder.id, name: "Holder" }]);
    await saveVersion(context, held.id, { baseVersion: 1, content: plugin });
    const after = await getPreset(context, holder.id);
    expect(after.ok && after.value.preset).toMatchObject({ version: 1, content: chain });
    await saveVersion(context, holder.id, {
      baseVersion: 1,
      content: { ...chain, chain: { nodes: [plugin.processor], macros: [] } },
    });
    expect(await heldBy()).toEqual([]);
  });
});

describe("names that are taken", () => {
  const taken = async (...names: readonly string[]) =>
    (await listTaken(context, { names: [...names] })).taken.map(({ name }) => name).toSorted();

  it("are those very names, in any case and accent, and the same with a number behind; no others", async () => {
    for (const name of ["Rim", "rîm", "Rim 2", "Rim 12", "Rim 2 far", "Rim, copy", "Rims", "Trim", "Rim two"])
      await save(name);
    expect(await taken("RIM")).toEqual(["Rim", "Rim 12", "Rim 2", "rîm"]);
    expect(await taken("Rim 2")).toEqual(["Rim 2"]);
    expect(await taken("Rim", "rim 2", "Air")).toEqual(["Rim", "Rim 12", "Rim 2", "rîm"]);
    expect(await taken("Air", "  ", "")).toEqual([]);
    const { presets } = await listTaken(context, { names: ["Rim"] });
    expect(presets.map((p) => p.card.name).toSorted()).toEqual(["Rim", "rîm"]);
  });

  it("are not those in the bin", async () => {
    const { id, cardRevision } = await save("Rim");
    await patchCards(context, { changes: [{ id, baseCard: cardRevision, binned: true }] });
    expect(await taken("Rim")).toEqual([]);
  });

  it("are found for the longest names, whose number takes the place of their last letters", async () => {
    const long = "x".repeat(LONGEST_NAME);
    await save(long);
    const [second] = withoutClashes([long], await taken(long));
    await save(second!);
    expect(await taken(long)).toHaveLength(2);
  });

  it("leave names that are free, however many are asked for and however they stand beside each other", async () => {
    const wished = Array.from({ length: 1200 }, (_, n) => `Take ${n % 40}`);
    for (const name of ["Take 1", "Take 1 2", "Take 7", "Take 39 3"]) await save(name);
    const names = withoutClashes(wished, await taken(...wished));
    expect(new Set(names).size).toBe(names.length);
    for (const name of ["Take 1", "Take 1 2", "Take 7", "Take 39 3"]) expect(names).not.toContain(name);
  });
});
