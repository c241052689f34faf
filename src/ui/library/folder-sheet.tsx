"use client";

import { useForm } from "react-hook-form";
import * as api from "@/clients/api";
import { withBelow } from "@/core/library/folders";
import { Button } from "../kit/button";
import { Field, INPUT, Refused } from "../kit/field";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { closeSheet, useFiling } from "./filing";
import { folderPath, useFolders } from "./use-library";

/** A new folder, or one that is renamed, put elsewhere or taken away. */
export function FolderSheet({ folder }: { readonly folder: string | null }) {
  const folders = useFolders().data?.folders ?? [];
  const here = folders.find((f) => f.id === folder) ?? null;
  const { done } = useFiling();
  const { refusal, attempt: tryTo } = useAttempt();
  const { register, handleSubmit, formState } = useForm({
    defaultValues: { name: here?.name ?? "", parent: here?.parent ?? "" },
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
  const above = folders.find((f) => f.id === here?.parent)?.name;
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
        {refusal}
        <div className="flex items-center justify-end gap-2">
          {here && (
            <Button
              className="mr-auto"
              title={`What is in it goes into ${above === undefined ? "the library itself" : `“${above}”`}.`}
              onClick={() =>
                void attempt(async () => {
                  await api.deleteFolder(here.id);
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
