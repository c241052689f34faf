"use client";

import { InWords } from "@/clients/api";
import type { PresetRow } from "@/contracts/records";
import { foldersOf } from "@/core/library/filed-in";
import { pathsOf } from "@/core/library/folders";
import { Key, Loading } from "../kit/bits";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, countSounds, useFiling, wordsInto } from "./filing";
import { useAlsoIn } from "./use-also-in";
import { QuickList } from "./quick-list";
import { useFolders } from "./use-library";

/** In no folder. */
const NOWHERE = "";

/** Where all of some sounds have their home; undefined where they have several. */
function folderOf(presets: readonly PresetRow[]): string | null | undefined {
  const folders = new Set(presets.map(({ card }) => card.folder));
  return folders.size === 1 ? [...folders][0] : undefined;
}

/** Whether each of some sounds lies in a folder, be it at home or not. */
const isIn = (presets: readonly PresetRow[], folder: string): boolean =>
  presets.every(({ card }) => foldersOf(card).includes(folder));

/**
 * Files sounds by a few letters of a folder's path and Enter; a path that is not there is made. With Ctrl they stay where they are, and the
 * folder refers to them; where all lie in it, it does not any more.
 */
export function MoveSheet({ presets }: { readonly presets: readonly PresetRow[] }) {
  const { change } = useFiling();
  const fileAlso = useAlsoIn();
  const { refusal, attempt } = useAttempt();
  const known = useFolders().data?.folders;
  const paths = pathsOf(known ?? []);
  const now = folderOf(presets);
  const file = (folder: string | null, into: string, newFolder?: string) =>
    void attempt(async () => {
      await change(presets, () => ({ folder }), { verb: "Move", behind: into }, newFolder);
      closeSheet();
    });
  const refer = (folder: string) =>
    void attempt(async () => {
      await fileAlso(presets, { id: folder, path: paths.get(folder) ?? "" });
      closeSheet();
    });
  return (
    <Sheet open onClose={closeSheet} title={`Move ${countSounds(presets)}`} className="w-[420px]">
      {!known && <Loading what="Fetching the folders" />}
      {known && (
        <QuickList
          label="Into which folder"
          placeholder="Folder, or a new one: Voices / Lead"
          items={[
            ...known.map(({ id, name, count }) => ({
              id,
              label: paths.get(id) ?? name,
              beside: id === now ? "now" : isIn(presets, id) ? "there, too" : count,
            })),
            { id: NOWHERE, label: "In no folder", beside: now === null ? "now" : undefined },
          ]}
          fresh={(path) => `New folder “${path}”`}
          onPick={(id, also) => {
            if (id === NOWHERE) file(null, wordsInto(null));
            else if (also) refer(id);
            else file(id, wordsInto(paths.get(id) ?? ""));
          }}
          onFresh={(path, also) => {
            if (!also) return file(null, wordsInto(path), path);
            void attempt(() =>
              Promise.reject(new InWords(`There is no folder “${path}” yet. Enter makes it, and moves there.`)),
            );
            return false;
          }}
        />
      )}
      {refusal}
      <p className="text-small text-soft">
        <Key>Enter</Key> moves. <Key>Ctrl Enter</Key> leaves it where it is and shows it there, too, or no more.
      </p>
    </Sheet>
  );
}
