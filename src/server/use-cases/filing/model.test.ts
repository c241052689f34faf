import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Database } from "better-sqlite3";
import fc from "fast-check";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { INCLUDED } from "@/core/packs/included";
import { emptyCard } from "@/core/presets/preset";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import type { Outcome } from "../../failure";
import { listNamed } from "../../repositories/preset-lists";
import { readCard } from "../../data/stored";
import { value } from "../../testing";
import { savePreset } from "../library";
import { emptyBin, listBin } from "./bin";
import { deletePreset, nameVersion, patchCards } from "./cards";
import { fileBy } from "./file-by";
import { changeFolder, deleteFolder, listFolders, makeFolder } from "./folders";
import { libraryHistory, walkLibrary } from "./history";
import { mergePresets } from "./merge";

/*
 * The store against a small model of what should be there. The model knows where each sound is (by itself, in the bin, inside
 * another), its folder and its rating, and the folders; and for each change what stood there before. It says beforehand
 * whether an act is to be refused; a refused one leaves every table as it was, to the byte.
 */

type Place = "alone" | "bin" | { readonly in: string };
interface Sound {
  at: Place;
  folder: string | null;
  rating: number;
  /** What its first version is called. */
  called: string | null;
  readonly kind: string;
  readonly artist: string;
}
interface Folder {
  name: string;
  parent: string | null;
}
interface World {
  sounds: Map<string, Sound>;
  folders: Map<string, Folder>;
}

/** A field of a sound, or a folder as a whole, with what stood there and what stands there now. */
type Change =
  | { what: "at"; id: string; from: Place; to: Place }
  | { what: "folder"; id: string; from: string | null; to: string | null }
  | { what: "rating"; id: string; from: number; to: number }
  | { what: "called"; id: string; from: string | null; to: string | null }
  | { what: "record"; id: string; from: Folder | null; to: Folder | null };

interface Entry {
  /** What was done last with it. */
  changes: readonly Change[];
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const inverse = (changes: readonly Change[]) =>
  changes.toReversed().map((c) => ({ ...c, from: c.to, to: c.from }) as Change);
const inside = (world: World, id: string) =>
  [...world.sounds].filter(([, s]) => same(s.at, { in: id })).map(([inner]) => inner);

function isBelow(world: World, folder: string | null, top: string): boolean {
  for (let at = folder; at !== null; at = world.folders.get(at)?.parent ?? null) if (at === top) return true;
  return false;
}

function canStand(world: World, id: string, { name, parent }: Folder): boolean {
  if (parent !== null && (!world.folders.has(parent) || isBelow(world, parent, id))) return false;
  return ![...world.folders].some(([other, f]) => other !== id && f.name === name && f.parent === parent);
}

function placeSound(world: World, { id, from, to }: Extract<Change, { what: "at" }>): boolean {
  const sound = world.sounds.get(id);
  if (!sound || !same(sound.at, from)) return false;
  if (typeof to === "object") {
    const host = world.sounds.get(to.in);
    if (!host || to.in === id || host.at !== "alone" || host.kind !== sound.kind) return false;
    if (from === "bin" || inside(world, id).length > 0) return false;
  }
  sound.at = to;
  return true;
}

function placeFolder(world: World, { id, from, to }: Extract<Change, { what: "record" }>): boolean {
  if (!same(world.folders.get(id) ?? null, from)) return false;
  if (to === null) {
    const holds = [...world.sounds.values()].some((s) => s.folder === id);
    if (holds || [...world.folders.values()].some((f) => f.parent === id)) return false;
    world.folders.delete(id);
    return true;
  }
  if (!canStand(world, id, to)) return false;
  world.folders.set(id, { ...to });
  return true;
}

/** Takes a change where the laws of the filing let it; false, and nothing changed, where not. */
function take(world: World, change: Change): boolean {
  if (change.what === "at") return placeSound(world, change);
  if (change.what === "record") return placeFolder(world, change);
  const sound = world.sounds.get(change.id);
  if (!sound || sound[change.what] !== change.from) return false;
  if (change.what === "folder" && change.to !== null && !world.folders.has(change.to)) return false;
  Object.assign(sound, { [change.what]: change.to });
  return true;
}

class Model {
  world: World = { sounds: new Map(), folders: new Map() };
  undo: Entry[] = [];
  redo: Entry[] = [];

