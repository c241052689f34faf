import equal from "fast-deep-equal";
import type { PresetRow } from "@/contracts/records";
import { isAllBeside } from "@/core/packs/pack";
import { isFiledWell } from "@/core/library/filed-in";
import { withSearch } from "@/core/settings/settings";
import { type FolderRecord, type LibraryStep, fieldsOf, isProjectStep, withFields } from "@/core/library/step";
import type { Card } from "@/core/presets/preset";
import type { Note } from "../../data/changes";
import type { Executor } from "../../data/executor";
import { refuse } from "../../failure";
import { exchangeVersions } from "../../repositories/filed-presets";
import * as folders from "../../repositories/folders";
import { hasMerged } from "../../repositories/preset-lists";
import * as presets from "../../repositories/presets";
import { isUsed } from "../../repositories/projects";
import { renumberMentions } from "../../repositories/renumbered";
import { readSettings, writeSettings } from "../../repositories/settings";
import { applyProjectStep } from "./project-steps";
import type { Taking } from "./taking";

/*
 * The laws of the filing, checked where a step is taken, whoever asks for it:
 * - what a step comes from is what stands there;
 * - of what comes with a pack only what stands beside it is changed: rating, tags, folder;
 * - a preset stands by itself, or is in the bin, or was put into another; only what stands by itself goes into the bin;
 * - what others were put into is there, is not put into anything itself, and is of their kind: no circles, no crossings;
 * - a version that was made out of an earlier one, or saved, is taken away only while it is the newest and nothing uses it;
 * - a sound without a home is in no folder; its home does not refer to it as well, and no folder does so twice;
 * - a folder stands in one that is there, is not within itself, and shares its name with none beside it.
 * A step that is refused has written nothing.
 */

/** Why a preset of a pack is not changed, and what can be done instead. */
export const readOnly = ({ card, pack }: Pick<PresetRow, "card" | "pack">): string =>
  `“${card.name}” belongs to the pack ${pack ?? ""}: it is rated, tagged and filed as you like, all else stays as it is. Save it as one of your own to change it.`;

export async function presetOf(tx: Executor, id: string): Promise<presets.FiledCard> {
  return (await presets.findCard(tx, id)) ?? refuse("notFound", `There is no preset “${id}” here.`);
}

type StepOf<K extends LibraryStep["kind"]> = Extract<LibraryStep, { kind: K }>;

type PresetStep = Extract<LibraryStep, { readonly preset: string }>;

export async function applyStep(tx: Executor, step: LibraryStep, taking: Taking): Promise<void> {
  const { at, note } = taking;
  if (step.kind === "folder") return applyFolder(tx, step, { at, note });
  if (step.kind === "search") return applySearch(tx, step, note);
  if (step.kind === "settings") return applySettings(tx, step, note);
  return isProjectStep(step) ? applyProjectStep(tx, step, taking) : applyPresetStep(tx, step, { at, note });
}

async function applyPresetStep(
  tx: Executor,
  step: PresetStep,
  { at, note }: Pick<Taking, "at" | "note">,
): Promise<void> {
  const preset = await presetOf(tx, step.preset);
  checkPack(preset, step);
  switch (step.kind) {
    case "card":
      await applyCard(tx, preset, step, at);
      break;
    case "bin":
      checkBin(preset, step);
      await presets.setBinned(tx, step.preset, step.to, at);
      break;
    case "merge":
      await checkMerge(tx, preset, step);
      await presets.setMerged(tx, step.preset, step.to, at);
      note({ kind: "preset", id: step.to ?? step.from ?? "" });
      break;
    case "version":
      await applyVersion(tx, preset, step, at);
      break;
    case "content":
      await applyContent(tx, preset, step, at);
      break;
    case "versions":
      await applyVersions(tx, preset, step);
      break;
    case "versionName":
      await applyVersionName(tx, preset, step, at);
  }
  note({ kind: "preset", id: step.preset });
}

/** Of what comes with a pack only the card is changed, and of that only what stands beside it. */
function checkPack(preset: presets.FiledCard, step: LibraryStep): void {
  if (preset.pack === null || (step.kind === "card" && isAllBeside(step.to))) return;
  refuse("refused", readOnly(preset));
}

