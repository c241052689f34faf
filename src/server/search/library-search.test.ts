import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Card } from "@/core/presets/preset";
import { loadDemo } from "@/demo/load";
import { DEMO_PRESETS } from "@/demo/library";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { inTransaction } from "../store/transaction";
import { insertPreset } from "../repositories/presets";
import { rowsInOrder } from "../repositories/preset-lists";
import { mergeSome, searchDurably } from "../repositories/preset-search";
import { findPresets } from "../use-cases/find-presets";
import { deletePreset, patchCards } from "../use-cases/filing/cards";
import { makeFolder } from "../use-cases/filing/folders";
import { saveVersion } from "../use-cases/library";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-search-"));
  context = await openContext(folder);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const CONTENTS = DEMO_PRESETS.slice(0, 6).map((preset) => preset.versions.at(-1)!);
const WORDS = ["warm", "wide", "Éclair", "voice", "close", "rim", "nyckelharpa", "take", "2nd"];

const words = fc.array(fc.constantFrom(...WORDS), { minLength: 1, maxLength: 4 }).map((list) => list.join(" "));
const card: fc.Arbitrary<Card> = fc.record({
  name: words,
  folder: fc.constant(null),
  tags: fc.subarray(["warm", "far", "bright"]),
  purpose: words,
  rating: fc.integer({ min: 0, max: 5 }),
  notes: fc.constant(""),
  origin: fc.record({ artist: fc.constantFrom("Copper Heron", "Tidal Clocks") }, { requiredKeys: [] }),
});

type Edit =
  | { readonly do: "save" | "again"; readonly at: number; readonly card: Card }
  | { readonly do: "card"; readonly at: number; readonly card: Card }
  | { readonly do: "bin" | "crash"; readonly at: number; readonly card: Card };

const edit: fc.Arbitrary<Edit> = fc.record({
  do: fc.constantFrom("save", "save", "again", "card", "bin", "crash"),
  at: fc.nat(5),
  card,
});

const SEARCHES = ["w", "wa", "voi", "warm clo", "ecl", "2nd take", "copper", "nyck rim", "compressor", "far wide"];

/** One edit through the use-cases; a crash is a transaction that ends before it is committed. */
async function perform({ do: what, at, card: made }: Edit): Promise<void> {
  const { items } = await findPresets(context, { sort: "saved", limit: 100 });
  const some = items[at % Math.max(1, items.length)];
  const content = CONTENTS[at % CONTENTS.length]!;
  if (what === "save") {
    await inTransaction(context, async (tx, note) => {
      const id = context.mint();
      await insertPreset(tx, { id, content, card: made, at: context.now().toISOString() });
      note({ kind: "preset", id });
    });
    return;
  }
  if (what === "crash") {
    const dies = inTransaction(context, async (tx, note) => {
      const id = context.mint();
      await insertPreset(tx, { id, content, card: made, at: context.now().toISOString() });
      note({ kind: "preset", id });
      throw new Error("power");
    });
    await expect(dies).rejects.toThrow("power");
    return;
  }
  if (!some) return;
  if (what === "again") await saveVersion(context, some.id, { baseVersion: some.version, content: some.content });
  if (what === "card") {
    const { folder: _, ...changed } = made;
    await patchCards(context, { changes: [{ id: some.id, baseCard: some.cardRevision, card: changed }] });
  }
  if (what === "bin") await deletePreset(context, some.id);
}

async function compareWithDurable(): Promise<void> {
  for (const q of SEARCHES) {
    const { items, total, corrected } = await findPresets(context, { q, limit: 500 });
    const durable = await searchDurably(context.db, q.split(" "), 500);
    if (corrected.length > 0) {
      expect(durable).toEqual([]);
      continue;
    }
    const rows = await rowsInOrder(context.db, durable);
    expect([q, items.map((p) => p.id).toSorted()]).toEqual([q, rows.map((p) => p.id).toSorted()]);
    expect(total).toBe(durable.length);
  }
}