  /** Does all changes as one entry; false where one of them is refused, and then nothing is changed. */
  act(changes: readonly Change[]): boolean {
    const before = structuredClone(this.world);
    if (!changes.every((change) => take(this.world, change))) {
      this.world = before;
      return false;
    }
    if (changes.length > 0) {
      this.undo.push({ changes });
      this.redo = [];
    }
    return true;
  }

  /** What is left of the next entry is passed over; null where there is none. */
  walk(direction: "undo" | "redo"): { done: number; passed: number } | null {
    const entry = this[direction].pop();
    if (!entry) return null;
    const steps = inverse(entry.changes);
    const done = steps.filter((change) => take(this.world, change));
    if (done.length > 0) this[direction === "undo" ? "redo" : "undo"].push({ changes: done });
    return { done: done.length, passed: steps.length - done.length };
  }

  empty(ids: readonly string[]): { gone: number; back: number } {
    const { sounds } = this.world;
    const gone = ids.filter((id) => sounds.get(id)?.at === "bin");
    let back = 0;
    for (const id of gone) {
      for (const inner of inside(this.world, id)) {
        sounds.get(inner)!.at = "alone";
        back += 1;
      }
      sounds.delete(id);
    }
    if (gone.length > 0) {
      this.undo = this.undo.filter((e) => this.concernsAny(e));
      this.redo = this.redo.filter((e) => this.concernsAny(e));
    }
    return { gone: gone.length, back };
  }