async function applyCard(
  tx: Executor,
  preset: presets.FiledCard,
  { from, to }: StepOf<"card">,
  at: string,
): Promise<void> {
  const names = Object.keys(from) as (keyof Card)[];
  if (!equal(fieldsOf(preset.card, names), from))
    refuse("refused", `The card of “${preset.card.name}” was changed since; it is left as it is.`);
  const card = withFields(preset.card, to);
  for (const folder of [to.folder ?? null, ...(to.alsoIn ?? [])]) await checkFolder(tx, folder);
  if (!isFiledWell(card))
    refuse(
      "refused",
      `“${card.name}” would lie in one folder twice, or be referred to without lying in any; it stays.`,
    );
  await presets.updateCard(tx, preset, card, at);
}

function checkBin({ card, binned, mergedInto }: presets.FiledCard, { from }: StepOf<"bin">): void {
  if (mergedInto !== null) refuse("refused", `“${card.name}” was put into another sound and does not stand by itself.`);
  if (binned !== from)
    refuse("refused", binned ? `“${card.name}” is in the bin already.` : `“${card.name}” is not in the bin any more.`);
}

async function checkMerge(tx: Executor, preset: presets.FiledCard, { from, to }: StepOf<"merge">): Promise<void> {
  const { name } = preset.card;
  if (preset.mergedInto !== from || preset.binned)
    refuse("refused", `“${name}” does not stand where it did; it is left as it is.`);
  if (to === null) return;
  const host = await presetOf(tx, to);
  checkHost(host);
  const into = `“${name}” cannot be put into “${host.card.name}”`;
  if (host.id === preset.id || host.kind !== preset.kind) refuse("refused", `${into}.`, { path: "others" });
  if (await hasMerged(tx, preset.id)) refuse("refused", `${into}: others were put into it.`, { path: "others" });
}

/** Others are put into what is there and stands by itself. */
export function checkHost(host: presets.FiledCard): void {
  const { name } = host.card;
  if (host.pack !== null) refuse("refused", readOnly(host));
  if (host.binned) refuse("refused", `“${name}” is in the bin; nothing is put into it.`, { path: "keep" });
  if (host.mergedInto !== null)
    refuse("refused", `“${name}” was put into another sound itself; put the others into that one.`, { path: "keep" });
}

async function applyVersionName(
  tx: Executor,
  preset: presets.FiledCard,
  { version, from, to }: StepOf<"versionName">,
  at: string,
): Promise<void> {
  const standing = (await presets.listVersions(tx, preset.id)).find((v) => v.version === version);
  if (standing?.name !== from) refuse("refused", `The name of version ${version} was changed since; it is left.`);
  await presets.nameVersion(tx, { id: preset.id, version, name: to }, at);
}

/** Takes the newest version away, where nothing has come of it. */
async function takeVersion(tx: Executor, preset: presets.FiledCard, version: number): Promise<void> {
  const { id, card } = preset;
  if (preset.version !== version) refuse("refused", `“${card.name}” has a newer version than ${version} by now.`);
  if (await isUsed(tx, id, version)) refuse("refused", `Version ${version} of “${card.name}” is used by now.`);
  await presets.removeNewest(tx, preset);
}

/** Makes a version out of an earlier one, or takes it away again. */
async function applyVersion(
  tx: Executor,
  preset: presets.FiledCard,
  { version, to }: StepOf<"version">,
  at: string,
): Promise<void> {
  const { id, card } = preset;
  if (to === null) return takeVersion(tx, preset, version);
  if (preset.version !== version - 1) refuse("refused", `“${card.name}” has version ${preset.version} by now.`);
  const before = (await presets.findVersion(tx, id, to)) ?? refuse("notFound", `There is no version ${to} any more.`);
  await presets.appendVersion(tx, { id, version, content: before.content, at });
}

/** Saves a version, or takes it away again. */
async function applyContent(
  tx: Executor,
  preset: presets.FiledCard,
  { version, to }: StepOf<"content">,
  at: string,
): Promise<void> {
  const { id, card } = preset;
  if (to === null) return takeVersion(tx, preset, version);
  if (preset.kind !== to.kind) refuse("refused", `“${card.name}” is of another kind.`);
  if (preset.version !== version - 1)
    refuse("stale", `“${card.name}” has version ${preset.version} by now.`, { detail: { version: preset.version } });
  await presets.appendVersion(tx, { id, version, content: to, at });
}

