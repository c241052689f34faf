import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import type { Project } from "@/core/projects/project";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { value } from "../testing";
import { changeProject, changeTogether } from "./projects/change";
import { getProject } from "./projects/read";
import { undoTogether } from "./projects/walk";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-together-"));
  context = await openContext(folder);
  await loadDemo(context);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const PROJECTS = ["salt-lanterns", "ferry-light", "neap-tide"];
const bodies = () => Promise.all(PROJECTS.map(async (id) => value(await getProject(context, id))));
const faster = (project: Project, by = 1) => ({
  id: "f",
  kind: "setDetail" as const,
  detail: "tempo" as const,
  from: project.tempo,
  to: project.tempo + by,
});
const changes = async () =>
  (await bodies()).map(({ project, revision }) => ({
    project: project.id,
    baseRevision: revision,
    steps: [faster(project)],
  }));

describe("a change of several projects", () => {
  it("is one revision of each, and is taken back from all of them at once", async () => {
    const before = await bodies();
    const made = value(await changeTogether(context, { label: "Faster", changes: await changes() }));
    expect(made.revisions).toEqual(PROJECTS.map((project) => ({ project, revision: 1 })));
    const after = await bodies();
    expect(after.map(({ project }) => project.tempo)).toEqual(before.map(({ project }) => project.tempo + 1));
    expect(after.map(({ history }) => history.undo)).toEqual(PROJECTS.map(() => "Faster"));
    value(await undoTogether(context, made));
    expect((await bodies()).map(({ project }) => project)).toEqual(before.map(({ project }) => project));
  });

  it("is refused as a whole where one project has gone on, and then none is changed", async () => {
    const asked = await changes();
    const [, ferry] = await bodies();
    const steps = [faster(ferry!.project, 5)];
    value(await changeProject(context, "ferry-light", { baseRevision: 0, label: "Alone", steps }));
    const before = await bodies();
    const refused = await changeTogether(context, { label: "Faster", changes: asked });
    expect(!refused.ok && refused.error.code).toBe("stale");
    expect(await bodies()).toEqual(before);
  });

  it("is taken back as a whole or not at all, where something stands on it in one of them", async () => {
    const made = value(await changeTogether(context, { label: "Faster", changes: await changes() }));
    const [salt] = await bodies();
    const on = [faster(salt!.project, 3)];
    value(await changeProject(context, "salt-lanterns", { baseRevision: 1, label: "On it", steps: on }));
    const before = await bodies();
    const refused = await undoTogether(context, made);
    expect(!refused.ok && refused.error.message).toContain("“On it” was done on it since");
    expect(await bodies()).toEqual(before);
  });
});