  private concernsAny({ changes }: Entry): boolean {
    const { sounds } = this.world;
    return changes.some((c) => {
      if (c.what === "record") return true;
      if (!sounds.has(c.id)) return false;
      if (c.what !== "at") return true;
      const hosts = [c.to, c.from].filter((place) => typeof place === "object");
      return hosts.length === 0 || sounds.has(hosts[0]!.in);
    });
  }
}

const ARTISTS = ["", "Copper Heron", "Copper Heron", "Neap Tide"] as const;
const originOf = (n: number) => (pick(ARTISTS, n) === "" ? {} : { artist: pick(ARTISTS, n) });

let folder: string;
let context: OpenContext;
/** Every row of every table, as it was at the beginning. */
let beginning: readonly (readonly [table: string, rows: readonly Record<string, unknown>[]])[];
let begun: World;

const TABLES = [
  "documents",
  "folders",
  "presets",
  "preset_holds",
  "preset_versions",
  "library_log",
  "changes",
] as const;

/** The one connection itself: the tests read and lay all tables some ten thousand times. */
let raw: Database;
const dump = () =>
  TABLES.map((t) => [t, raw.prepare(`SELECT * FROM ${t} ORDER BY 1, 2`).all() as Record<string, unknown>[]] as const);

const ofKind = (kind: string, n: number) => INCLUDED.presets.filter((p) => p.content.kind === kind)[n]!.content;

beforeAll(async () => {
  const memory = "/dev/shm";
  folder = mkdtempSync(join(existsSync(memory) ? memory : tmpdir(), "diathesis-model-"));
  context = await openContext(folder);
  raw = (await (context.writer.client as { acquireConnection(): Promise<unknown> }).acquireConnection()) as Database;
  await (context.writer.client as { releaseConnection(connection: unknown): Promise<void> }).releaseConnection(raw);
  for (const [n, kind] of ["plugin", "plugin", "plugin", "plugin", "chain", "chain"].entries()) {
    const card = { ...emptyCard(`Sound ${n}`), origin: originOf(n) };
    value(await savePreset(context, { preset: { kind: kind as "plugin", content: ofKind(kind, n % 2), card } }));
  }
  for (const name of ["Bowed", "Struck"]) value(await makeFolder(context, { name, parent: null }));
  await context.writer("library_log").delete();
  beginning = dump();
  begun = await worldNow();
});

afterAll(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

async function lay(): Promise<Model> {
  raw.transaction(() => {
    for (const table of TABLES.toReversed()) raw.exec(`DELETE FROM ${table}`);
    for (const [table, rows] of beginning) {
      const names = Object.keys(rows[0] ?? {});
      if (rows.length === 0) continue;
      const insert = raw.prepare(`INSERT INTO ${table} (${names.join()}) VALUES (${names.map((n) => `@${n}`).join()})`);
      for (const row of rows) insert.run(row);
    }
  })();
  await context.search.build(context.db);
  const model = new Model();
  model.world = structuredClone(begun);
  return model;
}

async function worldNow(): Promise<World> {
  const rows = await context.db("presets").orderBy("row");
  const firsts = await context.db("preset_versions").where({ version: 1 });
  const called = new Map(firsts.map(({ preset, name }) => [preset, name]));
  const sounds = rows.map(({ id, kind, folder: where, card, binned_at, merged_into }): [string, Sound] => {
    const { rating, origin } = readCard(card);
    const at: Place = merged_into !== null ? { in: merged_into } : binned_at === null ? "alone" : "bin";
    return [id, { at, folder: where, rating, called: called.get(id) ?? null, kind, artist: origin.artist ?? "" }];
  });
  const list = await listFolders(context);
  return { sounds: new Map(sounds), folders: new Map(list.map(({ id, name, parent }) => [id, { name, parent }])) };
}

const pick = <T>(list: readonly T[], n: number): T => list[n % list.length]!;

interface Act {
  /** What the model makes of it: the changes, or null for what is refused before any. */
  readonly changes: (model: Model, n: number, m: number) => readonly Change[] | null;
  readonly run: (model: Model, n: number, m: number) => Promise<Outcome<unknown>>;
}

const cardOf = async (id: string): Promise<number> =>
  (await context.db("presets").where({ id }).first("card_revision"))!.card_revision;
const ids = (model: Model) => [...model.world.sounds.keys()];
const shelf = (model: Model) => [...model.world.folders.keys()];
const patch = async (id: string, change: object) =>
  patchCards(context, { changes: [{ id, baseCard: await cardOf(id), ...change }] });

const bin = (to: boolean): Act => ({
  changes: (model, n) => {
    const id = pick(ids(model), n);
    const { at } = model.world.sounds.get(id)!;
    if (typeof at === "object") return to ? null : [];
    return (at === "bin") === to ? [] : [{ what: "at", id, from: at, to: to ? "bin" : "alone" }];
  },
  run: (model, n) => patch(pick(ids(model), n), { binned: to }),
});

const CALLED = [null, "Before the doubling", "Loud"] as const;

const ACTS: Readonly<Record<string, Act>> = {
  bin: bin(true),
  restore: bin(false),
  delete: {
    changes: (model, n) => {
      const id = pick(ids(model), n);
      return model.world.sounds.get(id)!.at === "alone" ? [{ what: "at", id, from: "alone", to: "bin" }] : null;
    },
    run: (model, n) => deletePreset(context, pick(ids(model), n)),
  },
  merge: {
    changes: (model, n, m) => {
      const [keep, ...others] = merging(model, n, m);
      const all = [keep!, ...others].map((id) => model.world.sounds.get(id)!);
      const rating = Math.max(...all.map((s) => s.rating));
      return [
        ...(rating === all[0]!.rating
          ? []
          : [{ what: "rating", id: keep!, from: all[0]!.rating, to: rating } as const]),
        ...others.flatMap((id) => [
          ...inside(model.world, id).map(
            (inner): Change => ({ what: "at", id: inner, from: { in: id }, to: { in: keep! } }),
          ),
          { what: "at", id, from: "alone", to: { in: keep! } } as const,
        ]),
      ];
    },
    run: (model, n, m) => {
      const [keep, ...others] = merging(model, n, m);
      return mergePresets(context, { keep: keep!, others });
    },
  },
  rate: {
    changes: (model, n, m) => {
      const id = pick(ids(model), n);
      // A card that is set as it is has been changed all the same: it is a step of the log.
      return [{ what: "rating", id, from: model.world.sounds.get(id)!.rating, to: m % 6 }];
    },
    run: (model, n, m) => patch(pick(ids(model), n), { card: { rating: m % 6 } }),
  },
  call: {
    changes: (model, n, m) => {
      const id = pick(ids(model), n);
      const [from, to] = [model.world.sounds.get(id)!.called, pick(CALLED, m)];
      return from === to ? [] : [{ what: "called", id, from, to }];
    },
    run: (model, n, m) => nameVersion(context, pick(ids(model), n), { version: 1, name: pick(CALLED, m) }),
  },
  move: {
    changes: (model, n, m) => {
      const id = pick(ids(model), n);
      return [{ what: "folder", id, from: model.world.sounds.get(id)!.folder, to: pick([null, ...shelf(model)], m) }];
    },
    run: (model, n, m) => patch(pick(ids(model), n), { card: { folder: pick([null, ...shelf(model)], m) } }),
  },
  nest: {
    changes: (model, n, m) => {
      const id = pick(shelf(model), n);
      if (id === undefined) return null;
      const from = model.world.folders.get(id)!;
      const to = { ...from, parent: pick([null, ...shelf(model)], m) };
      return same(from, to) ? [] : [{ what: "record", id, from, to }];
    },
    run: (model, n, m) =>
      changeFolder(context, pick(shelf(model), n) ?? "none", { parent: pick([null, ...shelf(model)], m) }),
  },
  away: {
    changes: (model, n) => {
      const id = pick(shelf(model), n);
      const from = id === undefined ? undefined : model.world.folders.get(id);
      if (id === undefined || !from) return null;
      const { parent } = from;
      const { sounds, folders } = model.world;
      return [
        ...[...sounds]
          .filter(([, s]) => s.folder === id)
          .map(([s]): Change => ({ what: "folder", id: s, from: id, to: parent })),
        ...[...folders]
          .filter(([, f]) => f.parent === id)
          .map(([f, record]): Change => ({ what: "record", id: f, from: record, to: { ...record, parent } })),
        { what: "record", id, from, to: null },
      ];
    },
    run: (model, n) => deleteFolder(context, pick(shelf(model), n) ?? "none"),
  },
};

/** The one that stays and one or two others, not always different. */
function merging(model: Model, n: number, m: number): readonly string[] {
  const others = [pick(ids(model), m), ...(m % 3 === 0 ? [pick(ids(model), m + 1)] : [])];
  return [pick(ids(model), n), ...new Set(others)];
}

/** Acts that are no entry of the log, or are named by what they answer. */
const OTHERS: Readonly<Record<string, (model: Model, n: number, m: number) => Promise<void>>> = {
  make: async (model, n, m) => {
    const record = { name: `Made ${m % 3}`, parent: pick([null, ...shelf(model)], n) };
    const made = await makeFolder(context, record);
    const fits = canStand(model.world, "", record);
    expect(made.ok).toBe(fits);
    if (made.ok) model.act([{ what: "record", id: made.value.id, from: null, to: record }]);
  },
  saveInto: async (model, n, m) => {
    const where = pick([null, ...shelf(model)], n);
    const kind = m % 2 === 0 ? "plugin" : "chain";
    const card = { ...emptyCard(`Saved ${m}`), folder: where, origin: originOf(n) };
    const saved = value(await savePreset(context, { preset: { kind, content: ofKind(kind, 0), card } }));
    const artist = pick(ARTISTS, n);
    model.world.sounds.set(saved.id, { at: "alone", folder: where, rating: 0, called: null, kind, artist });
  },
  fileBy: async (model, n, m) => {
    const some = ids(model).filter((_, at) => (at + n) % 3 !== m % 3);
    const named = some.filter((id) => model.world.sounds.get(id)!.artist !== "");
    const outcome = await fileBy(context, { by: "artist", ids: some });
    expect(outcome.ok).toBe(named.length > 0);
    if (outcome.ok) expect(model.act(await filedBy(model, named))).toBe(true);
  },
  empty: async (model, n, m) => {
    const some = m % 2 === 0 ? null : ids(model).filter((_, i) => (i + n) % 2 === 0);
    const expected = model.empty(some ?? ids(model));
    expect(value(await emptyBin(context, some))).toEqual(expected);
  },
  undo: (model) => walk(model, "undo"),
  redo: (model) => walk(model, "redo"),
};

/** A folder at the top for each artist, as it is called, made where there was none; then all of theirs into it. */
async function filedBy({ world }: Model, named: readonly string[]): Promise<readonly Change[]> {
  const top = (await listFolders(context)).filter((f) => f.parent === null);
  const folderOf = (id: string) => top.find((f) => f.name === world.sounds.get(id)!.artist)!;
  const made = new Map(named.map((id) => [folderOf(id).id, folderOf(id).name]));
  return [
    ...[...made]
      .filter(([id]) => !world.folders.has(id))
      .map(([id, name]): Change => ({ what: "record", id, from: null, to: { name, parent: null } })),
    ...named
      .filter((id) => world.sounds.get(id)!.folder !== folderOf(id).id)
      .map((id): Change => ({ what: "folder", id, from: world.sounds.get(id)!.folder, to: folderOf(id).id })),
  ];
}

async function walk(model: Model, direction: "undo" | "redo"): Promise<void> {
  const expected = model.walk(direction);
  const walked = await walkLibrary(context, direction);
  if (!expected) {
    expect(walked).toMatchObject({
      ok: false,
      error: { code: "refused", message: `There is nothing to ${direction}.` },
    });
    return;
  }
  const { done, passed, reasons } = value(walked).walked;
  expect({ done, passed }).toEqual(expected);
  expect(reasons.length > 0).toBe(passed > 0);
}

async function compare(model: Model): Promise<void> {
  const now = await worldNow();
  expect(Object.fromEntries(now.sounds)).toEqual(Object.fromEntries(model.world.sounds));
  expect(Object.fromEntries(now.folders)).toEqual(Object.fromEntries(model.world.folders));
  const at = (place: Place) => [...model.world.sounds].filter(([, s]) => s.at === place).map(([id]) => id);
  expect((await listBin(context)).map((b) => b.id).toSorted()).toEqual(at("bin").toSorted());
  expect((await listNamed(context.db)).map((p) => p.id)).toEqual(at("alone"));
  const history = await libraryHistory(context);
  expect([history.undo !== null, history.redo !== null]).toEqual([model.undo.length > 0, model.redo.length > 0]);
}

describe("the filing, whatever is done in whatever order", () => {
  it("is as a small model says; a refusal changes nothing; nothing goes that was not in the bin; undo goes on to its end", async () => {
    const names = [...Object.keys(ACTS), "merge", "merge", "bin", ...Object.keys(OTHERS), "undo", "empty"];
    const act = fc.tuple(fc.constantFrom(...names), fc.nat(11), fc.nat(11));
    let acts = 0;
    let refusals = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(act, { minLength: 3, maxLength: 7 }), async (list) => {
        const model = await lay();
        for (const [name, n, m] of list) {
          acts += 1;
          if (model.world.sounds.size === 0) break;
          if (OTHERS[name]) {
            await OTHERS[name](model, n, m);
            continue;
          }
          const { changes, run } = ACTS[name]!;
          const wanted = changes(model, n, m);
          const before = dump();
          const outcome = await run(model, n, m);
          const isTaken = wanted !== null && model.act(wanted);
          expect(outcome.ok, JSON.stringify(outcome)).toBe(isTaken);
          if (isTaken) continue;
          refusals += 1;
          expect(dump()).toEqual(before);
        }
        await compare(model);
        if (list.length % 2 === 0) return;
        // As often as there are entries, no more and no less.
        for (let entries = model.undo.length; entries > 0; entries--) await walk(model, "undo");
        expect((await libraryHistory(context)).undo).toBeNull();
        await compare(model);
      }),
      { numRuns: 1000 },
    );
    expect(acts).toBeGreaterThan(3000);
    expect(refusals).toBeGreaterThan(250);
  }, 240_000);
});
