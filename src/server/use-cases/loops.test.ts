import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, expect, it } from "vitest";
import type { Project } from "@/core/projects/project";
import { createStrip } from "@/core/strips/strip";
import { insertProject } from "../repositories/projects";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { inTransaction } from "../store/transaction";
import { value } from "../testing";
import { changeProject } from "./projects/change";
import { getProject } from "./projects/read";
import { undo } from "./projects/walk";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-loops-"));
  context = await openContext(folder);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const keyed = (by: string) => ({
  nodes: [
    {
      type: "processor" as const,
      key: "comp",
      model: "vca-compressor",
      enabled: true,
      values: {},
      keyInput: { strip: { strip: by }, tap: "pre" as const },
    },
  ],
  macros: [],
});
const project = (inserts: ReturnType<typeof keyed> | null): Project => ({
  schema: 1,
  id: "p",
  name: "Weir Song",
  artist: "",
  client: "",
  song: "",
  tempo: 92,
  meter: { beats: 4, unit: 4 },
  key: "",
  sampleRate: 48_000,
  strips: [
    { ...createStrip("cello", "audio", { name: "Cello" }, { strip: "main" }), ...(inserts ? { inserts } : {}) },
    createStrip("main", "main", { name: "Main" }, null),
  ],
});
const keep = (one: Project) =>
  inTransaction(context, (tx) => insertProject(tx, { project: one, at: "2026-11-28T00:00:00.000Z" }));
const faster = (base: number) =>
  changeProject(context, "p", {
    baseRevision: base,
    label: "Faster",
    steps: [{ id: "t", kind: "setDetail", detail: "tempo", from: 92, to: 93 }],
  });

it("a loop by a key is refused, and a project that has one from before can be changed, undone and mended", async () => {
  await keep(project(keyed("main")));
  value(await faster(0));
  value(await undo(context, "p", 1));
  const step = { id: "k", kind: "setKeyInput" as const, strip: "cello", node: "comp" };
  const key = { strip: { strip: "main" }, tap: "pre" as const };
  value(
    await changeProject(context, "p", { baseRevision: 2, label: "Mend", steps: [{ ...step, from: key, to: null }] }),
  );
  const again = { baseRevision: 3, label: "Key", steps: [{ ...step, from: null, to: key }] };
  const refused = await changeProject(context, "p", again);
  expect(refused).toMatchObject({ ok: false, error: { code: "refused" } });
  expect(value(await getProject(context, "p")).revision).toBe(3);
});
