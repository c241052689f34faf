import equal from "fast-deep-equal";
import type { CardChanges, FileBy, FolderChange } from "@/contracts/library";
import type { Folder, History, PresetRow } from "@/contracts/records";
import { walkHistory, wordsOfHistory } from "@/core/documents/history";
import { type FolderRecord, type LibraryStep, fieldsOf, invertLibrarySteps, withFields } from "@/core/library/step";
import type { Card } from "@/core/presets/preset";
import { ok } from "@/core/result";
import type { Context, Note } from "../data/context";
import { type Executor, inTransaction } from "../data/transaction";
import { type Outcome, RolledBack, catchRolledBack, failure } from "../failure";
import * as folders from "../repositories/folders";
import * as log from "../repositories/library-log";
import * as presets from "../repositories/presets";
import { listInFolder } from "../repositories/preset-lists";

/*
 * How the library is filed: cards, folders, the bin. Every change is a list of small steps with what stood there and what
 * stands there now, in a log that only grows: an undo is one more entry, also after a restart.
 */

const refuse = (message: string, path?: string): never => {
  throw new RolledBack(failure("refused", message, path === undefined ? {} : { path }).error);
};

/** Why a preset of a pack is not changed, and what can be done instead. */
export const readOnly = ({ card, pack }: Pick<PresetRow, "card" | "pack">): string =>
  `“${card.name}” belongs to the pack ${pack ?? ""} and stays as it is. Save it as one of your own to change it.`;

async function presetOf(tx: Executor, id: string): Promise<presets.FiledPreset> {
  const preset = await presets.findFiled(tx, id);
  if (!preset) throw new RolledBack(failure("notFound", `There is no preset “${id}” here.`).error);
  return preset;
}

async function applyStep(tx: Executor, step: LibraryStep, { at, note }: { at: string; note: Note }): Promise<void> {
  if (step.kind === "folder") return applyFolder(tx, step, note);
  note({ kind: "preset", id: step.preset });
  const preset = await presetOf(tx, step.preset);
  if (preset.pack !== null) refuse(readOnly(preset));
  switch (step.kind) {
    case "card": {
      const names = Object.keys(step.from) as (keyof Card)[];
      if (!equal(fieldsOf(preset.card, names), step.from))
        refuse(`The card of “${preset.card.name}” was changed since; it is left as it is.`);
      await checkFolder(tx, step.to.folder ?? null);
      return presets.updateCard(tx, preset, withFields(preset.card, step.to));
    }
    case "bin":
      return presets.setBinned(tx, step.preset, step.to ? at : null);
    case "merge":
      note({ kind: "preset", id: step.to ?? step.from ?? "" });
      return presets.setMerged(tx, step.preset, step.to, at);
    case "versionName":
      return presets.nameVersion(tx, step.preset, step.version, step.to);
  }
}

async function checkFolder(tx: Executor, folder: string | null, path?: string): Promise<void> {
  if (folder !== null && !(await folders.findFolder(tx, folder)))
    refuse("The folder is not there any more; choose another.", path);
}

async function applyFolder(
  tx: Executor,
  { from, to }: Extract<LibraryStep, { kind: "folder" }>,
  note: Note,
): Promise<void> {
  note({ kind: "folder", id: (to ?? from)?.id ?? "" });
  if (to) await checkPlace(tx, to);
  if (!from && to) await folders.insertFolder(tx, to);
  if (from && to) await folders.updateFolder(tx, to);
  if (from && !to) {
    if (!(await folders.isEmpty(tx, from.id))) refuse(`“${from.name}” holds something by now; it stays.`);
    await folders.deleteFolder(tx, from.id);
  }
}

/** A folder can stand where its parent is there, is not in the folder itself, and has no other of the name. */
async function checkPlace(tx: Executor, { id, name, parent }: FolderRecord): Promise<void> {
  if (parent !== null && !(await folders.findFolder(tx, parent)))
    refuse("The folder that it should go into is not there any more.", "parent");
  if (parent !== null && (await folders.folderWithDescendants(tx, id)).includes(parent))
    refuse(`“${name}” cannot go into itself or into a folder below it.`, "parent");
  const taken = await folders.findFolderByName(tx, name, parent);
  if (taken && taken.id !== id) refuse(`There is a folder “${name}” here already.`, "name");
}

