import type { NewPreset, NewPresets, PresetDetail } from "@/contracts/library";
import type { PresetRow, Use } from "@/contracts/records";
import { differencesOf } from "@/core/chains/differences";
import { type Card, type Content, chainOf } from "@/core/presets/preset";
import { completeContent, findContentProblem } from "@/core/presets/whole";
import { findStrip } from "@/core/projects/project";
import { ok } from "@/core/result";
import { loadedFrom } from "@/core/strips/loaded";
import { differencesFrom, referenceOf } from "@/core/presets/standing";
import type { Strip } from "@/core/strips/strip";
import type { Context } from "../store/context";
import type { Note } from "../data/changes";
import type { Executor } from "../data/executor";
import { inTransaction } from "../store/transaction";
import { transact } from "../store/transact";
import { type Outcome, failure, refuse } from "../failure";
import * as folders from "../repositories/folders";
import * as presets from "../repositories/presets";
import { listHolding, listMerged } from "../repositories/preset-lists";
import { findReadable, listUses } from "../repositories/projects";
import { takingTurns } from "../turns";
import { folderAtPath } from "./filing/folders";
import { readOnly } from "./filing/steps";

const notFound = (what: string, id: string) => failure("notFound", `There is no ${what} “${id}” here.`);

/** A preset with its versions and uses; with `version`, that version's content in place of the newest. */
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
  const merged = await listMerged(db, id);
  const uses = await Promise.all([id, ...merged.map((m) => m.id)].map((one) => usesOf(db, one)));
  return ok({
    preset,
    place: binned ? "bin" : mergedInto !== null ? "merged" : "library",
    versions: [...(await presets.listVersions(db, id))],
    uses: uses.flat(),
    merged: [...merged],
    heldBy: [...(await listHolding(db, id))],
  });
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

async function usesOf(db: Executor, preset: string): Promise<readonly Use[]> {
  const rows = await listUses(db, preset);
  const uses: Use[] = [];
  for (const row of rows) {
    const record = await findReadable(db, row.project);
    const strip = record ? findStrip(record.project, row.strip) : null;
    const saved = await presets.findVersion(db, preset, row.version).catch(() => null);
    if (!record || !strip || !saved) continue;
    uses.push({
      project: row.project,
      projectName: record.project.name,
      strip: row.strip,
      stripName: strip.look.name,
      version: row.version,
      differs: differsFrom(strip, preset, saved.content),
    });
  }
  return uses;
}

/** In how many values everything in a strip that came from a preset differs from what that holds. */
const differsFrom = (strip: Strip, preset: string, saved: Content): number =>
  referenceOf(strip)?.preset === preset
    ? differencesFrom(strip, saved).length
    : loadedFrom(strip, preset).reduce((sum, chain) => sum + differencesOf(chainOf(saved), chain).length, 0);

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

async function checkNew(
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
  const folder = await checkFolder(db, card.folder, `${path}.card.folder`);
  return folder.ok ? content : folder;
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
      await folders.insertFolder(tx, step.to);
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
      const card = into === null ? given : { ...given, folder: into };
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

/** Appends a version. Stale when another window saved one since `baseVersion`: both are kept by saving anew. */
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
    await presets.appendVersion(tx, {
      id,
      version: preset.version + 1,
      content: content.value,
      at: context.now().toISOString(),
    });
    note({ kind: "preset", id });
    return (await presets.findPreset(tx, id)) ?? preset;
  });
}
