import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { INCLUDED } from "@/core/packs/included";
import { type Content, emptyCard } from "@/core/presets/preset";
import { fingerprint } from "@/core/presets/fingerprint";
import { NO_SETTINGS, type Settings } from "@/core/settings/settings";
import type { ChangedRecord } from "../data/changes";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { refused, value } from "../testing";
import { emptyBin, listBin } from "./filing/bin";
import { deletePreset } from "./filing/cards";
import { changeFolder, listFolders, makeFolder } from "./filing/folders";
import { libraryHistory, walkLibrary } from "./filing/history";
import { findPresets } from "./find-presets";
import { getPreset, savePreset, savePresets, saveVersion } from "./library";
import { changeSettings, getSettings } from "./settings";

let folder: string;
let context: OpenContext;
let heard: ChangedRecord[][];

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-saving-"));
  context = await openContext(folder);
  heard = [];
  context.events.on("change", ({ records }) => heard.push([...records]));
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const contents = (kind: Content["kind"]) => INCLUDED.presets.map((p) => p.content).filter((c) => c.kind === kind);
const CHAINS = contents("chain");
const [CHAIN] = CHAINS as [Content, ...Content[]];

const newPreset = (name: string, content = CHAIN, inFolder: string | null = null) => ({
  kind: content.kind,
  content,
  card: { ...emptyCard(name), folder: inFolder },
});

const names = async () => (await findPresets(context, { sort: "name", limit: 500 })).items.map((p) => p.card.name);

describe("saving several presets", () => {
  it("keeps all of them, in the order in which they were given, and tells of it once", async () => {
    const given = ["Rim", "Air", "Nave"].map((name) => newPreset(name));
    const rows = value(await savePresets(context, { presets: given }));
    expect(rows.map((r) => [r.card.name, r.version, r.cardRevision])).toEqual([
      ["Rim", 1, 1],
      ["Air", 1, 1],
      ["Nave", 1, 1],
    ]);
    expect(heard).toEqual([rows.map(({ id }) => ({ kind: "preset", id }))]);
    for (const row of rows) expect(value(await getPreset(context, row.id)).preset).toEqual(row);
  });

  it.each([
    ["of another kind than it says", { ...newPreset("Odd"), kind: "strip" as const }, "presets[1].kind"],
    ["for a folder that is not there", newPreset("Odd", CHAIN, "nowhere"), "presets[1].card.folder"],
  ])("keeps none where one is %s, and says which", async (_, odd, path) => {
    const presets = [newPreset("Rim"), odd, newPreset("Air")];
    expect(refused(await savePresets(context, { presets }))).toMatchObject({ path });
    expect(await names()).toEqual([]);
    expect(heard).toEqual([]);
  });

  it("keeps none of a chain that names one plugin twice", async () => {
    if (CHAIN.kind !== "chain") throw new Error("no chain");
    const [node] = CHAIN.chain.nodes;
    const twice: Content = { ...CHAIN, chain: { ...CHAIN.chain, nodes: [node!, node!] } };
    const outcome = await savePresets(context, { presets: [newPreset("Rim"), newPreset("Twice", twice)] });
    expect(refused(outcome).path).toMatch(/^presets\[1\]\.content/);
    expect(await names()).toEqual([]);
  });

  it("makes the folder that they go into, or takes the one of that name; the log of the filing hears nothing", async () => {
    const first = value(await savePresets(context, { presets: [newPreset("Rim")], newFolder: "Nave" }));
    const second = value(await savePresets(context, { presets: [newPreset("Air")], newFolder: "Nave" }));
    const [nave, ...others] = await listFolders(context);
    expect(others).toEqual([]);
    expect(nave).toMatchObject({ name: "Nave", parent: null, count: 2 });
    expect([...first, ...second].map((r) => r.card.folder)).toEqual([nave!.id, nave!.id]);
    expect((await findPresets(context, { q: "folder:nave" })).total).toBe(2);
    expect(heard[0]?.map((r) => r.kind).toSorted()).toEqual(["folder", "preset"]);
    expect((await libraryHistory(context)).undo).toBeNull();
  });

  it("makes no folder for what is refused", async () => {
    const odd = { ...newPreset("Odd"), kind: "strip" as const };
    expect((await savePresets(context, { presets: [odd], newFolder: "Nave" })).ok).toBe(false);
    expect(await listFolders(context)).toEqual([]);
  });

  it("is a path where slashes stand, within the folder that was chosen, with no two of one name", async () => {
    const lead = value(await savePresets(context, { presets: [newPreset("Rim")], newFolder: "Voices / Lead" }));
    const again = value(await savePresets(context, { presets: [newPreset("Air")], newFolder: "voices/lead" }));
    expect(again[0]!.card.folder).toBe(lead[0]!.card.folder);
    const list = async () => (await listFolders(context)).map((f) => f.name).toSorted();
    expect(await list()).toEqual(["Lead", "Voices"]);
    const within = lead[0]!.card.folder;
    value(await savePresets(context, { presets: [newPreset("Sun")], newFolder: "Doubles", newFolderIn: within }));
    const doubles = (await listFolders(context)).find((f) => f.name === "Doubles");
    expect(doubles?.parent).toBe(within);
    const voices = (await listFolders(context)).find((f) => f.name === "Voices")!;
    expect((await makeFolder(context, { name: "Lead", parent: voices.id })).ok).toBe(false);
    expect((await makeFolder(context, { name: "Voices / Back", parent: null })).ok).toBe(true);
    expect(await list()).toEqual(["Back", "Doubles", "Lead", "Voices"]);
    const back = (await listFolders(context)).find((f) => f.name === "Back")!;
    expect((await changeFolder(context, back.id, { name: "Lead" })).ok).toBe(false);
  });

  it("does not stand in the way of undo: what was filed before is still taken back", async () => {
    value(await makeFolder(context, { name: "Before", parent: null }));
    value(await savePresets(context, { presets: [newPreset("Rim")], newFolder: "Nave" }));
    value(await walkLibrary(context, "undo"));
    expect((await listFolders(context)).map((f) => f.name)).toEqual(["Nave"]);
  });
});

