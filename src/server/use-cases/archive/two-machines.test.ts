import fc from "fast-check";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { FOLLOWING_PROJECTS } from "@/demo/sets";
import { stepsBetween } from "@/core/history/between";
import { withFrom } from "@/core/presets/preset";
import type { Project } from "@/core/projects/project";
import { INCLUDED } from "@/core/packs/included";
import { value } from "../../testing";
import { deletePreset, nameVersion, patchCards } from "../filing/cards";
import { changeFolder, listFolders, makeFolder } from "../filing/folders";
import { walkLibrary } from "../filing/history";
import { findPresets } from "../find-presets";
import { getPreset, savePreset, saveVersion } from "../library";
import { insertProject } from "../../repositories/projects";
import { inTransaction } from "../../store/transaction";
import { commit } from "../projects/commit";
import { getRevision } from "../projects/history";
import { listProjects } from "../projects/read";
import { changeSettings, getSettings } from "../settings";
import { takeFile } from "./take-file";
import { type Machine, differences, everythingIn, startMachine } from "./testing";

/** What each machine keeps for itself: what was done there to the library, in which order, and what was begun on its bench. */
const OWN = ["library_log", "wrap_ups"];

type Act = (machine: Machine, n: number, m: number) => Promise<unknown>;

const pick = <T>(list: readonly T[], n: number): T => list[n % list.length]!;

const own = async ({ context }: Machine) =>
  (await findPresets(context, { sort: "name", limit: 500 })).items.filter(({ pack }) => pack === null);

const turned = (project: Project, mint: () => string, change: (project: Project) => Project) =>
  Promise.resolve({ label: "Turn", steps: stepsBetween({ now: project, then: change(project) }, mint) });

/** What a person does on either machine; what is refused is as well. */
const ACTS: Readonly<Record<string, Act>> = {
  save: async (machine, n, m) => {
    const all = await own(machine);
    // Few of them, so that both machines meet on the same ones.
    const preset = pick(all, n % 4);
    const other = pick(
      all.filter(({ kind }) => kind === preset.kind),
      m,
    );
    return saveVersion(machine.context, preset.id, { baseVersion: preset.version, content: other.content });
  },
  hold: async (machine, n) => {
    const preset = pick(await own(machine), n % 4);
    const content = withFrom(preset.content, { preset: preset.id, version: preset.version, name: preset.card.name });
    const card = { ...preset.card, name: `Made of ${preset.card.name} ${n}`, alsoIn: undefined };
    const { alsoIn: _, ...alone } = card;
    return savePreset(machine.context, { preset: { kind: preset.kind, content, card: alone } });
  },
  rename: async (machine, n, m) => {
    const { id, cardRevision } = pick(await own(machine), n % 6);
    const changes = [
      { id, baseCard: cardRevision, card: { name: `Called ${m % 3}`, rating: m % 6, tags: [`t${m % 4}`] } },
    ];
    return patchCards(machine.context, { changes });
  },
  move: async (machine, n, m) => {
    const { id, cardRevision } = pick(await own(machine), n % 6);
    const folder = pick(await listFolders(machine.context), m).id;
    return patchCards(machine.context, { changes: [{ id, baseCard: cardRevision, card: { folder } }] });
  },
  folder: async (machine, n, m) => {
    const parent = m % 2 === 0 ? null : pick(await listFolders(machine.context), n).id;
    return makeFolder(machine.context, { name: `Folder ${m % 3}`, parent });
  },
  folderCalled: async (machine, n, m) =>
    changeFolder(machine.context, pick(await listFolders(machine.context), n).id, { name: `Folder ${m % 4}` }),
  folderMoved: async (machine, n, m) => {
    const folders = await listFolders(machine.context);
    return changeFolder(machine.context, pick(folders, n).id, { parent: m % 3 === 0 ? null : pick(folders, m).id });
  },
  bin: async (machine, n) => deletePreset(machine.context, pick(await own(machine), n % 8).id),
  undo: ({ context }) => walkLibrary(context, "undo"),
  version: async (machine, n, m) => {
    const { id, version } = pick(await own(machine), n % 4);
    return nameVersion(machine.context, id, { version, name: m % 3 === 0 ? null : `Take ${m % 3}` });
  },
  turn: async ({ context }, n, m) => {
    const { id } = pick(
      (await listProjects(context)).toSorted((a, b) => (a.id < b.id ? -1 : 1)),
      n % 2,
    );
    const tempo = 60 + (m % 100);
    return commit(context, id, ({ project }) => turned(project, context.mint, (now) => ({ ...now, tempo })));
  },
  load: async (machine, n) => {
    const { context } = machine;
    const [project] = (await listProjects(context)).toSorted((a, b) => (a.id < b.id ? -1 : 1));
    const { id, version, card } = pick(await own(machine), n % 4);
    const from = { preset: id, version, name: card.name };
    return commit(context, project!.id, ({ project: now }) =>
      turned(now, context.mint, (before) => ({
        ...before,
        strips: before.strips.map((strip, at) =>
          at === 0 ? { ...strip, inserts: { ...strip.inserts, from } } : strip,
        ),
      })),
    );
  },
  search: async ({ context }, n, m) => {
    const { settings, revision } = await getSettings(context);
    const search = { id: `s${m % 3}`, name: `Search ${n % 3}`, q: "kick", only: "", folder: null };
    const searches = [...settings.searches.filter(({ id }) => id !== search.id), search];
    return changeSettings(context, { baseRevision: revision, settings: { ...settings, searches } });
  },
};

