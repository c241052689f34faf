import equal from "fast-deep-equal";
import type { FolderChange } from "@/contracts/library";
import type { Folder } from "@/contracts/records";
import { homeOf, outOf } from "@/core/library/filed-in";
import { type FolderRecord, type LibraryStep, cardStep } from "@/core/library/step";
import type { Card } from "@/core/presets/preset";
import { ok } from "@/core/result";
import type { Context } from "../../store/context";
import type { Executor } from "../../data/executor";
import { type Outcome, refuse } from "../../failure";
import * as folders from "../../repositories/folders";
import { listInFolder } from "../../repositories/preset-lists";
import { file } from "./entry";

/** The folder of a name within another, or at the top, and the step that makes it where there is none. */
export async function folderCalled(context: Context, tx: Executor, name: string, parent: string | null = null) {
  const known = await folders.findFolderByName(tx, name, parent);
  const folder = known ?? { id: context.mint(), name, parent };
  const steps: readonly LibraryStep[] = known ? [] : [{ kind: "folder", from: null, to: folder }];
  return { folder, steps };
}

/** "Voices / Lead": the folder at the end of a path within another, or from the top, and the steps that make what is missing of it. */
export async function folderAtPath(context: Context, tx: Executor, path: string, within: string | null) {
  if (within !== null) await folderOf(tx, within);
  const names = path.split("/").map((name) => name.trim());
  const steps: LibraryStep[] = [];
  let [parent, isNew] = [within, false];
  for (const name of names.filter((one) => one !== "")) {
    // Within a folder that is yet to be made there is none.
    const next = isNew
      ? { folder: { id: context.mint(), name, parent }, made: true }
      : await folderCalled(context, tx, name, parent).then(({ folder, steps: own }) => ({
          folder,
          made: own.length > 0,
        }));
    if (next.made) steps.push({ kind: "folder", from: null, to: next.folder });
    [parent, isNew] = [next.folder.id, next.made];
  }
  return { folder: parent ?? refuse("notUnderstood", "Name the new folder.", { path: "newFolder" }), steps };
}

export const listFolders = ({ db }: Context): Promise<readonly Folder[]> => folders.listFolders(db);

export async function makeFolder(
  context: Context,
  { name, parent }: Omit<FolderRecord, "id">,
): Promise<Outcome<Folder>> {
  let to: FolderRecord = { id: "", name, parent };
  const filed = await file(context, async (tx) => {
    const { folder, steps } = await folderAtPath(context, tx, name, parent);
    if (steps.length === 0) refuse("refused", `There is a folder “${name}” here already.`, { path: "name" });
    to =
      (await folders.findFolder(tx, folder)) ??
      steps.flatMap((s) => (s.kind === "folder" ? (s.to ?? []) : [])).at(-1) ??
      to;
    return { label: `Make folder “${name}”`, steps };
  });
  return filed.ok ? ok({ ...to, count: 0 }) : filed;
}

async function folderOf(tx: Executor, id: string): Promise<FolderRecord> {
  return (await folders.findFolder(tx, id)) ?? refuse("notFound", `There is no folder “${id}” here.`);
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

/** What lies in a folder that is taken away lies in the one above; what it only referred to is not referred to there. */
const withoutFolder = (card: Card, folder: string, parent: string | null) =>
  card.folder === folder && parent !== null ? homeOf(card, parent) : outOf(card, folder);

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
        ...inside.map(({ id: preset, card }) => cardStep(preset, card, withoutFolder(card, id, parent))),
        ...below.map((child): LibraryStep => ({ kind: "folder", from: child, to: { ...child, parent } })),
        { kind: "folder", from, to: null },
      ],
    };
  });
  return filed.ok ? ok(null) : filed;
}
