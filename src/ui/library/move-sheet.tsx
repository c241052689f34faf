"use client";

import type { PresetRow } from "@/contracts/records";
import { pathsOf } from "@/core/library/folders";
import { Loading } from "../kit/bits";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, countSounds, useFiling, wordsInto } from "./filing";
import { QuickList } from "./quick-list";
import { useFolders } from "./use-library";

/** In no folder. */
const NOWHERE = "";

/** Where all of some sounds lie; undefined where they lie in several. */
function folderOf(presets: readonly PresetRow[]): string | null | undefined {
  const folders = new Set(presets.map(({ card }) => card.folder));
  return folders.size === 1 ? [...folders][0] : undefined;
}

/** Files sounds by a few letters of a folder's path and Enter; a path that is not there is made. */
export function MoveSheet({ presets }: { readonly presets: readonly PresetRow[] }) {
  const { change } = useFiling();
  const { refusal, attempt } = useAttempt();
  const known = useFolders().data?.folders;
  const paths = pathsOf(known ?? []);
  const now = folderOf(presets);
  const file = (folder: string | null, into: string, newFolder?: string) =>
    void attempt(async () => {
      await change(presets, () => ({ folder }), { verb: "Move", behind: into }, newFolder);
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
              beside: id === now ? "now" : count,
            })),
            { id: NOWHERE, label: "In no folder", beside: now === null ? "now" : undefined },
          ]}
          fresh={(path) => `New folder “${path}”`}
          onPick={(id) => (id === NOWHERE ? file(null, wordsInto(null)) : file(id, wordsInto(paths.get(id) ?? "")))}
          onFresh={(path) => file(null, wordsInto(path), path)}
        />
      )}
      {refusal}
    </Sheet>
  );
}
