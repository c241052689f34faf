import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import type { Outcome } from "../../failure";
import { emptyBin, listBin } from "./bin";
import { deletePreset, nameVersion, patchCards } from "./cards";
import { changeFolder, deleteFolder, listFolders, makeFolder } from "./folders";
import { libraryHistory, walkLibrary } from "./history";
import { mergePresets } from "./merge";
import { findPresets } from "../find-presets";
import { getPreset, savePreset } from "../library";
import { listNearCopies } from "../near-copies";
import { value } from "../../testing";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-filing-"));
  context = await openContext(folder);
  await loadDemo(context);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const refusal = <T>(outcome: Outcome<T>): string => {
  if (outcome.ok) throw new Error("was not refused");
  return `${outcome.error.code}: ${outcome.error.message}`;
};

const all = async () => (await findPresets(context, { sort: "name", limit: 500 })).items;

/** How everything is filed: what an undo must bring back. */
const filed = async () => ({
  cards: (await all()).map((p) => [p.id, p.card]),
  folders: (await listFolders(context)).map((f) => [f.id, f.name, f.parent, f.count]),
  bin: (await listBin(context)).map((b) => b.id),
  found: (await findPresets(context, { q: "warm" })).items.map((p) => p.id).toSorted(),
});

type Act = (numbers: readonly [number, number]) => Promise<unknown>;

const pick = <T>(list: readonly T[], n: number): T => list[n % list.length]!;

/** Anything a hand can do to the filing; some of it is refused, which is as well. */
const ACTS: Readonly<Record<string, Act>> = {
  rename: async ([n, m]) => {
    const preset = pick(await all(), n);
    const changes = [{ id: preset.id, baseCard: preset.cardRevision, card: { name: `Warm ${m}`, rating: m % 6 } }];
    return patchCards(context, { changes });
  },
  move: async ([n, m]) => {
    const [presets, folders] = [await all(), await listFolders(context)];
    const chosen = [pick(presets, n), pick(presets, n + 1)];
    const changes = chosen.map((p) => ({ id: p.id, baseCard: p.cardRevision, card: { folder: pick(folders, m).id } }));
    return patchCards(context, { changes });
  },
  moveToNew: async ([n, m]) => {
    const presets = await all();
    const chosen = [pick(presets, n), pick(presets, n + 1)];
    const changes = chosen.map((p) => ({ id: p.id, baseCard: p.cardRevision }));
    return patchCards(context, { changes, newFolder: `New ${m % 3}` });
  },
  tag: async ([n, m]) => {
    const preset = pick(await all(), n);
    const card = { tags: [...preset.card.tags, `t${m}`], colour: m % 2 === 0 ? "ochre" : "verdigris" };
    return patchCards(context, { changes: [{ id: preset.id, baseCard: preset.cardRevision, card }] });
  },
  bin: async ([n]) => deletePreset(context, pick(await all(), n).id),
  make: async ([n, m]) => makeFolder(context, { name: `Made ${m}`, parent: pick(await listFolders(context), n).id }),
  put: async ([n, m]) => {
    const folders = await listFolders(context);
    return changeFolder(context, pick(folders, n).id, { parent: pick(folders, m).id });
  },
  away: async ([n]) => deleteFolder(context, pick(await listFolders(context), n).id),
};

