import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { type Project, getStrip } from "@/core/projects/project";
import { removeStrips } from "@/core/recall/arrange";
import { counter } from "@/core/recall/testing/generators";
import type { Step } from "@/core/recall/steps";
import type { Result } from "@/core/result";
import { DEMO_PROJECTS } from "@/demo/projects";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { value } from "../testing";
import { findStrips } from "./find-strips";
import { planFor } from "./plans";
import { changeProject } from "./projects/change";
import { getProject } from "./projects/read";
import { undo } from "./projects/walk";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-strips-"));
  context = await openContext(folder);
  await loadDemo(context);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

function arranged<T>(result: Result<T, string>): T {
  if (!result.ok) throw new Error(result.error);
  return result.value;
}

const found = async (q: string) =>
  (await findStrips(context, { q, limit: 200 })).items.map(
    ({ projectName, strip }) => `${projectName}: ${strip.look.name}`,
  );

async function change(id: string, make: (project: Project) => readonly Step[]): Promise<number> {
  const { project, revision } = value(await getProject(context, id));
  const steps = [...make(project)];
  return value(await changeProject(context, id, { baseRevision: revision, label: "x", steps })).revision;
}

const rename = (id: string, strip: string, name: string) =>
  change(id, (project) => {
    const { look } = getStrip(project, strip);
    return [{ id: "n", kind: "setPart", strip, part: "look", from: look, to: { ...look, name } }];
  });

describe("strips of all projects", () => {
  it("are found by their names, their plugins, their groups and their projects, in the language of the field", async () => {
    const cellos = await found("cello");
    expect(cellos.length).toBeGreaterThan(1);
    expect(new Set(cellos.map((one) => one.split(":")[0])).size).toBeGreaterThan(1);
    expect(await found("cello project:“Salt Lanterns”")).toContain("Salt Lanterns: Cello");
    expect((await found("kind:return")).length).toBeGreaterThan(3);
    expect(await found("family:reverb kind:audio")).not.toContain("Salt Lanterns: Cello");
    // A folder has nothing that could be taken.
    const folders = DEMO_PROJECTS.flatMap(([, project]) => project.strips).filter(({ kind }) => kind === "folder");
    expect(folders.length).toBeGreaterThan(1);
    expect(await found("kind:folder")).toEqual([]);
    expect((await findStrips(context, {})).total).toBe(
      Number((await context.db("projects").where({ kind: "project" }).sum({ n: "strips" }))[0]!.n) - folders.length,
    );
  });

  it("are found as they are called now, also after a restart, and not once they are gone", async () => {
    await rename("salt-lanterns", "cello", "Kelp and gut");
    expect(await found("kelp")).toEqual(["Salt Lanterns: Kelp and gut"]);
    await context.close();
    context = await openContext(folder);
    expect(await found("kelp")).toEqual(["Salt Lanterns: Kelp and gut"]);
    const gone = await change("salt-lanterns", (project) =>
      arranged(removeStrips(project, ["cello"], () => null, counter())),
    );
    expect(await found("kelp")).toEqual([]);
    value(await undo(context, "salt-lanterns", gone));
    expect(await found("kelp")).toEqual(["Salt Lanterns: Kelp and gut"]);
  });

  it("are found anew where their group or their project is called otherwise", async () => {
    const { project } = value(await getProject(context, "salt-lanterns"));
    const group = project.strips.find(({ kind }) => kind === "group")!;
    await rename("salt-lanterns", group.id, "Quayside");
    expect((await found("quayside")).length).toBeGreaterThan(1);
    await change("salt-lanterns", ({ name }) => [
      { id: "n", kind: "setDetail", detail: "name", from: name, to: "Zephyr Ropes" },
    ]);
    expect((await found("zephyr")).length).toBe(project.strips.length);
  });
});

describe("strips of another project", () => {
  const plan = async (source: { project: string; revision?: number; strips: string[] }) =>
    planFor(context, "ferry-light", {
      requests: [{ source, parts: ["level"], targets: { newStrip: { after: null } }, mode: "replace" }],
    });

  it("are planned as they are, or were", async () => {
    const levelOf = async (revision?: number) => {
      const source = { project: "salt-lanterns", strips: ["cello"], ...(revision === undefined ? {} : { revision }) };
      const [step] = value(await plan(source)).plan.steps;
      return step?.kind === "placeStrip" ? step.to?.strip.level.fader : null;
    };
    const before = await levelOf();
    await change("salt-lanterns", (project) => {
      const { level } = getStrip(project, "cello");
      return [{ id: "l", kind: "setPart", strip: "cello", part: "level", from: level, to: { ...level, fader: -33 } }];
    });
    expect(await levelOf()).toBe(-33);
    expect(await levelOf(0)).toBe(before);
  });

  it("that are not there are told", async () => {
    const gone = await plan({ project: "salt-lanterns", strips: ["cello", "no such"] });
    expect(!gone.ok && gone.error).toMatchObject({ code: "notFound", path: "requests[0].source.strips" });
    const none = await plan({ project: "no such", strips: ["cello"] });
    expect(!none.ok && none.error).toMatchObject({ code: "notFound", path: "requests[0].source.project" });
  });
});
