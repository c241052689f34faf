"use client";

import { useFormContext, useWatch } from "react-hook-form";
import { CARD_COLOURS, CARD_ICONS } from "../kit/card-mark";
import { LONGEST_SHORT, shortName } from "@/core/names/short";
import { Field, INPUT } from "../kit/field";
import { NameTaken } from "../names/name-taken";
import { type Fields, KEEP, NEW_FOLDER, type Read } from "./card-edit";
import { folderPath, useFolders } from "./use-library";
import { WordsField } from "./words-field";

/** Marks of a card; words of our own inks and pictures. */
const COLOURS = ["", ...Object.keys(CARD_COLOURS)];
const ICONS = ["", ...Object.keys(CARD_ICONS)];

export interface PaneProps {
  /** Whether the cards say different things there. */
  readonly differs: (read: Read) => boolean;
  /** All of it comes with packs: what does not stand beside them stays as it is. */
  readonly fixed: boolean;
}

export const FIELDS_GRID = "grid grid-cols-[84px_1fr_84px_1fr] gap-x-3 gap-y-2";

/** What stands in a field of which several cards say different things. */
export const SEVERAL = "several";

interface NameProps {
  /** The sound that is named. */
  readonly of: string;
  readonly focused: boolean;
  readonly fixed: boolean;
}

export function NameField({ of, focused, fixed }: NameProps) {
  const { register, control } = useFormContext<Fields>();
  const name = useWatch({ control, name: "name" });
  return (
    <>
      <Field label="Name">
        <span>
          <input
            aria-label="Name"
            autoFocus={focused && !fixed}
            disabled={fixed}
            autoComplete="off"
            className={`${INPUT} name`}
            {...register("name", {
              validate: (v) => v.trim() !== "" || "Give it a name.",
              maxLength: { value: 200, message: "200 letters at the most." },
            })}
          />
          {!fixed && <NameTaken name={name} except={of} />}
        </span>
      </Field>
      <Field label="Short name">
        <input
          disabled={fixed}
          autoComplete="off"
          maxLength={LONGEST_SHORT}
          title="A second name, for devices that show a few letters"
          placeholder={fixed ? "" : shortName(name, 12)}
          className={`${INPUT} num`}
          {...register("short")}
        />
      </Field>
    </>
  );
}

/** The folder; beside it what the sound is for, or what a new folder is called. */
export function FolderFields({ differs, focused, fixed }: PaneProps & { readonly focused: boolean }) {
  const { register, control } = useFormContext<Fields>();
  const folders = useFolders().data?.folders ?? [];
  const isNew = useWatch({ control, name: "folder" }) === NEW_FOLDER;
  return (
    <>
      <Field label="Folder">
        <select autoFocus={focused} className={INPUT} {...register("folder")}>
          {differs((c) => c.folder ?? "") && <option value={KEEP}>{SEVERAL}</option>}
          <option value="">No folder</option>
          {folders.map((folder) => (
            <option key={folder.id} value={folder.id}>
              {folderPath(folder, folders)}
            </option>
          ))}
          <option value={NEW_FOLDER}>New folder…</option>
        </select>
      </Field>
      {isNew ? (
        <Field label="Called">
          <input
            className={INPUT}
            placeholder="Name, or Voices / Lead"
            {...register("newFolder", {
              validate: (v, f) => f.folder !== NEW_FOLDER || v.trim() !== "" || "Name the new folder.",
            })}
          />
        </Field>
      ) : (
        <WordsField
          name="purpose"
          label="For"
          of="for"
          placeholder={differs((c) => c.purpose) ? SEVERAL : ""}
          fixed={fixed}
        />
      )}
    </>
  );
}

/** How it is rated, and its mark in lists. */
export function MarkFields({ differs, fixed }: PaneProps) {
  const { register } = useFormContext<Fields>();
  return (
    <>
      <Field label="Rating">
        <select className={INPUT} {...register("rating")}>
          {differs((c) => c.rating) && <option value={KEEP}>{SEVERAL}</option>}
          <option value="0">none</option>
          {[1, 2, 3, 4, 5].map((n) => (
            <option key={n} value={n}>
              {n} of 5
            </option>
          ))}
        </select>
      </Field>
      <Field label="Mark">
        <span className="flex gap-2">
          <select disabled={fixed} aria-label="Mark" className={INPUT} {...register("colour")}>
            {differs((c) => c.colour ?? "") && <option value={KEEP}>{SEVERAL}</option>}
            {COLOURS.map((colour) => (
              <option key={colour} value={colour}>
                {colour === "" ? "no colour" : colour}
              </option>
            ))}
          </select>
          <select disabled={fixed} aria-label="Icon" className={INPUT} {...register("icon")}>
            {differs((c) => c.icon ?? "") && <option value={KEEP}>{SEVERAL}</option>}
            {ICONS.map((icon) => (
              <option key={icon} value={icon}>
                {icon === "" ? "kind’s icon" : icon}
              </option>
            ))}
          </select>
        </span>
      </Field>
    </>
  );
}
