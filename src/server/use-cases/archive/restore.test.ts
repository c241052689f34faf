import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { loadDemo } from "@/demo/load";
import { value } from "../../testing";
import { savePreset, saveVersion } from "../library";
import { patchCards } from "../filing/cards";
import { walkLibrary } from "../filing/history";
import { findPresets } from "../find-presets";
import { commit } from "../projects/commit";
import { getRevision } from "../projects/history";
import { listProjects } from "../projects/read";
import { undo } from "../projects/walk";
import { keepWrapUp } from "../../repositories/wrap-ups";
import { installPack } from "../packs";
import { INCLUDED } from "@/core/packs/included";
import { inTransaction } from "../../store/transaction";
import { type Machine, differences, everythingIn, startMachine } from "./testing";
import { takeFile } from "./take-file";

let studio: Machine;
let empty: Machine;

beforeEach(async () => {
  studio = await startMachine("2026-11-25T08:00:00.000Z");
  empty = await startMachine("2026-11-26T08:00:00.000Z");
  for (const { context } of [studio, empty]) await installPack(context, INCLUDED);
  await loadDemo(studio.context);
});

afterEach(async () => {
  await studio.close();
  await empty.close();
});

/** Something of everything that a person does. */
async function work({ context }: Machine): Promise<void> {
  const own = (await findPresets(context, { sort: "name", limit: 100 })).items.filter((p) => p.pack === null);
  const [sound, other] = own.filter(({ kind }) => kind === "chain");
  value(await saveVersion(context, sound!.id, { baseVersion: sound!.version, content: other!.content }));
  const card = { rating: 5 };
  value(await patchCards(context, { changes: [{ id: other!.id, baseCard: other!.cardRevision, card }] }));
  value(await walkLibrary(context, "undo"));
  const [project] = await listProjects(context);
  for (const tempo of [101, 102, 103])
    value(
      await commit(context, project!.id, ({ project: now }) =>
        Promise.resolve({
          label: `Tempo ${tempo}`,
          steps: [{ id: `t${tempo}`, kind: "setDetail", detail: "tempo", from: now.tempo, to: tempo }],
        }),
      ),
    );
  value(await undo(context, project!.id, 3));
  await inTransaction(context, async (tx, note) => {
    await keepWrapUp(tx, project!.id, { at: context.now().toISOString(), passedOver: ["2:abc"], undo: null });
    note({ kind: "project", id: project!.id });
  });
}

describe("An archive of everything, brought into an empty library,", () => {
  it("is that library: sounds, versions, folders, uses, settings, and all that was ever done", async () => {
    await work(studio);
    const brought = value(await takeFile(empty.context, await studio.archive(), { called: "the archive" }));
    expect(brought.problems).toEqual([]);
    expect(brought.projects).toBeGreaterThan(0);
    expect(differences(everythingIn(empty.folder), everythingIn(studio.folder))).toEqual([]);
    const [here, there] = await Promise.all([empty, studio].map(({ context }) => findPresets(context, { q: "warm" })));
    expect(here!.items.map(({ id }) => id).sort()).toEqual(there!.items.map(({ id }) => id).sort());
    const [project] = await listProjects(empty.context);
    expect(value(await getRevision(empty.context, project!.id, 1)).project.tempo).toBe(101);
  }, 60_000);

  it("brings nothing a second time", async () => {
    const file = await studio.archive();
    value(await takeFile(empty.context, file, { called: "the archive" }));
    const before = everythingIn(empty.folder);
    const again = value(await takeFile(empty.context, file, { called: "the archive" }));
    expect(again).toEqual({ presets: 0, projects: 0, undo: null, problems: [] });
    expect(differences(everythingIn(empty.folder), before)).toEqual([]);
  }, 60_000);
});

describe("An archive, brought into a library with something of its own,", () => {
  it("is one step, which one undo takes back: what is new lies in the bin", async () => {
    await work(studio);
    const own = (await findPresets(empty.context, { limit: 1 })).items[0]!;
    const { content } = own;
    value(
      await savePreset(empty.context, { preset: { kind: content.kind, content, card: { ...own.card, name: "Mine" } } }),
    );
    const listed = async () => {
      const { items } = await findPresets(empty.context, { sort: "name", limit: 500 });
      const sounds = items.map(({ id, card, version }) => `${id} ${version} ${JSON.stringify(card)}`);
      return [...sounds, ...(await listProjects(empty.context)).map(({ id, revision }) => `${id} ${revision}`)];
    };
    const before = await listed();
    const brought = value(await takeFile(empty.context, await studio.archive(), { called: "the archive" }));
    expect(brought.undo).not.toBeNull();
    expect(await listed()).not.toEqual(before);
    const { walked } = value(await walkLibrary(empty.context, "undo"));
    expect(walked.passed).toBe(0);
    expect(await listed()).toEqual(before);
    value(await walkLibrary(empty.context, "redo"));
    const { items } = await findPresets(empty.context, { limit: 500 });
    expect(items.length).toBeGreaterThan(100);
  }, 60_000);
});
