import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { type Content, emptyCard, isStrips } from "@/core/presets/preset";
import { takeStrips } from "@/core/presets/save";
import { getStrip } from "@/core/projects/project";
import type { Strip } from "@/core/strips/strip";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { refused, value } from "../testing";
import { savePreset, saveVersion } from "./library";
import { planFor } from "./plans";
import { changeProject } from "./projects/change";
import { getProject } from "./projects/read";
import { getUses } from "./uses";

/* What came from a set, in every project that it went to. */

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-uses-"));
  context = await openContext(folder);
  await loadDemo(context);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Both say nothing of where they came from, so that they are of the set alone. */
const STRIPS = ["strings", "drum"];
const bare = (strip: Strip): Strip => {
  const { from: _, ...inserts } = strip.inserts;
  return { ...strip, inserts };
};
async function pair(): Promise<Content> {
  const { project } = value(await getProject(context, "salt-lanterns"));
  return takeStrips(
    project,
    STRIPS.map((id) => bare(getStrip(project, id))),
  );
}
/** The set, saved and put onto new strips of a project: its id, and where its strips went. */
async function applied(to: string): Promise<{ readonly id: string; readonly strips: readonly string[] }> {
  const content = await pair();
  const { id } = value(
    await savePreset(context, { preset: { kind: "set", content, card: emptyCard("Strings and drum") } }),
  );
  const request = {
    requests: [
      {
        source: { preset: id },
        parts: ["inserts" as const, "level" as const],
        targets: { set: { onto: "new" as const, among: null, after: null } },
        mode: "replace" as const,
      },
    ],
  };
  const { plan, revision } = value(await planFor(context, to, request));
  value(await changeProject(context, to, { baseRevision: revision, label: "Apply", steps: plan.steps }));
  const { project } = value(await getProject(context, to));
  const mine = project.strips.filter(({ inserts }) => inserts.from?.preset === id);
  return { id, strips: mine.map((strip) => strip.id) };
}
const usesOf = async (id: string) => value(await getUses(context, id)).uses;

describe("a set that went onto strips", () => {
  it("is used by each of them, by which of its strips, as saved", async () => {
    const { id, strips } = await applied("ferry-light");
    expect(strips).toHaveLength(2);
    const uses = await usesOf(id);
    expect(uses.map(({ strip, of, version, differs }) => ({ strip, of, version, differs }))).toEqual(
      strips.map((strip, at) => ({ strip, of: [STRIPS[at]], version: 1, differs: 0 })),
    );
  });

  it("is taken at its next version by one of them alone, also where that was saved under other keys", async () => {
    const { id, strips } = await applied("ferry-light");
    const { fader } = getStrip(value(await getProject(context, "salt-lanterns")).project, STRIPS[0]!).level;
    // The first of the two is a little softer by now.
    const elsewhere = JSON.parse(
      STRIPS.reduce(
        (text, key) => text.replaceAll(`"id":"${key}"`, `"id":"other-${key}"`),
        JSON.stringify(await pair()),
      ),
      (key, part: unknown) => (key === "fader" && part === fader ? fader - 1 : part),
    ) as Content;
    const saved = value(await saveVersion(context, id, { baseVersion: 1, content: elsewhere }));
    expect(isStrips(saved.content) && saved.content.strips.map((strip) => strip.id)).toEqual(STRIPS);
    const take = {
      requests: [
        {
          source: { preset: id, version: 2, strip: "drum" },
          parts: ["inserts" as const],
          targets: { strips: [...strips] },
          mode: "itself" as const,
        },
      ],
    };
    const { plan, revision } = value(await planFor(context, "ferry-light", take));
    expect(new Set(plan.steps.map((step) => "strip" in step && step.strip))).toEqual(new Set([strips[1]]));
    value(await changeProject(context, "ferry-light", { baseRevision: revision, label: "Take", steps: plan.steps }));
    expect((await usesOf(id)).map(({ version, differs }) => [version, differs])).toEqual([
      [1, 0],
      [2, 0],
    ]);
  });

  it("is not brought by a strip that it does not hold", async () => {
    const { id, strips } = await applied("ferry-light");
    const asked = (source: { preset: string; strip: string }) => ({
      requests: [{ source, parts: ["inserts" as const], targets: { strips: [...strips] }, mode: "itself" as const }],
    });
    const none = refused(await planFor(context, "ferry-light", asked({ preset: id, strip: "harp" })));
    expect(none).toMatchObject({ code: "notFound", path: "requests[0].source.strip" });
    const single = refused(await planFor(context, "ferry-light", asked({ preset: "rim-and-air", strip: "drum" })));
    expect(single.path).toBe("requests[0].source.strip");
  });
});
