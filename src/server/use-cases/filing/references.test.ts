import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { alsoIn, movedTo, outOf } from "@/core/library/filed-in";
import { INCLUDED } from "@/core/packs/included";
import { type Card, emptyCard } from "@/core/presets/preset";
import { idsBelow } from "../../repositories/folders";
import { rowsById } from "../../repositories/preset-lists";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import { refused, value } from "../../testing";
import { findPresets } from "../find-presets";
import { savePresets } from "../library";
import { emptyBin } from "./bin";
import { deletePreset, patchCards } from "./cards";
import { fileBy } from "./file-by";
import { changeFolder, deleteFolder, listFolders, makeFolder } from "./folders";
import { listStanding, walkLibrary } from "./history";

/* Sounds that lie in one folder and are referred to by others: Voices / Lead, Voices / Choir, Rooms. */

let folder: string;
let context: OpenContext;
let [voices, lead, choir, rooms] = ["", "", "", ""];
let id = "";

const make = async (name: string, parent: string | null = null) =>
  value(await makeFolder(context, { name, parent })).id;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-references-"));
  context = await openContext(folder);
  voices = await make("Voices");
  [lead, choir] = [await make("Lead", voices), await make("Choir", voices)];
  rooms = await make("Rooms");
  const { content } = INCLUDED.presets[0]!;
  const card = { ...emptyCard("Under the voice"), folder: lead };
  id = value(await savePresets(context, { presets: [{ kind: content.kind, content, card }] }))[0]!.id;
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const row = async () => (await rowsById(context.db, [id]))[0]!;
const card = async () => (await row()).card;
const patch = async (to: Partial<Card>) =>
  patchCards(context, { changes: [{ id, baseCard: (await row()).cardRevision, card: to }] });
const refer = async (...others: readonly string[]) => {
  for (const other of others) value(await patch(alsoIn(await card(), other)));
};
const counts = async () => Object.fromEntries((await listFolders(context)).map(({ name, count }) => [name, count]));
const listed = async (asked: Parameters<typeof findPresets>[1]) => (await findPresets(context, asked)).total;

describe("a sound in several folders", () => {
  it("is listed in each, and counted once in what stands above them", async () => {
    await refer(choir, rooms);
    expect(await card()).toMatchObject({ folder: lead, alsoIn: [choir, rooms] });
    expect(await counts()).toEqual({ Voices: 1, Lead: 1, Choir: 1, Rooms: 1 });
    for (const one of [voices, lead, choir, rooms]) expect(await listed({ folder: one })).toBe(1);
    expect(await listed({ q: "folder:rooms" })).toBe(1);
    expect(await listed({ q: "folder:choir -folder:brass" })).toBe(1);
    expect(await idsBelow(context.db, rooms)).toEqual([id]);
    expect(await listed({})).toBe(1);
  });

  it("is in one less when it is taken out of one, and where that was its home the first other is", async () => {
    await refer(choir, rooms);
    value(await patch(outOf(await card(), choir)));
    expect(await counts()).toEqual({ Voices: 1, Lead: 1, Choir: 0, Rooms: 1 });
    value(await patch(outOf(await card(), lead)));
    expect(await card()).toMatchObject({ folder: rooms });
    expect((await card()).alsoIn).toBeUndefined();
    expect(await counts()).toEqual({ Voices: 0, Lead: 0, Choir: 0, Rooms: 1 });
  });

  it("has its home there when it is moved there, by an older hand too; undone it is as it was", async () => {
    await refer(choir, rooms);
    const before = await card();
    value(await patch({ folder: rooms }));
    expect(await card()).toMatchObject({ folder: rooms, alsoIn: [choir] });
    value(await walkLibrary(context, "undo"));
    expect(await card()).toEqual(before);
    value(await patch({ folder: null }));
    expect((await card()).alsoIn).toBeUndefined();
    value(await walkLibrary(context, "undo"));
    expect(await card()).toEqual(before);
  });

  it("loses what referred to it with the folder, and lies above where its home goes; one undo brings all back", async () => {
    await refer(choir, voices);
    const before = await card();
    value(await deleteFolder(context, choir));
    expect(await card()).toMatchObject({ folder: lead, alsoIn: [voices] });
    value(await deleteFolder(context, lead));
    expect(await card()).toMatchObject({ folder: voices });
    expect((await card()).alsoIn).toBeUndefined();
    value(await walkLibrary(context, "undo"));
    value(await walkLibrary(context, "undo"));
    expect(await card()).toEqual(before);
    expect(await listed({ folder: choir })).toBe(1);
  });

  it("is filed for its artist into a folder that referred to it, and was filed with a new one", async () => {
    value(await patch({ origin: { artist: "Rooms" } }));
    await refer(choir, rooms);
    value(await fileBy(context, { by: "artist", ids: [id] }));
    expect(await card()).toMatchObject({ folder: rooms, alsoIn: [choir] });
    const content = INCLUDED.presets[0]!.content;
    const copy = { ...(await card()), name: "Copy" };
    const made = await savePresets(context, {
      presets: [{ kind: content.kind, content, card: copy }],
      newFolder: "Voices / Choir",
    });
    expect(value(made)[0]!.card).toMatchObject({ folder: choir, alsoIn: [] });
  });

  it("is found by the new name of a folder that refers to it", async () => {
    await refer(rooms);
    value(await changeFolder(context, rooms, { name: "Halls" }));
    expect([await listed({ q: "folder:halls" }), await listed({ q: "folder:rooms" })]).toEqual([1, 0]);
  });

  it("is refused where the laws would not hold, and nothing is written", async () => {
    expect(refused(await patch({ alsoIn: ["nowhere"] })).code).toBe("refused");
    expect(refused(await patch({ folder: null, alsoIn: [rooms] }))).toMatchObject({ code: "refused" });
    const content = INCLUDED.presets[0]!.content;
    const twice = { ...emptyCard("Twice"), folder: lead, alsoIn: [lead] };
    expect(refused(await savePresets(context, { presets: [{ kind: content.kind, content, card: twice }] })).code).toBe(
      "refused",
    );
    // A change that is taken back behind the back of a later one would put it in one folder twice.
    value(await patch({ folder: rooms }));
    const moved = (await listStanding(context))[0]!.n;
    await refer(lead);
    expect(refused(await walkLibrary(context, "undo", moved)).code).toBe("refused");
    expect(await card()).toMatchObject({ folder: rooms, alsoIn: [lead] });
  });

  it("leaves nothing behind when it is gone for good", async () => {
    await refer(rooms);
    value(await deletePreset(context, id));
    expect(await counts()).toMatchObject({ Lead: 0, Rooms: 0 });
    value(await emptyBin(context, [id]));
    expect(await context.db("preset_references").select()).toEqual([]);
    value(await deleteFolder(context, rooms));
  });

  it("is referred to again where all that is derived is made anew", async () => {
    await refer(rooms, choir);
    const before = await context.db("preset_references").select();
    await context.writer("preset_references").delete();
    await context.writer.raw("PRAGMA user_version = 0");
    await context.close();
    context = await openContext(folder);
    expect(await context.db("preset_references").select()).toEqual(before);
    expect(movedTo(await card(), rooms).alsoIn).toEqual([choir]);
  });
});