describe("versions", () => {
  it("are all kept, whatever is saved and however often the store is opened", async () => {
    const { id } = value(await savePreset(context, { preset: newPreset("Rim") }));
    const kept: Content[] = [CHAIN];
    const saves = fc.array(fc.tuple(fc.integer({ min: 0, max: CHAINS.length - 1 }), fc.boolean()), { maxLength: 6 });
    await fc.assert(
      fc.asyncProperty(saves, async (list) => {
        for (const [at, reopen] of list) {
          const row = value(await saveVersion(context, id, { baseVersion: kept.length, content: CHAINS[at]! }));
          kept.push(CHAINS[at]!);
          expect(row.version).toBe(kept.length);
          if (reopen) {
            await context.close();
            context = await openContext(folder);
          }
        }
        const { preset, versions } = value(await getPreset(context, id));
        expect(preset.content).toEqual(kept.at(-1));
        expect(versions.map((v) => v.version)).toEqual(kept.map((_, n) => kept.length - n));
        expect(versions.map((v) => v.fingerprint)).toEqual(kept.toReversed().map(fingerprint));
        for (const [n, content] of kept.entries())
          expect(value(await getPreset(context, id, n + 1)).preset).toMatchObject({ version: n + 1, content });
      }),
      { numRuns: 8 },
    );
  });

  it("that build on an older one are refused with the newest, and change nothing", async () => {
    const { id } = value(await savePreset(context, { preset: newPreset("Rim") }));
    value(await saveVersion(context, id, { baseVersion: 1, content: CHAINS[1]! }));
    const before = value(await getPreset(context, id));
    const outcome = await saveVersion(context, id, { baseVersion: 1, content: CHAINS[2]! });
    expect(refused(outcome)).toEqual({ code: "stale", path: "baseVersion" });
    if (!outcome.ok) expect(outcome.error.detail).toMatchObject({ version: 2 });
    expect(value(await getPreset(context, id))).toEqual(before);
  });

  it("of another kind, of nothing, and of what comes with a pack are refused", async () => {
    const { id } = value(await savePreset(context, { preset: newPreset("Rim") }));
    const [plugin] = contents("plugin");
    expect(refused(await saveVersion(context, id, { baseVersion: 1, content: plugin! })).path).toBe("content.kind");
    expect(refused(await saveVersion(context, "nothing", { baseVersion: 1, content: CHAIN })).code).toBe("notFound");
    expect(refused(await getPreset(context, id, 9))).toEqual({ code: "notFound", path: "version" });
  });

  it("stay with a preset in the bin, and go with it when it is emptied", async () => {
    const { id } = value(await savePreset(context, { preset: newPreset("Rim") }));
    value(await saveVersion(context, id, { baseVersion: 1, content: CHAINS[1]! }));
    value(await deletePreset(context, id));
    expect(value(await getPreset(context, id)).place).toBe("bin");
    expect(refused(await saveVersion(context, id, { baseVersion: 2, content: CHAINS[0]! })).code).toBe("notFound");
    value(await walkLibrary(context, "undo"));
    expect(value(await getPreset(context, id))).toMatchObject({ place: "library", versions: { length: 2 } });
    value(await walkLibrary(context, "redo"));
    expect((await listBin(context)).map((b) => b.id)).toEqual([id]);
    value(await emptyBin(context, [id]));
    expect(await listBin(context)).toEqual([]);
    expect(refused(await getPreset(context, id)).code).toBe("notFound");
    expect((await context.db("preset_versions").where({ preset: id })).length).toBe(0);
  });
});

describe("what a person has set up", () => {
  const withSearch = (name: string): Settings => ({
    ...NO_SETTINGS,
    searches: [{ id: name, name, q: "voice", only: "", folder: null }],
  });

  it("is kept as a whole, revision by revision, across a restart", async () => {
    const before = await getSettings(context);
    const after = value(
      await changeSettings(context, { baseRevision: before.revision, settings: withSearch("Voices") }),
    );
    expect(after.revision).toBe(before.revision + 1);
    await context.close();
    context = await openContext(folder);
    expect(await getSettings(context)).toEqual(after);
  });

  it("is not overwritten by a window that had not heard of the newest", async () => {
    const { revision } = await getSettings(context);
    const first = value(await changeSettings(context, { baseRevision: revision, settings: withSearch("Voices") }));
    const second = await changeSettings(context, { baseRevision: revision, settings: withSearch("Halls") });
    expect(refused(second)).toEqual({ code: "stale", path: "baseRevision" });
    if (!second.ok) expect(second.error.detail).toEqual(first);
    expect(await getSettings(context)).toEqual(first);
  });
});