interface Filed {
  readonly label: string;
  readonly steps: readonly LibraryStep[];
  readonly undoes?: number;
  readonly redoes?: number;
}

/** Does what `make` asks for as one entry of the log, all or none; then tells of it, before anyone else writes. */
function fileAndTell<T>(
  context: Context,
  make: (tx: Executor) => Promise<Filed>,
  tell: (tx: Executor, filed: Filed) => T | Promise<T>,
): Promise<Outcome<T>> {
  return catchRolledBack(async () =>
    ok(
      await inTransaction(context, async (tx, note) => {
        const at = context.now().toISOString();
        const filed = await make(tx);
        for (const step of filed.steps) await applyStep(tx, step, { at, note });
        if (filed.steps.length > 0) await log.appendLog(tx, { at, ...filed });
        return tell(tx, filed);
      }),
    ),
  );
}

const file = (context: Context, make: (tx: Executor) => Promise<Filed>): Promise<Outcome<Filed>> =>
  fileAndTell(context, make, (_, filed) => filed);

const count = (n: number, one: string): string => (n === 1 ? one : `${n} sounds`);

/** What the log calls a change of cards where nothing else was said. */
function wordsFor(steps: readonly LibraryStep[], names: readonly string[]): string {
  const [first] = steps;
  const what = count(names.length, `“${names[0] ?? ""}”`);
  if (first?.kind === "bin") return first.to ? `Put ${what} into the bin` : `Restore ${what}`;
  const fields = new Set(steps.flatMap((s) => (s.kind === "card" ? Object.keys(s.to) : [])));
  if (fields.size !== 1) return `Change ${what}`;
  const verbs: Record<string, string> = { name: "Rename", folder: "Move", tags: "Tag", rating: "Rate" };
  return `${verbs[[...fields][0] ?? ""] ?? "Change"} ${what}`;
}

/** A folder at the top, by its name, and the step that makes it where there is none. */
export async function folderCalled(context: Context, tx: Executor, name: string) {
  const known = await folders.findFolderByName(tx, name, null);
  const folder = known ?? { id: context.mint(), name, parent: null };
  const steps: readonly LibraryStep[] = known ? [] : [{ kind: "folder", from: null, to: folder }];
  return { folder, steps };
}

async function stepsForCards(context: Context, tx: Executor, { changes, newFolder }: CardChanges) {
  const names: string[] = [];
  const into = newFolder === undefined ? null : await folderCalled(context, tx, newFolder);
  const steps: LibraryStep[] = [...(into?.steps ?? [])];
  for (const [at, { id, baseCard, card, binned }] of changes.entries()) {
    const preset = await presetOf(tx, id);
    names.push(preset.card.name);
    if (preset.cardRevision !== baseCard)
      throw new RolledBack(
        failure("stale", `The card of “${preset.card.name}” was changed meanwhile.`, {
          path: `changes[${at}].baseCard`,
          detail: { cardRevision: preset.cardRevision, card: preset.card },
        }).error,
      );
    await checkFolder(tx, card?.folder ?? null, `changes[${at}].card.folder`);
    const wanted = { ...card, ...(into && { folder: into.folder.id }) };
    const to = Object.fromEntries(Object.entries(wanted).filter(([, value]) => value !== undefined));
    const from = fieldsOf(preset.card, Object.keys(to) as (keyof Card)[]);
    if (Object.keys(to).length > 0) steps.push({ kind: "card", preset: id, from, to });
    if (binned !== undefined && binned !== preset.binned)
      steps.push({ kind: "bin", preset: id, from: preset.binned, to: binned });
  }
  return { names, steps };
}

