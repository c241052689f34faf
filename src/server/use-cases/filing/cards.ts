import { cutText } from "@/core/names/cut";
import type { CardChanges, FileBy } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { type FolderRecord, type LibraryStep, fieldsOf } from "@/core/library/step";
import type { Card } from "@/core/presets/preset";
import { ok } from "@/core/result";
import type { Context } from "../../store/context";
import type { Executor } from "../../data/executor";
import { type Outcome, refuse } from "../../failure";
import { rowsById } from "../../repositories/preset-lists";
import * as presets from "../../repositories/presets";
import { takingTurns } from "../../turns";
import { file, fileAndTell } from "./entry";
import { folderAtPath, folderCalled } from "./folders";
import { checkFolder, presetOf } from "./steps";
import { count, wordsFor } from "./words";

const newFolderOf = (context: Context, tx: Executor, { newFolder, newFolderIn = null }: CardChanges) =>
  newFolder === undefined ? null : folderAtPath(context, tx, newFolder, newFolderIn);

async function stepsForCards(context: Context, tx: Executor, asked: CardChanges) {
  const { changes } = asked;
  const names: string[] = [];
  const into = await newFolderOf(context, tx, asked);
  const steps: LibraryStep[] = [...(into?.steps ?? [])];
  const turn = takingTurns();
  for (const [at, { id, baseCard, card, binned }] of changes.entries()) {
    await turn();
    const preset = await presetOf(tx, id);
    names.push(preset.card.name);
    if (preset.cardRevision !== baseCard)
      refuse("stale", `The card of “${preset.card.name}” was changed meanwhile.`, {
        path: `changes[${at}].baseCard`,
        detail: { cardRevision: preset.cardRevision, card: preset.card },
      });
    await checkFolder(tx, card?.folder ?? null, `changes[${at}].card.folder`);
    const wanted = { ...card, ...(into && { folder: into.folder }) };
    const to = Object.fromEntries(Object.entries(wanted).filter(([, value]) => value !== undefined));
    const from = fieldsOf(preset.card, Object.keys(to) as (keyof Card)[]);
    if (Object.keys(to).length > 0) steps.push({ kind: "card", preset: id, from, to });
    if (binned !== undefined && binned !== preset.binned)
      steps.push({ kind: "bin", preset: id, from: preset.binned, to: binned });
  }
  return { names, steps };
}

/** Changes the cards of one or many presets, puts them into the bin or takes them out again: all or none. */
export function patchCards(context: Context, asked: CardChanges): Promise<Outcome<readonly PresetRow[]>> {
  const make = async (tx: Executor) => {
    const { names, steps } = await stepsForCards(context, tx, asked);
    return { steps, label: asked.label ?? wordsFor(steps, names) };
  };
  const ids = asked.changes.map((change) => change.id);
  return fileAndTell(context, make, (tx) => rowsById(tx, ids));
}

/** Puts a preset into the bin. */
export async function deletePreset(context: Context, id: string): Promise<Outcome<null>> {
  const filed = await file(context, async (tx) => {
    const { binned, mergedInto, card } = await presetOf(tx, id);
    if (binned || mergedInto !== null) refuse("notFound", `There is no preset “${id}” here.`);
    return { label: `Put “${card.name}” into the bin`, steps: [{ kind: "bin", preset: id, from: false, to: true }] };
  });
  return filed.ok ? ok(null) : filed;
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
    if (!before) refuse("notFound", `“${card.name}” has no version ${version}.`, { path: "version" });
    return {
      label: name === null ? `Take the name off version ${version}` : `Call version ${version} “${name}”`,
      steps: before.name === name ? [] : [{ kind: "versionName", preset: id, version, from: before.name, to: name }],
    };
  });
  return filed.ok ? ok(null) : filed;
}

/** Files presets under a folder that is called as their artist or client is; those that have none stay where they are. */
export async function fileBy(context: Context, { by, ids }: FileBy): Promise<Outcome<null>> {
  const filed = await file(context, async (tx) => {
    const made = new Map<string, FolderRecord>();
    const folderSteps: LibraryStep[] = [];
    const cardSteps: LibraryStep[] = [];
    const turn = takingTurns();
    for (const id of new Set(ids)) {
      await turn();
      const { card } = await presetOf(tx, id);
      const name = cutText(card.origin[by]?.trim() ?? "", 120).trim();
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
    if (made.size === 0) refuse("refused", `None of them names ${by === "artist" ? "an artist" : "a client"}.`);
    return {
      label: `File ${count(cardSteps.length, "one sound")} by ${by}`,
      steps: [...folderSteps, ...cardSteps],
    };
  });
  return filed.ok ? ok(null) : filed;
}
