import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { SweepWrapUp } from "@/contracts/wrap-up";
import { EMPTY_CHAIN, type Processor } from "@/core/chains/chain";
import { completeProcessor } from "@/core/chains/complete";
import { emptyCard } from "@/core/presets/preset";
import type { Project } from "@/core/projects/project";
import { createStrip } from "@/core/strips/strip";
import * as projects from "../../repositories/projects";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import { inTransaction } from "../../store/transaction";
import { patiently, refused, value } from "../../testing";
import { findPresets } from "../find-presets";
import { savePresets } from "../library";
import { changeProject } from "../projects/change";
import { getProject } from "../projects/read";
import { lookThrough } from "./look";
import { undoWrapUp, wrapUp } from "./file";
import { beginSweep, changeSweep, listFinds, tellSweep, wrapUpSweep } from "./sweep";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-sweep-"));
  context = await openContext(folder);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const compressor = (key: string, threshold: number): Processor =>
  completeProcessor({ type: "processor", key, model: "vca-compressor", enabled: true, values: { threshold } });

/** A project of strips that have a compressor each, at the thresholds that are given by their names. */
async function lay(id: string, thresholds: Readonly<Record<string, number>>): Promise<void> {
  const project: Project = {
    schema: 1,
    id,
    name: `Project ${id}`,
    artist: "",
    client: "Copper Heron",
    song: "",
    tempo: 100,
    meter: { beats: 4, unit: 4 },
    key: "",
    sampleRate: 48_000,
    strips: Object.entries(thresholds).map(([name, threshold]) => ({
      ...createStrip(`${id}-${name}`, "audio", { name }, null),
      inserts: { ...EMPTY_CHAIN, nodes: [compressor("c", threshold)] },
    })),
  };
  await inTransaction(context, async (tx, note) => {
    await projects.insertProject(tx, { project, at: "2026-03-04T10:00:00.000Z" });
    note({ kind: "project", id });
  });
}

const state = async () => (await tellSweep(context)).sweep!;
const ended = () => patiently(async () => expect((await state()).isRunning).toBe(false));

async function sweepThrough(...ids: readonly string[]): Promise<string> {
  const { sweep } = beginSweep(context, { projects: [...ids], called: "Copper Heron" });
  await ended();
  return sweep.id;
}
const findsOf = async (id: string) => value(await listFinds(context, id, 500));
const plugin = async (id: string) => (await findsOf(id)).finds.filter(({ level }) => level === "plugin");
const strips = async (id: string) => value(await getProject(context, id)).project.strips;
const names = async () => (await findPresets(context, { sort: "name", limit: 50 })).items.map(({ card }) => card.name);

/** Files some under a name each. */
const filing = (...ids: readonly string[]): SweepWrapUp["file"] =>
  ids.map((id, at) => ({ id, as: { card: emptyCard(`Swept ${at + 1}`) } }));