describe("filing", () => {
  it("is taken back step by step to where it began, done again, and remembered across a restart", async () => {
    const acts = fc.array(fc.tuple(fc.constantFrom(...Object.keys(ACTS)), fc.tuple(fc.nat(40), fc.nat(40))), {
      minLength: 1,
      maxLength: 8,
    });
    await fc.assert(
      fc.asyncProperty(acts, async (list) => {
        const before = await filed();
        let done = 0;
        for (const [name, numbers] of list) {
          const depth = (await context.db("library_log").count({ n: "*" }))[0]?.n;
          await ACTS[name]!(numbers);
          if ((await context.db("library_log").count({ n: "*" }))[0]?.n !== depth) done += 1;
        }
        const after = await filed();
        await context.close();
        context = await openContext(folder);
        expect(await filed()).toEqual(after);
        for (let n = 0; n < done; n++) value(await walkLibrary(context, "undo"));
        expect(await filed()).toEqual(before);
        for (let n = 0; n < done; n++) value(await walkLibrary(context, "redo"));
        expect(await filed()).toEqual(after);
        for (let n = 0; n < done; n++) value(await walkLibrary(context, "undo"));
      }),
      { numRuns: 12 },
    );
  });

  it("changes many or none: one that was changed meanwhile stops all", async () => {
    const [one, two] = await all();
    const before = await filed();
    const changes = [
      { id: one!.id, baseCard: one!.cardRevision, card: { rating: 5 } },
      { id: two!.id, baseCard: two!.cardRevision + 1, card: { rating: 5 } },
    ];
    expect(refusal(await patchCards(context, { changes }))).toContain("stale");
    expect(await filed()).toEqual(before);
    expect((await libraryHistory(context)).undo).toBeNull();
  });

  it("makes the folder that sounds go into with them, in one step of undo; a refusal makes none", async () => {
    const [one, two] = await all();
    const moves = (revision: number) => ({
      changes: [one!, two!].map((p) => ({ id: p.id, baseCard: revision, card: { rating: 4 } })),
      newFolder: "Nave",
    });
    const before = await filed();
    expect(refusal(await patchCards(context, moves(7)))).toContain("stale");
    expect(await filed()).toEqual(before);
    const rows = value(await patchCards(context, moves(1)));
    const nave = (await listFolders(context)).find((f) => f.name === "Nave")!;
    expect(nave).toMatchObject({ parent: null, count: 2 });
    expect(rows.map((p) => p.card)).toMatchObject([
      { folder: nave.id, rating: 4 },
      { folder: nave.id, rating: 4 },
    ]);
    // Another goes into the same: there is one of the name.
    const three = (await all()).find((p) => p.card.folder === null || p.card.folder !== nave.id)!;
    const more = { changes: [{ id: three.id, baseCard: three.cardRevision }], newFolder: "Nave" };
    value(await patchCards(context, more));
    expect((await listFolders(context)).filter((f) => f.name === "Nave")).toMatchObject([{ id: nave.id, count: 3 }]);
    value(await walkLibrary(context, "undo"));
    value(await walkLibrary(context, "undo"));
    expect(await filed()).toEqual(before);
  });

  it("tells what undo would take back, in words", async () => {
    const [one, two] = await all();
    const changes = [one!, two!].map((p) => ({ id: p.id, baseCard: p.cardRevision, card: { rating: 5 } }));
    value(await patchCards(context, { changes }));
    expect((await libraryHistory(context)).undo).toBe("Rate 2 sounds");
    value(await walkLibrary(context, "undo"));
    expect(await libraryHistory(context)).toEqual({ undo: null, redo: "Rate 2 sounds" });
    expect(refusal(await walkLibrary(context, "undo"))).toContain("nothing to undo");
  });

  it("keeps folders out of themselves, and apart from others of the name", async () => {
    expect(refusal(await changeFolder(context, "voices", { parent: "voices" }))).toContain("into itself");
    expect(refusal(await changeFolder(context, "voices", { parent: "voices-choir" }))).toContain("into itself");
    expect(refusal(await changeFolder(context, "voices", { name: "Brass" }))).toContain("already");
    expect(refusal(await changeFolder(context, "gone", { name: "Here" }))).toContain("notFound");
  });

  it("lets what was in a folder that is taken away stand in the one above", async () => {
    const inside = (await findPresets(context, { folder: "voices-choir" })).total;
    expect(inside).toBeGreaterThan(0);
    const voices = (await findPresets(context, { folder: "voices" })).total;
    value(await deleteFolder(context, "voices-choir"));
    expect((await listFolders(context)).map((f) => f.id)).not.toContain("voices-choir");
    expect((await findPresets(context, { folder: "voices" })).total).toBe(voices);
  });

  it("lets go for good only of what is in the bin, and undo says when it cannot bring it back", async () => {
    const [one, two] = await all();
    value(await deletePreset(context, one!.id));
    expect((await listBin(context)).map((b) => b.id)).toEqual([one!.id]);
    expect(value(await emptyBin(context, [two!.id]))).toEqual({ gone: 0, back: 0 });
    expect(value(await emptyBin(context, null))).toEqual({ gone: 1, back: 0 });
    expect(await listBin(context)).toEqual([]);
    expect(refusal(await walkLibrary(context, "undo"))).toContain("There is nothing to undo");
    expect((await all()).map((p) => p.id)).toContain(two!.id);
    expect(refusal(await getPreset(context, one!.id))).toContain("notFound");
  });

  it("is taken back past what is gone: the rest of a change comes back, and what does not is said", async () => {
    const [one, two, three] = await all();
    value(await patchCards(context, { changes: [{ id: three!.id, baseCard: 1, card: { rating: 5 } }] }));
    const bin = [one!, two!].map((p) => ({ id: p.id, baseCard: p.cardRevision, binned: true }));
    value(await patchCards(context, { changes: bin }));
    value(await emptyBin(context, [one!.id]));
    const { walked } = value(await walkLibrary(context, "undo"));
    expect(walked).toMatchObject({ label: "Put 2 sounds into the bin", done: 1, passed: 1 });
    expect(walked.reasons).toEqual(["What it concerns is gone for good."]);
    expect((await all()).map((p) => p.id)).toContain(two!.id);
    expect(value(await walkLibrary(context, "redo")).walked).toMatchObject({ done: 1, passed: 0 });
    for (const label of ["Put 2 sounds into the bin", `Rate “${three!.card.name}”`])
      expect(value(await walkLibrary(context, "undo")).walked.label).toBe(label);
    expect((await libraryHistory(context)).undo).toBeNull();
  });

  it("goes on past a folder that holds something by now", async () => {
    const [one] = await all();
    value(await patchCards(context, { changes: [{ id: one!.id, baseCard: 1, card: { rating: 5 } }] }));
    const made = value(await makeFolder(context, { name: "Nave", parent: null }));
    const card = { ...one!.card, name: "Kept in it", folder: made.id };
    value(await savePreset(context, { preset: { kind: one!.kind, content: one!.content, card } }));
    const { walked, history } = value(await walkLibrary(context, "undo"));
    expect(walked).toEqual({
      label: "Make folder “Nave”",
      done: 0,
      passed: 1,
      reasons: ["“Nave” holds something by now; it stays."],
    });
    expect(history).toEqual({ undo: `Rate “${one!.card.name}”`, redo: null });
    expect(value(await walkLibrary(context, "undo")).walked.done).toBe(1);
    expect((await listFolders(context)).map((f) => f.id)).toContain(made.id);
  });

  it("says in the bin how many strips use what is there", async () => {
    const used = (await findPresets(context, { q: "used:yes", limit: 1 })).items[0]!;
    value(await deletePreset(context, used.id));
    expect((await listBin(context))[0]!.uses).toBeGreaterThan(0);
  });

  it("names a version, and takes the name back", async () => {
    const preset = (await all()).find((p) => p.version > 1)!;
    value(await nameVersion(context, preset.id, { version: 1, name: "Before the bridge" }));
    const nameOf = async () => value(await getPreset(context, preset.id)).versions.at(-1)!.name;
    expect(await nameOf()).toBe("Before the bridge");
    value(await walkLibrary(context, "undo"));
    expect(await nameOf()).toBeNull();
    expect(refusal(await nameVersion(context, preset.id, { version: 99, name: "x" }))).toContain("notFound");
  });
});

