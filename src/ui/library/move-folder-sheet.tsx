"use client";

import * as api from "@/clients/api";
import { pathsOf, withBelow } from "@/core/library/folders";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, useFiling } from "./filing";
import { QuickList } from "./quick-list";
import { useFolders } from "./use-library";

/** The library itself. */
const TOP = "";

/** Puts a folder, with all that is in it, into another by a few letters of that and Enter. */
export function MoveFolderSheet({ folder }: { readonly folder: string }) {
  const folders = useFolders().data?.folders ?? [];
  const { done } = useFiling();
  const { refusal, attempt } = useAttempt();
  const paths = pathsOf(folders);
  const here = folders.find(({ id }) => id === folder);
  const own = withBelow(folders, folder);
  if (!here) return null;
  const move = (parent: string | null) =>
    void attempt(async () => {
      await api.changeFolder(folder, { parent });
      closeSheet();
      await done(`Move folder “${here.name}”`);
    });
  return (
    <Sheet open onClose={closeSheet} title={`Move folder “${here.name}”`} className="w-[420px]">
      <QuickList
        label="Into which folder"
        placeholder="Folder"
        items={[
          { id: TOP, label: "The library itself", beside: here.parent === null ? "now" : undefined },
          ...folders
            .filter(({ id }) => !own.has(id))
            .map(({ id, name }) => ({
              id,
              label: paths.get(id) ?? name,
              beside: id === here.parent ? "now" : undefined,
            })),
        ]}
        fresh={() => null}
        onPick={(id) => move(id === TOP ? null : id)}
        onFresh={() => undefined}
      />
      {refusal}
    </Sheet>
  );
}
