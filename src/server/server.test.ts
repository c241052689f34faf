import { existsSync, mkdtempSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import type { Knex } from "knex";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { openApi } from "@/contracts/openapi";
import { ENDPOINTS } from "@/contracts/endpoints";
import { PresetPageSchema } from "@/contracts/library";
import { ProjectBodySchema } from "@/contracts/projects";
import { emptyCard } from "@/core/presets/preset";
import { findContentProblem } from "@/core/presets/whole";
import { findProjectProblem } from "@/core/projects/problems";
import type { Content } from "@/core/presets/preset";
import { ContentSchema } from "@/core/presets/schema";
import { ProjectSchema } from "@/core/projects/schema";
import { createStrip } from "@/core/strips/strip";
import { layerOf } from "@/core/strips/parts/source";
import { walkHistory } from "@/core/documents/history";
import { loadDemo } from "@/demo/load";
import { DEMO_PRESETS } from "@/demo/library";
import { DEMO_PROJECTS } from "@/demo/projects";
import type { OpenContext } from "./store/context";
import { openContext } from "./store/open";
import { DatabaseRefused } from "./data/faults";
import { openDatabase } from "./data/database";
import { setPragmas } from "./data/pragmas";
import { FolderInUse } from "./data/lock";
import { MIGRATIONS } from "./data/migrations";
import { deletePreset, patchCards } from "./use-cases/filing/cards";
import { listFolders, makeFolder } from "./use-cases/filing/folders";
import * as library from "./use-cases/library";
import { getUses } from "./use-cases/uses";
import { openDraft } from "./use-cases/drafts";
import { findPresets } from "./use-cases/find-presets";
import { changeProject } from "./use-cases/projects/change";
import { getRevision } from "./use-cases/projects/history";
import { getProject, listProjects, makeProject } from "./use-cases/projects/read";
import { redo, undo } from "./use-cases/projects/walk";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-unit-"));
  context = await openContext(folder);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const value = <T>(outcome: { ok: true; value: T } | { ok: false; error: { message: string } }): T => {
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
};

describe("the store", () => {
  it("asserts what durability rests on", () => {
    const db = new Database(join(folder, "other.db"));
    setPragmas(db);
    expect(db.pragma("synchronous", { simple: true })).toBe(2);
    db.close();
    const memory = new Database(":memory:");
    expect(() => setPragmas(memory)).toThrow("journal_mode");
    memory.close();
  });

  it("has one owner", async () => {
    await expect(openContext(folder)).rejects.toBeInstanceOf(FolderInUse);
    await context.close();
    context = await openContext(folder);
  });

  it("lays a copy beside itself before it migrates a library, and none for a new one", async () => {
    expect(existsSync(join(folder, "copies"))).toBe(false);
    await loadDemo(context);
    await context.close();
    const later = {
      name: "002-later",
      up: (db: Knex) => db.schema.dropTable("preset_holds"),
      down: () => Promise.resolve(),
    };
    const db = await openDatabase(folder, new Date("2026-11-25T10:00:00Z"), { migrations: [...MIGRATIONS, later] });
    expect(await db.schema.hasTable("preset_holds")).toBe(false);
    await db.destroy();
    const [copy] = readdirSync(join(folder, "copies"));
    expect(copy).toBe("before-migration-2026-11-25T10-00-00.000Z.db");
    const before = new Database(join(folder, "copies", copy!), { readonly: true });
    expect(before.prepare("SELECT count(*) AS n FROM preset_holds").get()).toMatchObject({
      n: expect.any(Number) as number,
    });
    expect(before.prepare("SELECT count(*) AS n FROM presets").get()).toEqual({ n: DEMO_PRESETS.length });
    before.close();
    // To this Diathesis that library is from a newer one now: it is left alone.
    await expect(openContext(folder)).rejects.toBeInstanceOf(DatabaseRefused);
    rmSync(folder, { recursive: true });
    context = await openContext(folder);
  });

  it("opens where somebody was killed while it migrated", async () => {
    await loadDemo(context);
    await context.close();
    const killed = new Database(join(folder, "diathesis.db"));
    expect(killed.prepare("UPDATE knex_migrations_lock SET is_locked = 1").run().changes).toBe(1);
    killed.close();
    context = await openContext(folder);
    expect(await context.db("presets").count({ n: "*" })).toEqual([{ n: DEMO_PRESETS.length }]);
  });

  it("numbers every transaction that changed something, and tells of it once it is on disk", async () => {
    const heard: number[] = [];
    context.events.on("change", ({ seq, records }) => {
      heard.push(seq);
      expect(records.length).toBeGreaterThan(0);
    });
    value(await makeFolder(context, { name: "Bowed", parent: null }));
    expect((await makeFolder(context, { name: "Bowed", parent: null })).ok).toBe(false);
    value(await makeFolder(context, { name: "Pairs", parent: null }));
    expect(heard).toEqual([1, 2]);
  });
});

describe("the sample world", () => {
  it("is whole, and passes every check that files from outside pass", () => {
    expect(DEMO_PRESETS.length).toBeGreaterThanOrEqual(150);
    for (const { id, versions } of DEMO_PRESETS)
      for (const content of versions) {
        expect(ContentSchema.safeParse(content).error, id).toBeUndefined();
        expect(findContentProblem(content)).toBeNull();
      }
    expect(DEMO_PROJECTS.length).toBe(9);
    expect(new Set(DEMO_PRESETS.map((p) => p.id)).size).toBe(DEMO_PRESETS.length);
    for (const [, project] of DEMO_PROJECTS) {
      expect(ProjectSchema.safeParse(project).error, project.id).toBeUndefined();
      expect(findProjectProblem(project)).toBeNull();
      expect(project.strips.length).toBeGreaterThanOrEqual(8);
      expect(project.strips.length).toBeLessThanOrEqual(16);
    }
  });

  it("is the same rows each time", async () => {
    const dump = async (c: OpenContext) => {
      await loadDemo(c);
      const tables = [
        "documents",
        "folders",
        "presets",
        "preset_holds",
        "preset_versions",
        "projects",
        "project_strips",
        "uses",
        "changes",
      ];
      return Promise.all(tables.map((table) => c.db(table).select("*")));
    };
    const other = mkdtempSync(join(tmpdir(), "diathesis-unit-"));
    const second = await openContext(other);
    expect(await dump(context)).toEqual(await dump(second));
    await second.close();
    rmSync(other, { recursive: true, force: true });
  });
});

describe("the library", () => {
  const names = async (q: string): Promise<string[]> =>
    (await findPresets(context, { q })).items.map((p) => p.card.name);

  it("finds by the beginnings of words, in names before tags before the rest, without accents", async () => {
    await loadDemo(context);
    expect((await names("cel"))[0]).toMatch(/^Cello/);
    expect(await names("halo vib")).toEqual(["Vibraphone halo"]);
    expect(await names("marechal name:calm")).toEqual(["Narrator, close and calm"]);
    const page = await findPresets(context, { q: "gentle", limit: 500 });
    const tagged = DEMO_PRESETS.filter((p) => p.tags.includes("gentle"));
    expect(page.items.map((p) => p.id)).toEqual(expect.arrayContaining(tagged.map((p) => p.id)));
    // A slip is forgiven where nothing begins like that.
    expect(await names("rosinn")).toEqual(["Cello, wood and rosin"]);
    expect(await names('"*) NEAR zzq')).toEqual([]);
    expect((await findPresets(context, { q: "—,." })).total).toBe(DEMO_PRESETS.length);
  });

  it("pages through all of them once, in every order", async () => {
    await loadDemo(context);
    for (const sort of ["used", "name", "saved", undefined] as const) {
      const seen: string[] = [];
      let after: string | undefined;
      do {
        const page = await findPresets(context, {
          limit: 5,
          ...(sort ? { sort } : { q: "e" }),
          ...(after ? { after } : {}),
        });
        expect(PresetPageSchema.safeParse(page).error).toBeUndefined();
        seen.push(...page.items.map((p) => p.id));
        after = page.next ?? undefined;
      } while (after);
      expect(new Set(seen).size).toBe(seen.length);
      if (sort) expect(seen).toHaveLength(DEMO_PRESETS.length);
    }
  });

  it("counts what is left by kind and tag, with a folder and all below it", async () => {
    await loadDemo(context);
    const page = await findPresets(context, { folder: "voices" });
    const inside = DEMO_PRESETS.filter((p) => p.folder.startsWith("Voices"));
    const ofKind = (kind: string) => inside.filter((p) => p.versions.at(-1)!.kind === kind).length;
    expect(page.total).toBe(inside.length);
    expect(page.facets.kind).toEqual(
      ["chain", "plugin", "strip"].map((kind) => ({ value: kind, n: ofKind(kind) })).filter(({ n }) => n > 0),
    );
    expect((await listFolders(context)).map((f) => [f.name, f.count])).toContainEqual(["Voices", inside.length]);
  });

  it("keeps every version, and finds by the newest card after each change", async () => {
    await loadDemo(context);
    const base = value(await library.getPreset(context, "rim-and-air")).preset;
    const content = JSON.parse(JSON.stringify(base.content).replace('"enabled":true', '"enabled":false')) as Content;
    const saved = value(await library.saveVersion(context, "rim-and-air", { baseVersion: 1, content }));
    expect(saved.version).toBe(2);
    const [changed] = value(
      await patchCards(context, {
        changes: [{ id: "rim-and-air", baseCard: 1, card: { name: "Kelp strokes", tags: ["rare"] } }],
      }),
    );
    expect(changed?.cardRevision).toBe(2);
    expect(await names("kelp")).toEqual(["Kelp strokes"]);
    expect(await names("rim and air")).toEqual([]);
    expect((await findPresets(context, { tag: "rare" })).total).toBe(1);
    const detail = value(await library.getPreset(context, "rim-and-air", 1));
    expect(detail.versions.map((v) => v.version)).toEqual([2, 1]);
    expect(detail.preset.content).toEqual(base.content);
  });

  it("tells where a preset is used and by how much it differs there, also from the bin", async () => {
    await loadDemo(context);
    const usesOf = async () => value(await getUses(context, "eighths-left-right")).uses;
    const uses = await usesOf();
    expect(uses.map((u) => [u.project, u.strip, u.differs])).toEqual([
      ["neap-tide", "eighths", 1],
      ["salt-lanterns", "eighths", 0],
    ]);
    value(await deletePreset(context, "eighths-left-right"));
    // Strips that came from it go on telling by how much they differ, and it can still be opened.
    const binned = value(await library.getPreset(context, "eighths-left-right", 1));
    expect([binned.place, (await usesOf()).length]).toEqual(["bin", 2]);
    expect(value(await openDraft(context, { preset: "eighths-left-right" })).draft?.preset).toBe("eighths-left-right");
    expect((await deletePreset(context, "eighths-left-right")).ok).toBe(false);
    expect(await names("eighths left")).toEqual([]);
  });

  it("knows that an instrument uses the presets of its layers and of their effects, and when", async () => {
    await loadDemo(context);
    const saved = async (content: unknown, name: string) =>
      value(
        await library.savePreset(context, {
          preset: { kind: "plugin", content: structuredClone(content) as never, card: emptyCard(name) },
        }),
      );
    const plugin = (model: string) => ({
      kind: "plugin",
      schema: 1,
      processor: { type: "processor", key: "k", model, enabled: true, values: {} },
    });
    const [played, behind] = [await saved(plugin("pad-synth"), "Pad"), await saved(plugin("vca-compressor"), "Calm")];
    expect([played.usedAt, behind.usedAt]).toEqual([null, null]);
    const made = value(
      await makeProject(context, {
        project: {
          name: "Of one instrument",
          artist: "",
          client: "",
          song: "",
          tempo: 90,
          meter: { beats: 4, unit: 4 },
          key: "",
          sampleRate: 48_000,
          strips: [createStrip("pad", "instrument", { name: "Pad" }, null)],
        },
      }),
    );
    const processorOf = ({ id, content, card }: typeof played) => {
      if (content.kind !== "plugin") throw new Error("It was saved as a plugin.");
      return { ...content.processor, from: { preset: id, version: 1, name: card.name } };
    };
    const layer = {
      ...layerOf(processorOf(played)),
      effects: { nodes: [{ ...processorOf(behind), key: "behind" }], macros: [] },
    };
    const from = made.project.strips[0]!.source;
    const to = { type: "layers" as const, channels: "stereo" as const, layers: [layer] };
    const play = {
      label: "Play",
      steps: [{ id: "s", kind: "setPart" as const, strip: "pad", part: "source" as const, from, to }],
    };
    const usedAt = async () => value(await library.getPreset(context, played.id)).preset.usedAt;
    // Passed by while looking for another it is not used; what is stayed with is.
    value(await changeProject(context, made.project.id, { baseRevision: 0, ...play, passing: true }));
    expect(await usedAt()).toBeNull();
    value(await library.keepUse(context, played.id));
    expect(await usedAt()).not.toBeNull();
    value(await undo(context, made.project.id, 1));
    value(await changeProject(context, made.project.id, { baseRevision: 2, ...play }));
    for (const { id } of [played, behind]) {
      const { uses } = value(await getUses(context, id));
      expect(uses.map((use) => [use.project, use.strip, use.differs])).toEqual([[made.project.id, "pad", 0]]);
      expect(value(await library.getPreset(context, id)).preset.usedAt).not.toBeNull();
    }
  });

  it("fills in what a saved chain leaves out", async () => {
    const content = {
      kind: "plugin",
      schema: 1,
      processor: { type: "processor", key: "k", model: "vca-compressor", enabled: true, values: { ratio: 3 } },
    } as const;
    const saved = value(
      await library.savePreset(context, {
        preset: { kind: "plugin", content: structuredClone(content), card: emptyCard("Bare") },
      }),
    );
    expect(saved.content).toMatchObject({ processor: { values: { ratio: 3, threshold: -18, mix: 100 } } });
  });
});

describe("a project's history", () => {
  const fader = async (id: string, from: number, to: number, base: number) =>
    changeProject(context, id, {
      baseRevision: base,
      label: `Fader to ${to}`,
      steps: [
        {
          id: `s${to}`,
          strip: "narrator",
          part: "level",
          kind: "setPart",
          from: { fader: from, mute: false },
          to: { fader: to, mute: false },
        },
      ],
    });

  it("only grows: undo and redo append, and every revision can be seen again", async () => {
    await loadDemo(context);
    const id = "tidemill-tour";
    const start = value(await getProject(context, id)).project;
    value(await fader(id, 0, -2, 0));
    value(await fader(id, -2, -4, 1));
    const undone = value(await undo(context, id, 2));
    expect([undone.revision, undone.history]).toEqual([
      3,
      {
        undo: "Fader to -2 (Narrator)",
        redo: "Fader to -4 (Narrator)",
      },
    ]);
    const redone = value(await redo(context, id, 3));
    expect([redone.revision, redone.history.redo]).toEqual([4, null]);
    expect(ProjectBodySchema.safeParse(redone).error).toBeUndefined();
    value(await undo(context, id, 4));
    value(await undo(context, id, 5));
    expect(value(await getProject(context, id)).project).toEqual(start);
    expect((await undo(context, id, 6)).ok).toBe(false);
    const levels = await Promise.all(
      [0, 1, 2, 3, 4].map(async (n) => value(await getRevision(context, id, n)).project.strips[0]!.level.fader),
    );
    expect(levels).toEqual([0, -2, -4, -2, -4]);
    expect((await getRevision(context, id, 99)).ok).toBe(false);
  });

  it("takes single values on a newer revision where every from still holds, and nothing else", async () => {
    await loadDemo(context);
    value(await fader("tidemill-tour", 0, -2, 0));
    const pan = {
      id: "p",
      strip: "miller",
      part: "pan",
      kind: "setPart",
      from: { pan: -10, width: 100 },
      to: { pan: 0, width: 100 },
    } as const;
    const rebased = value(
      await changeProject(context, "tidemill-tour", {
        baseRevision: 0,
        label: "Pan",
        steps: [structuredClone(pan) as never],
      }),
    );
    expect(rebased.revision).toBe(2);
    const look = {
      id: "l",
      strip: "miller",
      part: "look",
      kind: "setPart",
      from: { name: "The miller" },
      to: { name: "Miller" },
    } as const;
    expect(
      await changeProject(context, "tidemill-tour", {
        baseRevision: 0,
        label: "Look",
        steps: [structuredClone(look) as never],
      }),
    ).toMatchObject({ ok: false, error: { code: "stale" } });
    expect(await fader("tidemill-tour", 0, -9, 0)).toMatchObject({ ok: false, error: { code: "refused" } });
  });

  it("waits for the revision that a change stands on, which may come over another line, and refuses what never comes", async () => {
    await loadDemo(context);
    const later = fader("tidemill-tour", -2, -4, 1);
    const last = undo(context, "tidemill-tour", 2);
    value(await fader("tidemill-tour", 0, -2, 0));
    expect(value(await later).revision).toBe(2);
    const { revision, project } = value(await last);
    expect([revision, project.strips[0]!.level.fader]).toEqual([3, -2]);
    expect(await fader("tidemill-tour", -2, -4, 5)).toMatchObject({ ok: false, error: { code: "stale" } });
  });

  it("is walked from its links alone", () => {
    const link = (n: number, undoes: number | null = null, redoes: number | null = null) => ({
      n,
      label: `${n}`,
      undoes,
      redoes,
    });
    expect(walkHistory([link(1), link(2), link(3, 2), link(4, 1), link(5, null, 1), link(6)])).toEqual({
      undo: [1, 6],
      redo: [],
    });
    expect(walkHistory([link(1), link(2), link(3, 2)])).toEqual({ undo: [1], redo: [2] });
    expect(walkHistory([])).toEqual({ undo: [], redo: [] });
  });
});

describe("a draft", () => {
  it("is taken up again until it is saved, and shows in no list", async () => {
    await loadDemo(context);
    const first = value(await openDraft(context, { preset: "rim-and-air" }));
    expect(first.draft).toEqual({ preset: "rim-and-air", version: 1 });
    expect(first.project.strips[0]!.inserts.from).toEqual({ preset: "rim-and-air", version: 1, name: "Rim and air" });
    expect(value(await openDraft(context, { preset: "rim-and-air" })).project.id).toBe(first.project.id);
    expect((await listProjects(context)).map((p) => p.id)).not.toContain(first.project.id);
    const from = first.project.strips[0]!.inserts.from!;
    value(
      await changeProject(context, first.project.id, {
        baseRevision: 0,
        label: "Save",
        steps: [
          {
            id: "f",
            strip: "strip",
            kind: "setFrom",
            from,
            to: { ...from, version: 2 },
          },
        ],
      }),
    );
    // It goes by what it was saved as, and by what it was opened from again when that is taken back.
    expect(value(await getProject(context, first.project.id)).draft).toEqual({ preset: "rim-and-air", version: 2 });
    expect(value(await undo(context, first.project.id, 1)).draft).toEqual({ preset: "rim-and-air", version: 1 });
    value(await redo(context, first.project.id, 2));
    expect(value(await openDraft(context, { preset: "rim-and-air" })).project.id).not.toBe(first.project.id);
    expect(await openDraft(context, { preset: "gone" })).toMatchObject({
      ok: false,
      error: { code: "notFound", path: "preset" },
    });
  });
});

describe("the description of the API", () => {
  it("has every address once, with bodies that are strict", () => {
    const { paths } = openApi("0");
    expect(Object.values(paths).flatMap((p) => Object.keys(p))).toHaveLength(ENDPOINTS.length);
    expect(JSON.stringify(paths["/api/presets"])).toContain('"additionalProperties":false');
  });
});