describe("a sweep over projects", () => {
  it("shows what sounds the same once, with every place, and dates it by its project", async () => {
    await lay("a", { Voice: -20, Cello: -31 });
    await lay("b", { Lead: -20 });
    const id = await sweepThrough("a", "b");
    expect(await state()).toMatchObject({ done: 2, of: 2, failed: [], called: "Copper Heron" });
    const finds = await plugin(id);
    expect(finds).toHaveLength(2);
    const voice = finds.find(({ others }) => others.length > 0)!;
    expect([voice.project.name, voice.strip.look.name]).toEqual(["Project a", "Voice"]);
    expect(voice.others).toEqual([{ project: "Project b", strip: "Lead" }]);
    expect(voice.card.origin).toMatchObject({ client: "Copper Heron", date: "2026-03-04" });
    expect(finds.every(({ isProposed }) => isProposed)).toBe(true);
    // The same as each project by itself says.
    for (const project of ["a", "b"])
      for (const { fingerprint, standing } of value(await lookThrough(context, project)).finds)
        expect(standing.is === "kept" || finds.some((find) => find.fingerprint === fingerprint)).toBe(true);
  });

  it("leaves out what the library has, and what a project has that went meanwhile", async () => {
    await lay("a", { Voice: -20 });
    value(
      await savePresets(context, {
        presets: [
          {
            kind: "plugin",
            content: { kind: "plugin", schema: 1, processor: compressor("x", -20) },
            card: emptyCard("Kept"),
          },
        ],
      }),
    );
    expect(await plugin(await sweepThrough("a", "nowhere"))).toEqual([]);
    expect(await state()).toMatchObject({ done: 1, of: 1, failed: [] });
  });

  it("stops, and goes on where it stopped", async () => {
    const ids = Array.from({ length: 12 }, (_, n) => `p${n}`);
    for (const [n, id] of ids.entries()) await lay(id, { Voice: -10 - n });
    const { sweep } = beginSweep(context, { projects: ids, called: "All" });
    value(changeSweep(context, sweep.id, false));
    await ended();
    // The one that it was at came to its end.
    expect(await state()).toMatchObject({ done: 1, of: 12 });
    expect((await findsOf(sweep.id)).total).toBe(1);
    // Asking how far it is does not set it going again.
    expect((await state()).isRunning).toBe(false);
    value(changeSweep(context, sweep.id, true));
    await ended();
    expect(await state()).toMatchObject({ done: 12, of: 12 });
    expect((await findsOf(sweep.id)).total).toBe(12);
  });

  it("takes the place of the one before", async () => {
    await lay("a", { Voice: -20 });
    const before = await sweepThrough("a");
    const after = await sweepThrough("a");
    expect(refused(await listFinds(context, before)).code).toBe("notFound");
    expect(refused(changeSweep(context, before, true)).code).toBe("notFound");
    expect((await findsOf(after)).total).toBe(1);
  });

  it("tells what could not be looked through, and goes on", async () => {
    await lay("a", { Voice: -20 });
    await lay("b", { Voice: -21 });
    await context
      .writer("documents")
      .whereIn("id", context.writer("projects").where({ id: "a" }).select("document"))
      .update({ body: "{" });
    await context.writer("project_strips").where({ project: "a" }).delete();
    const id = await sweepThrough("a", "b");
    const { failed, done, of } = await state();
    expect(failed.map((one) => one.id)).toEqual(["a"]);
    expect([done, of]).toEqual([2, 2]);
    expect(await plugin(id)).toHaveLength(1);
  });

  it("looks again at a project that was changed since", async () => {
    await lay("a", { Voice: -20 });
    const id = await sweepThrough("a");
    const [before] = await plugin(id);
    const { project, revision } = value(await getProject(context, "a"));
    const step = {
      id: "s",
      strip: "a-Voice",
      kind: "setValue" as const,
      node: "c",
      param: "threshold",
      from: -20,
      to: -40,
    };
    expect(project.strips).toHaveLength(1);
    value(await changeProject(context, "a", { baseRevision: revision, label: "Turn", steps: [step] }));
    value(changeSweep(context, id, false));
    // Nothing is looked through while it is stopped; it is one of one that waits, not one more.
    expect(await state()).toMatchObject({ done: 0, of: 1, isRunning: false });
    expect(refused(await wrapUpSweep(context, id, { file: filing(before!.id), left: [] })).code).toBe("stale");
    value(changeSweep(context, id, true));
    await ended();
    expect(await state()).toMatchObject({ done: 1, of: 1 });
    expect((await plugin(id)).map(({ fingerprint }) => fingerprint)).not.toEqual([before!.fingerprint]);
  });
});