/** Takes in what another library has of a preset, or lets go of it again. */
async function applyVersions(tx: Executor, preset: presets.FiledCard, { from, to }: StepOf<"versions">): Promise<void> {
  const { id, card } = preset;
  const standing = (await presets.listVersions(tx, id)).toReversed();
  const isAsLeft =
    standing.length === from.length &&
    from.every((one, at) => one.was !== null || one.savedAt === standing[at]?.savedAt);
  if (!isAsLeft) refuse("refused", `“${card.name}” has other versions by now; they stay.`);
  for (const [at, { was }] of from.entries())
    if (was === null && (await isUsed(tx, id, at + 1)))
      refuse("refused", `Version ${at + 1} of “${card.name}” is used by now.`);
  await exchangeVersions(tx, id, to);
  const numbers = new Map(
    to.flatMap(({ was }, at) => (was === null || was === at + 1 ? [] : [[was, at + 1] as const])),
  );
  if (numbers.size > 0) await renumberMentions(tx, id, numbers);
}

async function applySettings(tx: Executor, { from, to }: StepOf<"settings">, note: Note): Promise<void> {
  const { settings, revision } = await readSettings(tx);
  if (!equal(settings, from)) refuse("refused", "Something was set up since; it stays as it is.");
  await writeSettings(tx, { settings: to, revision: revision + 1 });
  note({ kind: "settings", id: "settings" });
}

async function applySearch(tx: Executor, { from, to }: StepOf<"search">, note: Note): Promise<void> {
  const { settings, revision } = await readSettings(tx);
  const meant = (to ?? from)?.search;
  if (!meant) return;
  const { id, name } = meant;
  const standing = settings.searches.find((search) => search.id === id) ?? null;
  if (!equal(standing, from?.search ?? null))
    refuse("refused", `The search “${standing?.name ?? name}” was changed since; it stays as it is.`);
  await writeSettings(tx, { settings: withSearch(settings, id, to), revision: revision + 1 });
  note({ kind: "settings", id: "settings" });
  // What is listed of the library's history is fetched anew with the folders.
  note({ kind: "folder", id: "" });
}

export async function checkFolder(tx: Executor, folder: string | null, path?: string): Promise<void> {
  if (folder !== null && !(await folders.isFolder(tx, folder)))
    refuse("refused", "The folder is not there any more; choose another.", path === undefined ? {} : { path });
}

async function applyFolder(
  tx: Executor,
  { from, to }: StepOf<"folder">,
  { at, note }: { at: string; note: Note },
): Promise<void> {
  const folder = to ?? from;
  if (!folder) return;
  if (!equal(await folders.findFolder(tx, folder.id), from))
    refuse("refused", `The folder “${(from ?? folder).name}” was changed since; it stays.`);
  if (to) await checkPlace(tx, to);
  else if (!(await folders.isEmpty(tx, folder.id)))
    refuse("refused", `“${folder.name}” holds something by now; it stays.`);
  if (!to) await folders.deleteFolder(tx, folder.id);
  else if (from) await folders.updateFolder(tx, to, at);
  else await folders.insertFolder(tx, to, at);
  note({ kind: "folder", id: folder.id });
}

/** A folder can stand where its parent is there, is not in the folder itself, and has no other of the name. */
async function checkPlace(tx: Executor, { id, name, parent }: FolderRecord): Promise<void> {
  if (parent !== null && !(await folders.findFolder(tx, parent)))
    refuse("refused", "The folder that it should go into is not there any more.", { path: "parent" });
  if (parent !== null && (await folders.folderWithDescendants(tx, id)).includes(parent))
    refuse("refused", `“${name}” cannot go into itself or into a folder below it.`, { path: "parent" });
  const taken = await folders.findFolderByName(tx, name, parent);
  if (taken && taken.id !== id) refuse("refused", `There is a folder “${name}” here already.`, { path: "name" });
}
