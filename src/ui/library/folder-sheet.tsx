"use client";

import { useForm } from "react-hook-form";
import * as api from "@/clients/api";
import type { Folder } from "@/contracts/records";
import { withBelow } from "@/core/library/folders";
import { counted } from "@/core/names/count";
import { Button } from "../kit/button";
import { Field, INPUT, Refused } from "../kit/field";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, useFiling } from "./filing";
import { folderPath, useFolders } from "./use-library";

interface Props {
  readonly folder: string | null;
  /** In which a new one is made. */
  readonly within?: string | undefined;
  readonly onGone?: ((parent: string | null) => void) | undefined;
}

/** What becomes of what is in a folder once that is taken away; null where it holds nothing. */
function goingWords({ count }: Folder, below: number, above: string | undefined): string | null {
  if (count + below === 0) return null;
  const inside = [count > 0 ? counted(count, "sound") : "", below > 0 ? counted(below, "folder") : ""];
  const into = above === undefined ? "the library itself" : `“${above}”`;
  const what = inside.filter((words) => words !== "").join(" and ");
  return `${what} ${count + below === 1 ? "goes" : "go"} into ${into} when it is taken away.`;
}

/** A new folder, or one that is renamed, put elsewhere or taken away. */
export function FolderSheet({ folder, within, onGone }: Props) {
  const folders = useFolders().data?.folders ?? [];
  const here = folders.find((f) => f.id === folder) ?? null;
  const { done } = useFiling();
  const { refusal, attempt: tryTo } = useAttempt();
  const { register, handleSubmit, formState } = useForm({
    defaultValues: { name: here?.name ?? "", parent: here?.parent ?? within ?? "" },
  });
  const attempt = (work: () => Promise<string>) =>
    tryTo(async () => {
      const words = await work();
      closeSheet();
      await done(words);
    });
  const save = handleSubmit(({ name, parent }) =>
    attempt(async () => {
      const place = parent === "" ? null : parent;
      if (!here) await api.makeFolder(name.trim(), place);
      else await api.changeFolder(here.id, { name: name.trim(), parent: place });
      return here ? `Changed folder “${name.trim()}”` : `Made folder “${name.trim()}”`;
    }),
  );
  const own = here ? withBelow(folders, here.id) : new Set<string>();
  const going = here && goingWords(here, own.size - 1, folders.find((f) => f.id === here.parent)?.name);
  return (
    <Sheet open onClose={closeSheet} title={here ? `Folder “${here.name}”` : "New folder"} className="w-[480px]">
      <form onSubmit={(event) => void save(event)} className="grid gap-[14px]">
        <div className="grid grid-cols-[72px_1fr] gap-x-3 gap-y-2">
          <Field label="Name">
            <input
              autoComplete="off"
              className={INPUT}
              {...register("name", {
                validate: (v) => v.trim() !== "" || "Give it a name.",
                maxLength: { value: 120, message: "120 letters at the most." },
              })}
            />
          </Field>
          <Field label="In">
            <select className={INPUT} {...register("parent")}>
              <option value="">the library itself</option>
              {folders
                .filter((f) => !own.has(f.id))
                .map((f) => (
                  <option key={f.id} value={f.id}>
                    {folderPath(f, folders)}
                  </option>
                ))}
            </select>
          </Field>
        </div>
        {formState.errors.name && <Refused>{formState.errors.name.message}</Refused>}
        {going && <p className="text-small text-soft">{going}</p>}
        {refusal}
        <div className="flex items-center justify-end gap-2">
          {here && (
            <Button
              className="mr-auto"
              onClick={() =>
                void attempt(async () => {
                  await api.deleteFolder(here.id);
                  onGone?.(here.parent);
                  return `Took folder “${here.name}” away`;
                })
              }
            >
              Take it away
            </Button>
          )}
          <Button onClick={closeSheet}>Cancel</Button>
          <Button main type="submit" disabled={formState.isSubmitting}>
            {here ? "Save the folder" : "Make the folder"}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}