/** Changes the cards of one or many presets, puts them into the bin or takes them out again: all or none. */
export async function patchCards(context: Context, asked: CardChanges): Promise<Outcome<readonly PresetRow[]>> {
  const filed = await file(context, async (tx) => {
    const { names, steps } = await stepsForCards(context, tx, asked);
    return { steps, label: asked.label ?? wordsFor(steps, names) };
  });
  if (!filed.ok) return filed;
  const rows: PresetRow[] = [];
  for (const { id } of asked.changes) {
    const row = await presets.findPreset(context.db, id);
    if (row) rows.push(row);
  }
  return ok(rows);
}

/** Puts a preset into the bin. */
export async function deletePreset(context: Context, id: string): Promise<Outcome<null>> {
  const filed = await file(context, async (tx) => {
    const { binned, card } = await presetOf(tx, id);
    if (binned) throw new RolledBack(failure("notFound", `There is no preset “${id}” here.`).error);
    return { label: `Put “${card.name}” into the bin`, steps: [{ kind: "bin", preset: id, from: false, to: true }] };
  });
  return filed.ok ? ok(null) : filed;
}

/**
 * Puts near copies into one of them. Their tags and notes come to it, the best rating stands, and their versions and uses are
 * found with it; they themselves are listed no more.
 */
export async function mergePresets(
  context: Context,
  { keep, others }: { keep: string; others: readonly string[] },
): Promise<Outcome<PresetRow>> {
  const filed = await file(context, async (tx) => {
    const kept = await presetOf(tx, keep);
    const gone: presets.FiledPreset[] = [];
    for (const id of new Set(others)) {
      const preset = await presetOf(tx, id);
      if (id === keep || preset.binned || preset.kind !== kept.kind)
        refuse(`“${preset.card.name}” cannot be put into “${kept.card.name}”.`, "others");
      gone.push(preset);
    }
    const all = [kept, ...gone];
    const to = {
      tags: [...new Set(all.flatMap((p) => p.card.tags))],
      rating: Math.max(...all.map((p) => p.card.rating)),
      notes: [...new Set(all.map((p) => p.card.notes).filter((n) => n !== ""))].join("\n").slice(0, 10_000),
    };
    const from = fieldsOf(kept.card, ["tags", "rating", "notes"]);
    return {
      label: `Merge ${gone.length} into “${kept.card.name}”`,
      steps: [
        ...(equal(from, to) ? [] : [{ kind: "card", preset: keep, from, to } as const]),
        ...gone.map((p): LibraryStep => ({ kind: "merge", preset: p.id, from: null, to: keep })),
      ],
    };
  });
  if (!filed.ok) return filed;
  const preset = await presets.findPreset(context.db, keep);
  return preset ? ok(preset) : failure("notFound", `There is no preset “${keep}” here.`);
}

/** Gives a version a name, or takes it away. */
export async function nameVersion(
  context: Context,
  id: string,
  { version, name }: { version: number; name: string | null },
): Promise<Outcome<null>> {
  const filed = await file(context, async (tx) => {
    const { card } = await presetOf(tx, id);
    const before = (await presets.listVersions(tx, id)).find((v) => v.version === version);
    if (!before)
      throw new RolledBack(failure("notFound", `“${card.name}” has no version ${version}.`, { path: "version" }).error);
    return {
      label: name === null ? `Take the name off version ${version}` : `Call version ${version} “${name}”`,
      steps: before.name === name ? [] : [{ kind: "versionName", preset: id, version, from: before.name, to: name }],
    };
  });
  return filed.ok ? ok(null) : filed;
}

export const listFolders = ({ db }: Context): Promise<readonly Folder[]> => folders.listFolders(db);

export async function makeFolder(
  context: Context,
  { name, parent }: Omit<FolderRecord, "id">,
): Promise<Outcome<Folder>> {
  if (parent !== null && !(await folders.findFolder(context.db, parent)))
    return failure("notFound", `There is no folder “${parent}” here.`);
  const to = { id: context.mint(), name, parent };
  const filed = await file(context, () =>
    Promise.resolve({ label: `Make folder “${name}”`, steps: [{ kind: "folder", from: null, to }] }),
  );
  return filed.ok ? ok({ ...to, count: 0 }) : filed;
}

