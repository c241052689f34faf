import equal from "fast-deep-equal";
import type { NewPreset, NewPresets, PresetDetail, SavedVersion, WantedVersions } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { type Card, type Content, isStrips } from "@/core/presets/preset";
import { followingKeys } from "@/core/presets/versions-of-sets";
import { homeOf, isFiledWell } from "@/core/library/filed-in";
import { completeContent, findContentProblem } from "@/core/presets/whole";
import { ok } from "@/core/result";
import type { Context } from "../store/context";
import type { Note } from "../data/changes";
import type { Executor } from "../data/executor";
import { inTransaction } from "../store/transaction";
import { transact } from "../store/transact";
import { type Outcome, failure, refuse } from "../failure";
import * as folders from "../repositories/folders";
import * as presets from "../repositories/presets";
import { listHolding, listMerged } from "../repositories/preset-lists";
import { takingTurns } from "../turns";
import { folderAtPath } from "./filing/folders";
import { readOnly } from "./filing/steps";

const notFound = (what: string, id: string) => failure("notFound", `There is no ${what} “${id}” here.`);

/** A preset with its versions; with `version`, that version's content in place of the newest. */
export async function getPreset({ db }: Context, id: string, version?: number): Promise<Outcome<PresetDetail>> {
  const filed = await presets.findFiled(db, id);
  if (!filed) return notFound("preset", id);
  const { binned, mergedInto, ...newest } = filed;
  const chosen = version === undefined ? null : await presets.findVersion(db, id, version);
  if (version !== undefined && !chosen)
    return failure("notFound", `“${newest.card.name}” has no version ${version}.`, { path: "version" });
  const { unreadable: _, ...readable } = newest;
  const preset: PresetRow = chosen
    ? { ...readable, version: chosen.version, content: chosen.content, savedAt: chosen.savedAt }
    : newest;
  return ok({
    preset,
    place: binned ? "bin" : mergedInto !== null ? "merged" : "library",
    versions: [...(await presets.listVersions(db, id))],
    merged: [...(await listMerged(db, id))],
    heldBy: [...(await listHolding(db, id))],
  });
}

/** Versions of several presets, those that are there and can be read; of those in the bin, too. */
export async function listSaved({ db }: Context, { versions }: WantedVersions): Promise<SavedVersion[]> {
  const found: SavedVersion[] = [];
  const turn = takingTurns();
  const newest = new Map<string, number>();
  for (const { preset, version } of versions) {
    await turn();
    const saved = await presets.findVersion(db, preset, version).catch(() => null);
    if (!saved) continue;
    const last = newest.get(preset) ?? Math.max(...(await presets.listVersions(db, preset)).map((v) => v.version));
    newest.set(preset, last);
    found.push({ preset, version, newest: last, content: saved.content });
  }
  return found;
}

/** A sound that was come by while looking for one was kept: it was used now. */
export function keepUse(context: Context, id: string): Promise<Outcome<{ ok: true }>> {
  return transact(context, async (tx, note) => {
    const touched = await presets.touchPresets(tx, [id], context.now().toISOString());
    if (touched === 0) refuse("notFound", "This sound is not here.");
    note({ kind: "preset", id });
    return { ok: true };
  });
}

function checkContent(content: Content, path: string): Outcome<Content> {
  const problem = findContentProblem(content);
  return problem
    ? failure("notUnderstood", problem.message, { path: `${path}.${problem.path}` })
    : ok(completeContent(content));
}

async function checkFolder(db: Executor, folder: string | null, path: string): Promise<Outcome<null>> {
  if (folder !== null && !(await folders.findFolder(db, folder)))
    return failure("refused", "The folder is not there any more; choose another.", { path });
  return ok(null);
}

export async function checkNew(
  db: Executor,
  { kind, content: given, card }: NewPreset["preset"],
  path: string,
): Promise<Outcome<Content>> {
  if (kind !== given.kind)
    return failure("notUnderstood", `The kind is “${kind}”, the content's is “${given.kind}”.`, {
      path: `${path}.kind`,
    });
  const content = checkContent(given, `${path}.content`);
  if (!content.ok) return content;
  if (!isFiledWell(card))
    return failure("refused", "Folders refer to what lies in one, and in each it is once.", {
      path: `${path}.card.alsoIn`,
    });
  for (const folder of [card.folder, ...(card.alsoIn ?? [])]) {
    const checked = await checkFolder(db, folder, `${path}.card.folder`);
    if (!checked.ok) return checked;
  }
  return content;
}

