import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { ProjectBody } from "@/contracts/projects";
import { contentMeant } from "@/core/presets/meant";
import { isUnsaved, referenceOf } from "@/core/presets/standing";
import { mixesOf } from "@/core/projects/mixes";
import { changePart } from "@/core/recall/arrange";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import { refused, value } from "../../testing";
import { findVersion } from "../../repositories/presets";
import { emptyBin } from "../filing/bin";
import { deletePreset } from "../filing/cards";
import { findStrips } from "../find-strips";
import { planFor } from "../plans";
import { getUses } from "../uses";
import { setBinned } from "./bin";
import { changeProject } from "./change";
import { listFigures } from "./figures";
import { getRevision, listHistory, returnTo } from "./history";
import { keepMix } from "./mixes";
import { getProject, listProjects } from "./read";
import { undo } from "./walk";

const ID = "salt-lanterns";
const OTHER = "neap-tide";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-bin-"));
  context = await openContext(folder);
  await loadDemo(context);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const now = async (id = ID): Promise<ProjectBody> => value(await getProject(context, id));
const ids = async (binned = false) => (await listProjects(context, binned)).map(({ id }) => id);

async function turnLevel(fader: number, id = ID) {
  const { project, revision } = await now(id);
  const strip = project.strips.find(({ kind }) => kind === "audio")!;
  const steps = [...changePart(strip, "level", { ...strip.level, fader }, context.mint)];
  return changeProject(context, id, { baseRevision: revision, label: "Level", steps });
}

describe("a project in the bin", () => {
  it("is in no list and no search, and comes back as it was", async () => {
    const before = await now();
    const strips = (await findStrips(context, { q: 'project:"Salt Lanterns"', limit: 100 })).total;
    expect(strips).toBeGreaterThan(5);
    value(await setBinned(context, ID, true));
    expect(await ids()).not.toContain(ID);
    expect(await ids(true)).toEqual([ID]);
    expect((await findStrips(context, { q: 'project:"Salt Lanterns"', limit: 100 })).total).toBe(0);
    expect((await now()).binnedAt).not.toBeNull();
    value(await setBinned(context, ID, false));
    expect(await ids()).toContain(ID);
    expect(await ids(true)).toEqual([]);
    expect((await findStrips(context, { q: 'project:"Salt Lanterns"', limit: 100 })).total).toBe(strips);
    expect(await now()).toEqual(before);
  });

  it("is not found either once the library is opened anew", async () => {
    value(await setBinned(context, ID, true));
    await context.close();
    context = await openContext(folder);
    expect((await findStrips(context, { q: 'project:"Salt Lanterns"', limit: 100 })).total).toBe(0);
    expect(await ids(true)).toEqual([ID]);
  });

  it("is not changed, by nothing; its past, its kept mixes and its strips are there to be taken", async () => {
    value(await turnLevel(-20));
    const { revision } = await now();
    const kept = value(await keepMix(context, ID, { baseRevision: revision, name: "Quiet", take: "", note: "" }));
    value(await setBinned(context, ID, true));
    expect((await now()).history).toEqual({ undo: null, redo: null });
    const base = { baseRevision: kept.revision };
    const tried = [
      await turnLevel(-3),
      await undo(context, ID, base.baseRevision),
      await returnTo(context, ID, { ...base, revision: 0 }),
      await keepMix(context, ID, { ...base, name: "Later", take: "", note: "" }),
    ];
    for (const one of tried) {
      expect(refused(one).code).toBe("refused");
      expect(!one.ok && one.error.message).toContain("is in the bin");
    }
    expect((await now()).revision).toBe(kept.revision);
    const [mix] = mixesOf((await now()).project);
    const then = value(await getRevision(context, ID, mix!.n));
    expect(then.project.strips.some(({ level }) => level.fader === -20)).toBe(true);
    expect(value(await listHistory(context, ID, { q: "level" })).items).toHaveLength(1);
    // Its strips go onto another project by way of a plan, as of any moment.
    const strips = [then.project.strips[0]!.id];
    const source = { project: ID, revision: mix!.n, strips };
    const request = {
      source,
      parts: ["level" as const],
      targets: { newStrip: { after: null } },
      mode: "replace" as const,
    };
    expect(value(await planFor(context, OTHER, { requests: [request] })).plan.steps.length).toBeGreaterThan(0);
  });

  it("is not told of among the uses of a sound, so that nothing of it follows a newer version", async () => {
    const from = (await now()).project.strips.flatMap(({ inserts }) => inserts.from ?? [])[0]!;
    const projects = async () => value(await getUses(context, from.preset)).uses.map(({ project }) => project);
    expect(await projects()).toContain(ID);
    value(await setBinned(context, ID, true));
    expect(await projects()).not.toContain(ID);
  });

  it("lies there since it was put there first; none that is not there, and no draft, is put into it", async () => {
    value(await setBinned(context, ID, true));
    const { binnedAt } = await now();
    value(await setBinned(context, ID, true));
    expect((await now()).binnedAt).toBe(binnedAt);
    expect(refused(await setBinned(context, "nothing", true)).code).toBe("notFound");
  });
});

describe("what is counted of projects", () => {
  it("is how many of their sounds are saved nowhere, as the ledger says it strip by strip", async () => {
    const all = await ids();
    const { figures } = await listFigures(context, [...all, "nothing"]);
    expect(figures.map(({ id }) => id)).toEqual(all);
    for (const { id, unsaved } of figures) {
      let count = 0;
      for (const strip of (await now(id)).project.strips) {
        const from = referenceOf(strip);
        const saved = from && (await findVersion(context.db, from.preset, from.version));
        if (isUnsaved(strip, saved ? contentMeant(saved.content, from) : null)) count += 1;
      }
      expect([id, unsaved]).toEqual([id, count]);
    }
    expect(figures.some(({ unsaved }) => unsaved > 0)).toBe(true);
  });

  it("follows what goes for good: a sound of a preset that is gone is saved nowhere", async () => {
    const read = async () => (await listFigures(context, [ID])).figures[0]!.unsaved;
    const before = await read();
    const { project } = await now();
    const from = [...new Set(project.strips.flatMap(({ inserts }) => inserts.from?.preset ?? []))];
    for (const preset of from) value(await deletePreset(context, preset));
    expect(await read()).toBe(before);
    value(await emptyBin(context, null));
    expect(await read()).toBeGreaterThan(before);
  });

  it("follows each change: one more that differs, and the room that its history takes", async () => {
    const read = async () => (await listFigures(context, [ID])).figures[0]!;
    const before = await read();
    value(await turnLevel(-7));
    const turned = await read();
    expect(turned.unsaved).toBe(before.unsaved);
    expect(turned.bytes).toBeGreaterThan(before.bytes);
    const { project, revision } = await now();
    const strip = project.strips.find(
      (one) => one.kind === "audio" && one.inserts.from && one.inserts.nodes.length > 0,
    )!;
    const steps = [...changePart(strip, "inserts", { ...strip.inserts, nodes: [] }, context.mint)];
    value(await changeProject(context, ID, { baseRevision: revision, label: "Empty", steps }));
    // A strip without plugins has no sound that could be saved.
    const emptied = await read();
    expect(emptied.unsaved).toBeLessThanOrEqual(before.unsaved);
  });
});