const NAMES = Object.keys(ACTS);
const acts = fc.array(fc.tuple(fc.nat(NAMES.length - 1), fc.nat(40), fc.nat(40)), { minLength: 1, maxLength: 8 });

const work = async (machine: Machine, list: readonly (readonly [number, number, number])[]): Promise<void> => {
  for (const [name, n, m] of list) await ACTS[NAMES[name]!]!(machine, n, m);
};

const take = async (machine: Machine, file: string) =>
  value(await takeFile(machine.context, file, { called: "the other" }));

const held = (machine: Machine) => everythingIn(machine.folder, OWN);

let studio: Machine;
let laptop: Machine;

async function begin(): Promise<void> {
  studio = await startMachine("2026-11-25T08:00:00.000Z");
  // Its clock is half a minute behind: what is done on both never falls together.
  laptop = await startMachine("2026-11-25T08:00:30.000Z");
  await fill(studio);
  await take(laptop, await studio.archive());
}

/** A few sounds, folders and projects. */
async function fill({ context }: Machine): Promise<void> {
  for (const name of ["Folder 1", "Folder 9"]) value(await makeFolder(context, { name, parent: null }));
  const [folder] = await listFolders(context);
  const chains = INCLUDED.presets.filter(({ content }) => content.kind === "chain").slice(0, 6);
  for (const { content, card } of chains)
    value(await savePreset(context, { preset: { kind: "chain", content, card: { ...card, folder: folder!.id } } }));
  await inTransaction(context, async (tx, note) => {
    for (const [at, project] of FOLLOWING_PROJECTS.slice(0, 2)) {
      await insertProject(tx, { project, at });
      note({ kind: "project", id: project.id });
    }
  });
}

async function end(): Promise<void> {
  await studio.close();
  await laptop.close();
}

describe("Two machines that each take the other's archive", () => {
  it("hold the same, whatever was done on either, and after that nothing more comes in", async () => {
    await fc.assert(
      fc.asyncProperty(acts, acts, acts, async (here, there, later) => {
        await begin();
        try {
          await work(studio, here);
          await work(laptop, there);
          const [a, b] = [await studio.archive(), await laptop.archive()];
          await take(studio, b);
          await take(laptop, a);
          expect(differences(held(studio), held(laptop))).toEqual([]);
          // What they have taken in already brings nothing, in any order.
          const before = held(studio);
          for (const file of [b, a, await laptop.archive()]) await take(studio, file);
          expect(differences(held(studio), before)).toEqual([]);
          // And they go on, and meet again; only one takes what is new first.
          await work(laptop, later);
          await take(studio, await laptop.archive());
          await take(laptop, await studio.archive());
          expect(differences(held(studio), held(laptop))).toEqual([]);
        } finally {
          await end();
        }
      }),
      { numRuns: 10, endOnFailure: true },
    );
  }, 240_000);
});