describe("folders", () => {
  it("600 deep in each other are listed with their counts, each looked at once", async () => {
    const [one] = await all();
    for (let n = 0; n < 600; n++) {
      const parent = n === 0 ? null : `deep-${n - 1}`;
      await context.writer("folders").insert({ id: `deep-${n}`, name: `Deep ${n}`, parent });
    }
    const card = { ...one!.card, name: "At the bottom", folder: "deep-599" };
    value(await savePreset(context, { preset: { kind: one!.kind, content: one!.content, card } }));
    const deep = (await listFolders(context)).filter((f) => f.id.startsWith("deep-"));
    expect(deep.map((f) => f.id)).toEqual(Array.from({ length: 600 }, (_, n) => `deep-${n}`));
    expect(new Set(deep.map((f) => f.count))).toEqual(new Set([1]));
    expect((await findPresets(context, { folder: "deep-0" })).total).toBe(0);
    value(await changeFolder(context, "deep-0", { name: "Shallow" }));
    expect((await findPresets(context, { folder: "deep-0" })).items.map((p) => p.card.name)).toEqual(["At the bottom"]);
  });
});

describe("near copies", () => {
  it("are found by their values, and merged with tags, versions and uses; undo parts them again", async () => {
    const original = value(await getPreset(context, "two-to-one")).preset;
    const card = { ...original.card, name: "Two to one again", tags: ["found-twice"], rating: 5 };
    const copy = value(await savePreset(context, { preset: { kind: original.kind, content: original.content, card } }));
    const before = await filed();
    const groups = (await listNearCopies(context, {})).groups!;
    expect(groups.map((g) => g.copies.map((c) => c.preset.id).toSorted())).toContainEqual(
      [copy.id, "two-to-one"].toSorted(),
    );
    const kept = value(await mergePresets(context, { keep: "two-to-one", others: [copy.id] }));
    expect(kept.card.rating).toBe(5);
    expect(kept.card.tags).toEqual([...original.card.tags, "found-twice"]);
    expect((await all()).map((p) => p.id)).not.toContain(copy.id);
    expect(await listBin(context)).toEqual([]);
    const detail = value(await getPreset(context, "two-to-one"));
    expect(detail.merged).toEqual([{ id: copy.id, name: "Two to one again", version: 1 }]);
    expect((await listNearCopies(context, {})).groups!.flatMap((g) => g.copies.map((c) => c.preset.id))).not.toContain(
      copy.id,
    );
    value(await walkLibrary(context, "undo"));
    expect(await filed()).toEqual(before);
  });
  it("that were merged were never thrown away: they stand by themselves again when what they are in goes for good", async () => {
    const { kind, content, card } = value(await getPreset(context, "two-to-one")).preset;
    const copy = value(await savePreset(context, { preset: { kind, content, card: { ...card, name: "Again" } } }));
    value(await mergePresets(context, { keep: "two-to-one", others: [copy.id] }));
    value(await deletePreset(context, "two-to-one"));
    expect(value(await emptyBin(context, null))).toEqual({ gone: 1, back: 1 });
    expect((await all()).map((p) => p.card.name)).toContain("Again");
    expect(await context.db("preset_versions").where({ preset: "two-to-one" })).toEqual([]);
  });
  it("are put into what stands by itself only, and refused without a trace", async () => {
    const { kind, content, card } = value(await getPreset(context, "two-to-one")).preset;
    const saved: string[] = [];
    for (const name of ["A", "B", "C"])
      saved.push(value(await savePreset(context, { preset: { kind, content, card: { ...card, name } } })).id);
    const [a, b, c] = saved as [string, string, string];
    value(await mergePresets(context, { keep: b, others: [a] }));
    expect(refusal(await mergePresets(context, { keep: a, others: [b] }))).toContain("put into another sound itself");
    value(await mergePresets(context, { keep: c, others: [b] }));
    expect(
      value(await getPreset(context, c))
        .merged.map((m) => m.id)
        .toSorted(),
    ).toEqual([a, b].toSorted());
    expect(refusal(await patchCards(context, { changes: [{ id: b, baseCard: 1, binned: true }] }))).toContain(
      "does not stand by itself",
    );
    value(await deletePreset(context, c));
    expect(refusal(await mergePresets(context, { keep: c, others: ["two-to-one"] }))).toContain("in the bin");
    expect((await libraryHistory(context)).undo).toBe("Put “C” into the bin");
  });
  it("hold no more tags and notes together than one card does", async () => {
    const { kind, content, card } = value(await getPreset(context, "two-to-one")).preset;
    const tags = Array.from({ length: 60 }, (_, n) => `t${n}`);
    const many = value(await savePreset(context, { preset: { kind, content, card: { ...card, name: "Many", tags } } }));
    const before = await filed();
    expect(refusal(await mergePresets(context, { keep: "two-to-one", others: [many.id] }))).toContain("60 at the most");
    expect(await filed()).toEqual(before);
  });
  it("of another kind, or of itself, are not merged", async () => {
    expect(refusal(await mergePresets(context, { keep: "two-to-one", others: ["rim-and-air"] }))).toContain("cannot");
    expect(refusal(await mergePresets(context, { keep: "two-to-one", others: ["two-to-one"] }))).toContain("cannot");
  });
});