describe("the index in memory", () => {
  it("agrees with the durable one on every hit, after edits, after a crash in a write, and when opened again", async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(edit, { minLength: 4, maxLength: 14 }), async (edits) => {
        for (const one of edits) await perform(one);
        await compareWithDurable();
        await context.close();
        context = await openContext(folder);
        await compareWithDurable();
      }),
      { numRuns: 8 },
    );
  });

  it("ranks as the durable one does", async () => {
    await loadDemo(context);
    for (const q of ["vo", "cel", "harm", "gentle", "tidal"]) {
      const { items } = await findPresets(context, { q, limit: 20 });
      const durable = await rowsInOrder(context.db, await searchDurably(context.db, [q], 20));
      const shared = durable.slice(0, 5).filter((p) => items.slice(0, 5).some((i) => i.id === p.id));
      expect(shared.length).toBeGreaterThanOrEqual(Math.min(4, durable.length));
    }
  });

  it("hears of folders: what is in one is found by the name of any above it", async () => {
    await loadDemo(context);
    const before = (await findPresets(context, { folder: "voices" })).total;
    const made = await makeFolder(context, { name: "Borrowed", parent: "voices" });
    if (!made.ok) throw new Error(made.error.message);
    const { items } = await findPresets(context, { q: "cello wood" });
    const cello = items[0]!;
    await patchCards(context, {
      changes: [{ id: cello.id, baseCard: cello.cardRevision, card: { folder: made.value.id } }],
    });
    expect((await findPresets(context, { q: "folder:borrowed" })).items.map((p) => p.id)).toEqual([cello.id]);
    expect((await findPresets(context, { q: "folder:voices cello wood" })).total).toBe(1);
    expect((await findPresets(context, { folder: "voices" })).total).toBe(before + 1);
  });

  it("knows what projects use", async () => {
    await loadDemo(context);
    const used = await findPresets(context, { q: "used:yes", limit: 500 });
    const unused = await findPresets(context, { q: "used:no", limit: 500 });
    expect(used.total).toBeGreaterThan(0);
    expect(used.total + unused.total).toBe(DEMO_PRESETS.length);
  });

  it("says what it did not understand, and still finds by the words", async () => {
    await loadDemo(context);
    const { unclear, items } = await findPresets(context, { q: "cello wood:rosin" });
    expect(unclear).toHaveLength(1);
    expect(items.map((p) => p.card.name)).toEqual(["Cello, wood and rosin"]);
  });
});

it("leaves the durable index in parts while it is written to, and merges them in small steps", async () => {
  const parts = async (): Promise<number> => {
    const [found] = await context.db.raw<{ n: number }[]>("SELECT count(DISTINCT segid) AS n FROM preset_search_idx");
    return found!.n;
  };
  const card = { folder: null, tags: ["warm"], purpose: "voice", rating: 0, notes: "", origin: {} } as const;
  for (let n = 0; n < 40; n++)
    await inTransaction(context, (tx) =>
      insertPreset(tx, {
        id: `part-${n}`,
        content: CONTENTS[0]!,
        card: { ...card, tags: [...card.tags], name: `Part ${n}` },
        at: "2026-11-27T10:00:00.000Z",
      }),
    );
  const before = await searchDurably(context.db, ["warm"], 40);
  expect(await parts()).toBeGreaterThanOrEqual(40);
  let steps = 0;
  while (await mergeSome(context.writer)) steps += 1;
  expect(steps).toBeGreaterThan(0);
  expect(await parts()).toBeLessThan(10);
  expect(await searchDurably(context.db, ["warm"], 40)).toEqual(before);
});

it("is built anew where it could not take in a change, which is kept and answered all the same", async () => {
  vi.spyOn(console, "error").mockImplementation(() => undefined);
  vi.spyOn(context.search, "take").mockRejectedValueOnce(new Error("out of memory"));
  await inTransaction(context, async (tx, note) => {
    await insertPreset(tx, {
      id: "kept",
      content: CONTENTS[0]!,
      card: { name: "Kept all the same", folder: null, tags: [], purpose: "", rating: 0, notes: "", origin: {} },
      at: "2026-11-27T10:00:00.000Z",
    });
    note({ kind: "preset", id: "kept" });
  });
  await context.search.settled();
  expect((await findPresets(context, { q: "kept all" })).items.map((preset) => preset.id)).toEqual(["kept"]);
  vi.restoreAllMocks();
});
