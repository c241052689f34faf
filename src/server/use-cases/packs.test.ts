import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { INCLUDED } from "@/core/packs/included";
import type { PresetRow } from "@/contracts/records";
import type { Pack } from "@/core/packs/pack";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { deletePreset, nameVersion, patchCards } from "./filing/cards";
import { makeFolder } from "./filing/folders";
import { walkLibrary } from "./filing/history";
import { mergePresets } from "./filing/merge";
import { findPresets } from "./find-presets";
import { getPreset, savePreset, saveVersion } from "./library";
import { installPack } from "./packs";
import { value } from "../testing";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-packs-"));
  context = await openContext(folder);
  await installPack(context, INCLUDED);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const all = async (only?: string) => (await findPresets(context, { limit: 500, ...(only ? { only } : {}) })).items;
const changes = async () => (await context.db("changes").count({ n: "*" }).first()) as { n: number };

describe("the pack that ships", () => {
  it("comes once, and is not written again where nothing is new", async () => {
    expect((await all()).length).toBe(INCLUDED.presets.length);
    const before = await changes();
    await installPack(context, INCLUDED);
    expect(await changes()).toEqual(before);
    expect(await all(`pack:"${INCLUDED.name}"`)).toHaveLength(INCLUDED.presets.length);
    expect(await all("pack:own")).toEqual([]);
  });
  it("brings what sounds otherwise as the next version, and what is called otherwise as its card", async () => {
    const [first, second, ...others] = INCLUDED.presets;
    const newer: Pack = {
      ...INCLUDED,
      presets: [
        { ...first!, content: second!.content },
        { ...second!, card: { ...second!.card, name: "Called otherwise" } },
        ...others,
      ],
    };
    await installPack(context, newer);
    const [changed, renamed] = await Promise.all([first!, second!].map((p) => getPreset(context, p.id)));
    expect(value(changed!).preset).toMatchObject({ version: 2, content: second!.content, pack: INCLUDED.name });
    expect(value(renamed!).preset).toMatchObject({ version: 1, card: { name: "Called otherwise" } });
    expect((await findPresets(context, { q: "called otherwise" })).total).toBe(1);
  });
  it("is read only: cards, bin, merging, versions and their names are refused, and nothing of it changes", async () => {
    const before = await all();
    const [first, second] = before;
    const { id, cardRevision, version, content } = first!;
    const refused = [
      await patchCards(context, { changes: [{ id, baseCard: cardRevision, card: { notes: "Mine" } }] }),
      await patchCards(context, { changes: [{ id, baseCard: cardRevision, card: { rating: 5, name: "Mine" } }] }),
      await patchCards(context, { changes: [{ id, baseCard: cardRevision, binned: true }] }),
      await deletePreset(context, id),
      await nameVersion(context, id, { version: 1, name: "x" }),
      await mergePresets(context, { keep: second!.id, others: [id] }),
      await saveVersion(context, id, { baseVersion: version, content }),
    ];
    for (const outcome of refused) expect(outcome.ok ? "done" : outcome.error.code).toBe("refused");
    expect(await all()).toEqual(before);
  });
  it("is rated, tagged and filed beside it, which an undo takes back and a newer pack leaves", async () => {
    const box = value(await makeFolder(context, { name: "Starts", parent: null }));
    const [{ id, card, cardRevision }] = (await all()) as [PresetRow];
    const mine = { rating: 4, tags: [...card.tags, "mine"], folder: box.id };
    value(await patchCards(context, { changes: [{ id, baseCard: cardRevision, card: mine }] }));
    const stands = async () => value(await getPreset(context, id)).preset;
    expect((await stands()).card).toEqual({ ...card, ...mine });
    expect((await all("tag:mine")).map((p) => p.id)).toEqual([id]);
    // The same pack once more brings nothing; a newer one what the person has not set.
    await installPack(context, INCLUDED);
    expect((await stands()).card).toEqual({ ...card, ...mine });
    const presets = INCLUDED.presets.map((p) =>
      p.id === id ? { ...p, card: { ...p.card, notes: "Written anew", rating: 1 } } : p,
    );
    await installPack(context, { ...INCLUDED, presets });
    expect((await stands()).card).toEqual({ ...card, ...mine, notes: "Written anew" });
    const before = await changes();
    await installPack(context, { ...INCLUDED, presets });
    expect(await changes()).toEqual(before);
    await installPack(context, INCLUDED);
    value(await walkLibrary(context, "undo"));
    expect((await stands()).card).toEqual(card);
  });
  it("lets a copy of it be one's own, which knows where it is from", async () => {
    const [{ id, kind, content, card, version } = (await all())[0]!] = await all();
    const origin = { from: { preset: id, version, name: card.name } };
    const own = value(
      await savePreset(context, { preset: { kind, content, card: { ...card, name: "Mine", origin } } }),
    );
    expect(own.pack).toBeNull();
    expect((await all("pack:own")).map((p) => [p.id, p.card.origin.from])).toEqual([[own.id, origin.from]]);
  });
});

describe("tags found by measuring", () => {
  const dark = INCLUDED.presets.find((p) => p.card.name === "Tilt, a shade darker")!;

  it("are found by, and stay away once they are taken off, also when the sound is saved again", async () => {
    const warm = INCLUDED.presets.find((p) => p.card.name === "Main output, little and last")!;
    const { kind } = warm.content;
    const saved = value(
      await savePreset(context, { preset: { kind, content: warm.content, card: { ...warm.card, name: "Mine" } } }),
    );
    expect(saved.measured).toContain("gentle");
    const found = async () => (await all("measured:gentle")).map((p) => p.id);
    expect(await found()).toContain(saved.id);
    const [taken] = value(
      await patchCards(context, {
        changes: [{ id: saved.id, baseCard: saved.cardRevision, card: { dismissed: ["gentle"] } }],
      }),
    );
    expect(taken!.measured).not.toContain("gentle");
    expect(await found()).not.toContain(saved.id);
    const again = value(await saveVersion(context, saved.id, { baseVersion: 1, content: warm.content }));
    expect(again.measured).not.toContain("gentle");
    expect(await found()).not.toContain(saved.id);
  });
  it("are words of the search too", async () => {
    expect(dark.card.tags).toContain("dark");
    const hits = (await findPresets(context, { q: "short room", limit: 500 })).items.map((p) => p.card.name);
    expect(hits).toContain("Room, small and near");
  });
});