/** The folder that new presets go into, made with them. It is no step of the filing's log, as saving is none. */
async function folderFor(
  context: Context,
  tx: Executor,
  { newFolder, newFolderIn = null }: Pick<NewPresets, "newFolder" | "newFolderIn">,
  note: Note,
): Promise<string | null> {
  if (newFolder === undefined) return null;
  const { folder, steps } = await folderAtPath(context, tx, newFolder, newFolderIn);
  for (const step of steps)
    if (step.kind === "folder" && step.to) {
      await folders.insertFolder(tx, step.to, context.now().toISOString());
      note({ kind: "folder", id: step.to.id });
    }
  return folder;
}

/** Saves several new presets in one transaction: all or none. `paths` tells where each stands in what was asked. */
async function insertAll(
  context: Context,
  { presets: list, ...where }: NewPresets,
  paths: (at: number) => string,
): Promise<Outcome<readonly PresetRow[]>> {
  const checked: { readonly id: string; readonly content: Content; readonly card: Card }[] = [];
  const turn = takingTurns();
  for (const [at, preset] of list.entries()) {
    await turn();
    const content = await checkNew(context.db, preset, paths(at));
    if (!content.ok) return content;
    checked.push({ id: context.mint(), content: content.value, card: preset.card });
  }
  const at = context.now().toISOString();
  return inTransaction(context, async (tx, note) => {
    const rows: PresetRow[] = [];
    const into = await folderFor(context, tx, where, note);
    for (const { id, content, card: given } of checked) {
      await turn();
      const card = into === null ? given : { ...given, ...homeOf(given, into) };
      rows.push(await presets.insertPreset(tx, { id, content, card, at }));
      note({ kind: "preset", id });
    }
    return ok(rows);
  });
}

export async function savePreset(context: Context, { preset }: NewPreset): Promise<Outcome<PresetRow>> {
  const saved = await insertAll(context, { presets: [preset] }, () => "preset");
  return saved.ok ? ok(saved.value[0]!) : saved;
}

export const savePresets = (context: Context, saved: NewPresets): Promise<Outcome<readonly PresetRow[]>> =>
  insertAll(context, saved, (at) => `presets[${at}]`);

/** What came from a strip of a set finds it in the next version, too. */
export const following = (before: Content, next: Content): Content =>
  isStrips(before) && isStrips(next) ? followingKeys(before, next) : next;

/** Appends a version, where anything is another than in the newest. Stale when another window saved one since `baseVersion`: both are kept by saving anew. */
export async function saveVersion(
  context: Context,
  id: string,
  base: { baseVersion: number; content: Content },
): Promise<Outcome<PresetRow>> {
  const content = checkContent(base.content, "content");
  if (!content.ok) return content;
  return transact(context, async (tx, note) => {
    const preset = (await presets.findPreset(tx, id)) ?? refuse("notFound", `There is no preset “${id}” here.`);
    if (preset.pack !== null) refuse("refused", readOnly(preset), { path: "pack" });
    if (preset.kind !== content.value.kind)
      refuse("refused", `“${preset.card.name}” is of another kind; save this under a name of its own.`, {
        path: "content.kind",
      });
    if (preset.version !== base.baseVersion)
      refuse(
        "stale",
        `“${preset.card.name}” has version ${preset.version} by now; yours is based on version ${base.baseVersion}.`,
        {
          path: "baseVersion",
          detail: { version: preset.version, savedAt: preset.savedAt },
        },
      );
    const next = following(preset.content, content.value);
    // What is set as it was is saved already.
    if (equal(next, preset.content)) return preset;
    await presets.appendVersion(tx, {
      id,
      version: preset.version + 1,
      content: next,
      at: context.now().toISOString(),
    });
    note({ kind: "preset", id });
    return (await presets.findPreset(tx, id)) ?? preset;
  });
}