/** Files presets under a folder that is called as their artist or client is; those that have none stay where they are. */
export async function fileBy(context: Context, { by, ids }: FileBy): Promise<Outcome<null>> {
  const filed = await file(context, async (tx) => {
    const made = new Map<string, FolderRecord>();
    const folderSteps: LibraryStep[] = [];
    const cardSteps: LibraryStep[] = [];
    for (const id of new Set(ids)) {
      const { card } = await presetOf(tx, id);
      const name = card.origin[by]?.trim().slice(0, 120) ?? "";
      if (name === "") continue;
      let folder = made.get(name);
      if (!folder) {
        const called = await folderCalled(context, tx, name);
        folder = called.folder;
        folderSteps.push(...called.steps);
        made.set(name, folder);
      }
      if (card.folder !== folder.id)
        cardSteps.push({ kind: "card", preset: id, from: { folder: card.folder }, to: { folder: folder.id } });
    }
    if (made.size === 0)
      throw new RolledBack(
        failure("refused", `None of them names ${by === "artist" ? "an artist" : "a client"}.`).error,
      );
    return {
      label: `File ${count(cardSteps.length, "one sound")} by ${by}`,
      steps: [...folderSteps, ...cardSteps],
    };
  });
  return filed.ok ? ok(null) : filed;
}

async function folderOf(tx: Executor, id: string): Promise<FolderRecord> {
  const folder = await folders.findFolder(tx, id);
  if (!folder) throw new RolledBack(failure("notFound", `There is no folder “${id}” here.`).error);
  return folder;
}

/** Renames a folder, or puts it elsewhere with all that is in it. */
export async function changeFolder(context: Context, id: string, change: FolderChange): Promise<Outcome<null>> {
  const filed = await file(context, async (tx) => {
    const from = await folderOf(tx, id);
    const to = {
      ...from,
      name: change.name ?? from.name,
      parent: change.parent === undefined ? from.parent : change.parent,
    };
    const label = to.parent === from.parent ? `Rename folder “${from.name}”` : `Move folder “${from.name}”`;
    return { label, steps: equal(from, to) ? [] : [{ kind: "folder", from, to }] };
  });
  return filed.ok ? ok(null) : filed;
}

/** Takes a folder away; what is in it goes into the one above. */
export async function deleteFolder(context: Context, id: string): Promise<Outcome<null>> {
  const filed = await file(context, async (tx) => {
    const from = await folderOf(tx, id);
    const { parent } = from;
    const inside = await listInFolder(tx, id);
    const below = await folders.listBelow(tx, id);
    return {
      label: `Take folder “${from.name}” away`,
      steps: [
        ...inside.map(
          (preset): LibraryStep => ({ kind: "card", preset, from: { folder: id }, to: { folder: parent } }),
        ),
        ...below.map((child): LibraryStep => ({ kind: "folder", from: child, to: { ...child, parent } })),
        { kind: "folder", from, to: null },
      ],
    };
  });
  return filed.ok ? ok(null) : filed;
}

const historyIn = async (db: Executor): Promise<History> => wordsOfHistory(await log.listLinks(db));

export const libraryHistory = ({ db }: Context): Promise<History> => historyIn(db);

/**
 * Takes back the last change that was not taken back yet, or does the last one that was again. What is told is the
 * history right after it: of two that come close together, each is told its own.
 */
export function walkLibrary(context: Context, direction: "undo" | "redo"): Promise<Outcome<History>> {
  const step = async (tx: Executor): Promise<Filed> => {
    const links = await log.listLinks(tx);
    const n = walkHistory(links)[direction].at(-1);
    if (n === undefined) throw new RolledBack(failure("refused", `There is nothing to ${direction}.`).error);
    const steps = await log.getSteps(tx, n);
    const label = links.find((l) => l.n === n)?.label ?? "";
    return direction === "undo"
      ? { label: `Undo: ${label}`, steps: invertLibrarySteps(steps), undoes: n }
      : { label: `Redo: ${label}`, steps, redoes: n };
  };
  return fileAndTell(context, step, historyIn);
}
