"use client";

import { useState } from "react";
import { FormProvider, useForm } from "react-hook-form";
import type { PresetRow } from "@/contracts/records";
import { counted } from "@/core/names/count";
import { pathsOf } from "@/core/library/folders";
import { verbFor } from "@/core/library/verbs";
import { Button } from "../kit/button";
import { Refused } from "../kit/field";
import { Sheet } from "../kit/sheet";
import { useAttempt } from "../kit/use-attempt";
import { type Fields, NEW_FOLDER, type Read, changeOf, differ, fieldsOf } from "./card-edit";
import { FIELDS_GRID, FolderFields, MarkFields, NameField } from "./edit-filing";
import { NotesField, OriginFields, TagFields } from "./edit-words";
import { closeSheet, countSounds, useFiling, wordsInto } from "./filing";
import { rowsBy } from "./overtaken";
import { useFolders } from "./use-library";

interface Props {
  readonly presets: readonly PresetRow[];
  readonly begin: "name" | "folder" | "tags";
}

/** The card of one sound, or what several are to have in common: only what is touched is changed. */
export function EditSheet({ presets: opened, begin }: Props) {
  const { change } = useFiling();
  const [presets, setPresets] = useState(opened);
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const { refusal, attempt } = useAttempt();
  const paths = pathsOf(useFolders().data?.folders ?? []);
  const many = presets.length > 1;
  const ofPacks = presets.filter(({ pack }) => pack !== null).length;
  const fixed = ofPacks === presets.length;
  const form = useForm<Fields>({ defaultValues: fieldsOf(presets) });
  const { handleSubmit, formState } = form;
  // Read while drawing: only what is read is kept up to date.
  const { dirtyFields: touched } = formState;
  const differs = (read: Read) => differ(presets, read);

  const put = async (fields: Fields) => {
    const isNew = fields.folder === NEW_FOLDER;
    const cardOf = (preset: PresetRow) => changeOf(preset, { fields, touched, off, many });
    const changed = presets.filter((p) => isNew || Object.keys(cardOf(p)).length > 0);
    const names = [...(isNew ? ["folder"] : []), ...Object.keys(changed[0] ? cardOf(changed[0]) : {})];
    const path = isNew ? fields.newFolder.trim() : fields.folder === "" ? null : (paths.get(fields.folder) ?? "");
    const behind = names.every((name) => name === "folder") ? wordsInto(path) : "";
    const doing = { verb: verbFor(names), behind };
    if (changed.length > 0) await change(changed, cardOf, doing, isNew ? fields.newFolder.trim() : undefined);
    closeSheet();
  };
  const save = handleSubmit((fields) =>
    attempt(
      () => put(fields),
      (error) => setPresets((now) => rowsBy(error, now)),
    ),
  );

  return (
    <Sheet
      open
      onClose={closeSheet}
      title={many ? countSounds(presets) : (presets[0]?.card.name ?? "")}
      aside={many ? "only what you touch is changed" : "card"}
      className="w-[760px]"
    >
      <FormProvider {...form}>
        <form onSubmit={(event) => void save(event)} className="grid gap-[14px]">
          <div className={FIELDS_GRID}>
            {!many && <NameField of={presets[0]?.id ?? ""} focused={begin === "name"} fixed={fixed} />}
            <FolderFields differs={differs} focused={begin === "folder" || (fixed && begin === "name")} fixed={fixed} />
            <MarkFields differs={differs} fixed={fixed} />
            <TagFields
              presets={presets}
              off={off}
              focused={begin === "tags"}
              onOff={(tag) => setOff(new Set([...off, tag]))}
            />
          </div>
          <OriginFields differs={differs} fixed={fixed} />
          <NotesField differs={differs} fixed={fixed} />
          {ofPacks > 0 && (
            <p className="text-small text-soft">
              {fixed
                ? "It comes with a pack: its rating, tags and folder are yours to set; all else stays as it is. A copy (U) is yours altogether."
                : `${counted(ofPacks, "sound")} of a pack: only their rating, tags and folder are changed.`}
            </p>
          )}
          {Object.values(formState.errors).map(
            (error) => typeof error.message === "string" && <Refused key={error.message}>{error.message}</Refused>,
          )}
          {refusal}
          <div className="flex justify-end gap-2">
            <Button onClick={closeSheet}>Cancel</Button>
            <Button main type="submit" disabled={formState.isSubmitting}>
              {many ? `Change ${countSounds(presets)}` : "Save the card"}
            </Button>
          </div>
        </form>
      </FormProvider>
    </Sheet>
  );
}
