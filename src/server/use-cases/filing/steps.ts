import equal from "fast-deep-equal";
import type { PresetRow } from "@/contracts/records";
import { type FolderRecord, type LibraryStep, fieldsOf, withFields } from "@/core/library/step";
import type { Card } from "@/core/presets/preset";
import type { Note } from "../../data/context";
import type { Executor } from "../../data/transaction";
import { RolledBack, failure } from "../../failure";
import * as folders from "../../repositories/folders";
import * as presets from "../../repositories/presets";

export const refuse = (message: string, path?: string): never => {
  throw new RolledBack(failure("refused", message, path === undefined ? {} : { path }).error);
};

/** Why a preset of a pack is not changed, and what can be done instead. */
export const readOnly = ({ card, pack }: Pick<PresetRow, "card" | "pack">): string =>
  `“${card.name}” belongs to the pack ${pack ?? ""} and stays as it is. Save it as one of your own to change it.`;

export async function presetOf(tx: Executor, id: string): Promise<presets.FiledPreset> {
  const preset = await presets.findFiled(tx, id);
  if (!preset) throw new RolledBack(failure("notFound", `There is no preset “${id}” here.`).error);
  return preset;
}

export async function applyStep(
  tx: Executor,
  step: LibraryStep,
  { at, note }: { at: string; note: Note },
): Promise<void> {
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

export async function checkFolder(tx: Executor, folder: string | null, path?: string): Promise<void> {
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