describe("A preset that was saved on both", () => {
  beforeEach(begin);
  afterEach(end);

  it("has the versions of both beside each other, and what came from one still does", async () => {
    const [first, second] = (await own(studio)).filter(({ kind }) => kind === "chain");
    const content = (bypassed: boolean) => {
      if (first!.content.kind !== "chain") throw new Error("no chain");
      const nodes = first!.content.chain.nodes.map((node) => ({ ...node, enabled: !bypassed }));
      return { ...first!.content, chain: { ...first!.content.chain, nodes } };
    };
    const base = { baseVersion: first!.version };
    value(await saveVersion(laptop.context, first!.id, { ...base, content: content(true) }));
    value(
      await saveVersion(studio.context, first!.id, { ...base, content: { ...content(false), ...second!.content } }),
    );
    // A project on the studio goes by what was saved there.
    const [project] = await listProjects(studio.context);
    const mine = { preset: first!.id, version: first!.version + 1, name: first!.card.name };
    const load = (now: Project): Project => ({
      ...now,
      strips: now.strips.map((strip, at) =>
        at === 0 ? { ...strip, inserts: { ...strip.inserts, from: mine } } : strip,
      ),
    });
    const { revision } = value(
      await commit(studio.context, project!.id, ({ project: now }) => turned(now, studio.context.mint, load)),
    );
    const before = value(await getPreset(studio.context, first!.id));
    const mineBefore = before.versions.find(({ version }) => version === mine.version)!.fingerprint;

    await take(studio, await laptop.archive());
    const after = value(await getPreset(studio.context, first!.id));
    expect(after.versions.length).toBe(before.versions.length + 1);
    const now = value(await getRevision(studio.context, project!.id, revision)).project;
    const goesBy = now.strips[0]!.inserts.from!.version;
    expect(after.versions.find(({ version }) => version === goesBy)!.fingerprint).toBe(mineBefore);

    // Taken back, all goes by its number of before.
    value(await walkLibrary(studio.context, "undo"));
    const back = value(await getPreset(studio.context, first!.id));
    expect(back.versions).toEqual(before.versions);
    const again = value(await getRevision(studio.context, project!.id, revision)).project;
    expect(again.strips[0]!.inserts.from).toEqual(mine);
  }, 60_000);
});

describe("A project that was changed on both", () => {
  beforeEach(begin);
  afterEach(end);

  it("is there twice, each with its own past, the same on both machines; and one undo lays the other aside", async () => {
    const { id } = (await listProjects(studio.context))[0]!;
    const tempoOf = async ({ context }: Machine, project: string) => {
      const found = (await listProjects(context)).find((one) => one.id === project)!;
      return { tempo: found.tempo, revision: found.revision };
    };
    const turnTo = ({ context }: Machine, tempo: number) =>
      commit(context, id, ({ project }) => turned(project, context.mint, (now) => ({ ...now, tempo })));
    for (const tempo of [91, 92]) value(await turnTo(studio, tempo));
    for (const tempo of [71, 72, 73]) value(await turnTo(laptop, tempo));
    const [mine, yours] = [await tempoOf(studio, id), await tempoOf(laptop, id)];
    const [a, b] = [await studio.archive(), await laptop.archive()];
    await take(studio, b);
    await take(laptop, a);
    for (const machine of [studio, laptop]) {
      const both = (await listProjects(machine.context)).filter(({ tempo }) => tempo === 92 || tempo === 73);
      expect(both.map(({ tempo, revision }) => ({ tempo, revision })).toSorted((x, y) => x.tempo - y.tempo)).toEqual([
        { tempo: 73, revision: yours.revision },
        { tempo: 92, revision: mine.revision },
      ]);
      for (const { id: one, revision } of both)
        expect(value(await getRevision(machine.context, one, revision - 1)).project.id).toBe(one);
    }
    value(await walkLibrary(studio.context, "undo"));
    value(await walkLibrary(laptop.context, "undo"));
    expect(await tempoOf(studio, id)).toEqual(mine);
    expect(await tempoOf(laptop, id)).toEqual(yours);
  }, 60_000);
});