describe("the wrap-up of a sweep", () => {
  it("files a sound once, and has every project go by it; one undo takes back all of it", async () => {
    await lay("a", { Voice: -20, Cello: -31 });
    await lay("b", { Lead: -20 });
    const before = [await strips("a"), await strips("b")];
    const id = await sweepThrough("a", "b");
    const ids = (await plugin(id)).map((find) => find.id);
    const { presets, undo } = value(
      await wrapUpSweep(context, id, { file: filing(...ids), left: [], newFolder: "Swept" }),
    );
    expect(presets).toHaveLength(2);
    expect(await names()).toEqual(["Swept 1", "Swept 2"]);
    const fromOf = async (project: string, at: number) => {
      const node = (await strips(project))[at]!.inserts.nodes[0];
      return node?.type === "processor" ? node.from?.preset : undefined;
    };
    expect(await fromOf("a", 0)).toBe(await fromOf("b", 0));
    expect(new Set([await fromOf("a", 0), await fromOf("a", 1)])).toEqual(new Set(presets.map((preset) => preset.id)));
    await ended();
    expect((await findsOf(id)).finds.filter(({ isProposed }) => isProposed)).toEqual([]);
    const again = await sweepThrough("a", "b");
    expect((await findsOf(again)).finds.filter(({ isProposed }) => isProposed)).toEqual([]);
    value(await undoWrapUp(context, undo!.project, undo!));
    expect(await names()).toEqual([]);
    expect([await strips("a"), await strips("b")]).toEqual(before);
    for (const project of ["a", "b"]) expect(value(await lookThrough(context, project)).last).toBeNull();
  });

  it("is remembered by each project, with what was passed over", async () => {
    await lay("a", { Voice: -20 });
    await lay("b", { Voice: -20 });
    const id = await sweepThrough("a", "b");
    const { undo } = value(
      await wrapUpSweep(context, id, { file: [], left: (await plugin(id)).map((find) => find.id) }),
    );
    expect(undo).toBeNull();
    expect((await plugin(id)).map(({ wasLeft, isProposed }) => [wasLeft, isProposed])).toEqual([[true, false]]);
    for (const project of ["a", "b"]) {
      const { last, finds } = value(await lookThrough(context, project));
      expect(last).not.toBeNull();
      expect(finds.filter(({ isProposed }) => isProposed)).toEqual([]);
    }
  });

  it("refuses what is not among what was found, and files nothing then", async () => {
    await lay("a", { Voice: -20 });
    const id = await sweepThrough("a");
    const file = filing((await plugin(id))[0]!.id, "plugin nothing");
    expect(refused(await wrapUpSweep(context, id, { file, left: [] })).code).toBe("stale");
    expect(await names()).toEqual([]);
  });
});

describe("what another window files meanwhile", () => {
  it("is not found any more, and is not filed twice", async () => {
    await lay("a", { Voice: -20 });
    const id = await sweepThrough("a");
    const [find] = await plugin(id);
    const { revision } = value(await lookThrough(context, "a"));
    const file = [{ key: "plugin a-Voice c", as: { card: emptyCard("Theirs") } }];
    value(await wrapUp(context, "a", { baseRevision: revision, file, left: [] }));
    expect(await plugin(id)).toEqual([]);
    expect(refused(await wrapUpSweep(context, id, { file: filing(find!.id), left: [] })).code).toBe("stale");
    expect(await names()).toEqual(["Theirs"]);
  });
});

describe("two strips that came from one sound and both changed", () => {
  it("are filed as two versions of it, one behind the other; what sounds the same is one", async () => {
    const content = { kind: "plugin" as const, schema: 1 as const, processor: compressor("x", -20) };
    const [preset] = value(
      await savePresets(context, { presets: [{ kind: "plugin", content, card: emptyCard("Both") }] }),
    );
    const from = { preset: preset!.id, version: 1, name: "Both" };
    await lay("a", { One: -25, Two: -35, Three: -35 });
    const { project, revision } = value(await getProject(context, "a"));
    const steps = project.strips.map((strip) => ({
      id: `s-${strip.id}`,
      strip: strip.id,
      kind: "setChain" as const,
      from: strip.inserts,
      to: { ...strip.inserts, nodes: strip.inserts.nodes.map((node) => ({ ...node, from })) as Processor[] },
    }));
    value(await changeProject(context, "a", { baseRevision: revision, label: "From", steps }));
    const looked = value(await lookThrough(context, "a"));
    const changed = looked.finds.filter(({ level, standing }) => level === "plugin" && standing.is === "changed");
    expect(changed).toHaveLength(3);
    const as = { preset: preset!.id, baseVersion: 1 };
    const wrapped = value(
      await wrapUp(context, "a", {
        baseRevision: looked.revision,
        file: changed.map(({ key }) => ({ key, as })),
        left: [],
      }),
    );
    expect(wrapped.presets.map(({ version }) => version)).toEqual([3]);
    const versions = (await strips("a")).map(({ inserts: { nodes } }) => {
      const [node] = nodes;
      return node?.type === "processor" ? node.from?.version : null;
    });
    expect(versions).toEqual([2, 3, 3]);
    value(await undoWrapUp(context, "a", wrapped.undo!));
    expect((await findPresets(context, { limit: 9 })).items.map(({ version }) => version)).toEqual([1]);
  });
});
