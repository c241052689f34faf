import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { windowName } from "@/core/documents/window";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import { forWindow } from "../../store/window";
import { refused, value } from "../../testing";
import { findPresets } from "../find-presets";
import { getPreset, saveVersion } from "../library";
import { changeProject } from "../projects/change";
import { getProject } from "../projects/read";
import { undo } from "../projects/walk";
import { getSettings } from "../settings";
import { makeNewest, patchCards } from "./cards";
import { makeFolder } from "./folders";
import { libraryHistory, listLog, walkLibrary } from "./history";
import { changeSearch } from "./searches";

let folder: string;
let context: OpenContext;

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-log-"));
  context = await openContext(folder);
  await loadDemo(context);
});

afterEach(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const [HERE, THERE] = ["aaaa", "bbbb"].map((letters) => windowName(new Date("2026-11-01T10:00:00Z"), letters)) as [
  string,
  string,
];
const own = async () => (await findPresets(context, { sort: "name", limit: 500 })).items.filter((p) => p.pack === null);
async function two() {
  const [a, b] = await own();
  return [a!, b!] as const;
}
async function rate(id: string, rating: number) {
  const { preset } = value(await getPreset(context, id));
  value(await patchCards(context, { changes: [{ id, baseCard: preset.cardRevision, card: { rating } }] }));
}
const log = async (q?: string) => (await listLog(context, q === undefined ? {} : { q })).items;

describe("the history of the library", () => {
  it("lists all that was done, the newest first: when, in which window, to what, and how it stands", async () => {
    const [a, b] = await two();
    await forWindow(HERE, () => rate(a.id, 2));
    await forWindow(THERE, () => rate(b.id, 1));
    await rate(b.id, 5);
    value(await forWindow(HERE, () => walkLibrary(context, "undo")));
    const told = await log();
    expect(told.slice(0, 4).map(({ window, of, standing, some }) => [window, of, standing, some[0]?.name])).toEqual([
      [HERE, told[1]!.n, null, b.card.name],
      [null, null, "undone", b.card.name],
      [THERE, null, "done", b.card.name],
      [HERE, null, "done", a.card.name],
    ]);
    expect(told.map(({ n }) => n)).toEqual(told.map(({ n }) => n).toSorted((x, y) => y - x));
  });

  it("is searched by the beginnings of words, of what was done and of what it concerned, whatever case and accents", async () => {
    const [a, b] = await two();
    value(
      await patchCards(context, {
        changes: [a, b].map(({ id }) => ({ id, baseCard: 1, card: { name: `Ölfaß ${id}` } })),
        label: "Rename 2 sounds",
      }),
    );
    expect((await log("OLFASS")).map(({ label }) => label)).toEqual(["Rename 2 sounds"]);
    expect((await log("sound ren")).map(({ label, count }) => [label, count])).toEqual([["Rename 2 sounds", 2]]);
    expect(await log("sound renn")).toEqual([]);
  });

  it("comes page by page, also of a search", async () => {
    const [a] = await own();
    for (let n = 0; n < 7; n++) await rate(a!.id, n % 6);
    const all = await log();
    const first = await listLog(context, { limit: 3 });
    expect([first.items, first.more]).toEqual([all.slice(0, 3), true]);
    const next = await listLog(context, { limit: 200, before: first.items.at(-1)!.n });
    expect([next.items, next.more]).toEqual([all.slice(3), false]);
    const found = await listLog(context, { q: "rate", limit: 7 });
    expect(found.items.length).toBe(7);
    expect((await listLog(context, { q: "rate", limit: 7, before: found.items[6]!.n })).items).toEqual(
      (await log("rate")).slice(7),
    );
  });

  it("takes any entry back that nothing later stands on, and does it again; else it says what does", async () => {
    const [a, b] = await own();
    await rate(a!.id, 2);
    await rate(b!.id, 3);
    const [ofB, ofA] = await log();
    value(await walkLibrary(context, "undo", ofA!.n));
    expect((await log("")).map(({ n, standing }) => [n, standing]).slice(1, 3)).toEqual([
      [ofB!.n, "done"],
      [ofA!.n, "undone"],
    ]);
    expect(value(await getPreset(context, a!.id)).preset.card.rating).toBe(a!.card.rating);
    value(await walkLibrary(context, "redo", ofA!.n));
    expect(value(await getPreset(context, a!.id)).preset.card.rating).toBe(2);
    await rate(a!.id, 4);
    expect(refused(await walkLibrary(context, "undo", ofA!.n)).code).toBe("refused");
    expect(value(await getPreset(context, a!.id)).preset.card.rating).toBe(4);
  });
});

describe("what was done in another window", () => {
  it("is told before it is taken back, and after, in the library", async () => {
    const [a] = await own();
    await forWindow(THERE, () => rate(a!.id, 2));
    const label = (await log())[0]!.label;
    expect((await forWindow(THERE, () => libraryHistory(context))).undo).toBe(label);
    const elsewhere = `${label} (done in another window)`;
    expect((await forWindow(HERE, () => libraryHistory(context))).undo).toBe(elsewhere);
    const { walked } = value(await forWindow(HERE, () => walkLibrary(context, "undo")));
    expect(walked.label).toBe(elsewhere);
  });

  it("is told in a project, too", async () => {
    const { revision, project } = value(await getProject(context, "neap-tide"));
    const [first] = project.strips;
    const to = { ...first!.look, name: "Bell" };
    const renamed = { id: "a", kind: "setPart", part: "look", strip: first!.id, from: first!.look, to } as const;
    const asked = { baseRevision: revision, label: "Rename", steps: [renamed] };
    value(await forWindow(THERE, () => changeProject(context, "neap-tide", asked)));
    const seen = async (window: string) =>
      value(await forWindow(window, () => getProject(context, "neap-tide"))).history;
    const { undo: words } = await seen(THERE);
    expect((await seen(HERE)).undo).toBe(`${words} (done in another window)`);
    const { history } = value(await forWindow(HERE, () => undo(context, "neap-tide", revision + 1)));
    expect(history.redo).toContain("(done in another window)");
  });
});

describe("kept searches", () => {
  const kept = async () => (await getSettings(context)).settings.searches.map(({ name }) => name);
  const search = (name: string) => ({ name, q: "warm", only: "", folder: null });

  it("are kept, called otherwise, put elsewhere and let go of, each a change that can be taken back", async () => {
    const before = await kept();
    for (const name of ["One", "Two", "Three"]) value(await changeSearch(context, { id: name, search: search(name) }));
    value(await changeSearch(context, { id: "Two", search: search("Zwei") }));
    value(await changeSearch(context, { id: "Three", search: search("Three"), at: 0 }));
    value(await changeSearch(context, { id: "One", search: null }));
    expect(await kept()).toEqual(["Three", ...before, "Zwei"]);
    expect((await log()).slice(0, 3).map(({ label }) => label)).toEqual([
      "Let go of the search “One”",
      "Move the search “Three”",
      "Call the search “Two” “Zwei”",
    ]);
    value(await walkLibrary(context, "undo"));
    expect(await kept()).toEqual(["Three", ...before, "One", "Zwei"]);
    value(await walkLibrary(context, "undo"));
    expect(await kept()).toEqual([...before, "One", "Zwei", "Three"]);
    for (let n = 0; n < 4; n++) value(await walkLibrary(context, "undo"));
    expect(await kept()).toEqual(before);
    expect(refused(await changeSearch(context, { id: "One", search: null })).code).toBe("notFound");
  });

  it("that were changed since are left as they are by an older undo", async () => {
    value(await changeSearch(context, { id: "one", search: search("One") }));
    const { n } = (await log())[0]!;
    value(await changeSearch(context, { id: "one", search: search("Other") }));
    expect(refused(await walkLibrary(context, "undo", n)).code).toBe("refused");
    expect(await kept()).toContain("Other");
  });
});

describe("versions", () => {
  it("an earlier one is made the newest in one step, which is taken back while nothing uses it", async () => {
    const some = (await own()).find((p) => p.kind === "plugin")!;
    const before = value(await getPreset(context, some.id));
    const other = (await own()).find((p) => p.kind === "plugin" && p.id !== some.id)!;
    value(await saveVersion(context, some.id, { baseVersion: some.version, content: other.content }));
    const made = value(await makeNewest(context, some.id, some.version));
    expect([made.version, made.content]).toEqual([some.version + 2, some.content]);
    expect((await libraryHistory(context)).undo).toBe(`Make version ${some.version} of “${some.card.name}” the newest`);
    value(await walkLibrary(context, "undo"));
    const back = value(await getPreset(context, some.id));
    expect([back.preset.version, back.preset.content]).toEqual([some.version + 1, other.content]);
    expect(back.versions.length).toBe(before.versions.length + 1);
    const has = async (q: string) =>
      (await findPresets(context, { q, limit: 500 })).items.some((p) => p.id === some.id);
    const model = (p: typeof some) => `has:${p.content.kind === "plugin" ? p.content.processor.model : ""}`;
    expect(await has(model(other))).toBe(true);
    value(await walkLibrary(context, "redo"));
    expect(value(await getPreset(context, some.id)).preset.content).toEqual(some.content);
    expect(await has(model(some))).toBe(true);
    expect(refused(await makeNewest(context, some.id, made.version)).code).toBe("refused");
    expect(refused(await makeNewest(context, some.id, 99)).code).toBe("notFound");
  });

  it("one that is used by now stays", async () => {
    const some = (await own()).find((p) => p.kind === "plugin")!;
    const other = (await own()).find((p) => p.kind === "plugin" && p.id !== some.id)!;
    value(await saveVersion(context, some.id, { baseVersion: some.version, content: other.content }));
    const made = value(await makeNewest(context, some.id, some.version));
    const { n } = (await log())[0]!;
    await context.writer("uses").insert({ project: "neap-tide", strip: "x", preset: some.id, version: made.version });
    expect(refused(await walkLibrary(context, "undo", n)).code).toBe("refused");
    expect(value(await getPreset(context, some.id)).preset.version).toBe(made.version);
  });

  it("saving what is set as it was makes none", async () => {
    const [some] = await own();
    const saved = value(await saveVersion(context, some!.id, { baseVersion: some!.version, content: some!.content }));
    expect(saved.version).toBe(some!.version);
    expect(value(await getPreset(context, some!.id)).versions.length).toBe(some!.version);
  });

  it("a folder that was made stands in the history by its name", async () => {
    value(await makeFolder(context, { name: "Rehearsals", parent: null }));
    expect((await log("rehear"))[0]).toMatchObject({ count: 1, some: [{ kind: "folder", name: "Rehearsals" }] });
  });
});
