"use client";

import { useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import type { PresetRow } from "@/contracts/records";
import type { Card, Origin } from "@/core/presets/preset";
import { Button } from "../kit/button";
import { Chip } from "../kit/bits";
import { CARD_COLOURS, CARD_ICONS } from "../kit/card-mark";
import { Field, INPUT, Refused } from "../kit/field";
import { Sheet } from "../kit/sheet";
import { splitTags } from "../kit/split-tags";
import { closeSheet, countSounds, useFiling } from "./filing";
import { OvertakenError } from "./overtaken";
import { folderPath, useFolders } from "./use-library";

interface Props {
  readonly presets: readonly PresetRow[];
  readonly begin: "name" | "folder" | "tags";
}

/** What is written on a card of where a sound comes from; of which preset it was made is no word to be changed. */
type Written = Exclude<keyof Origin, "from">;

const ORIGIN_FIELDS: readonly (readonly [field: Written, label: string])[] = [
  ["artist", "Artist"],
  ["client", "Client"],
  ["song", "Song"],
  ["project", "Project"],
  ["performer", "Performer"],
  ["instrument", "Instrument"],
  ["microphone", "Microphone"],
  ["take", "Take"],
  ["date", "Date"],
];

/** Marks of a card; words of our own inks and pictures. */
const COLOURS = ["", ...Object.keys(CARD_COLOURS)];
const ICONS = ["", ...Object.keys(CARD_ICONS)];

const NEW_FOLDER = "+";

type Fields = Record<
  "name" | "folder" | "newFolder" | "purpose" | "notes" | "rating" | "colour" | "icon" | "addTags",
  string
> &
  Record<Written, string>;

/** What all have in common; null where they differ. */
function common<T>(presets: readonly PresetRow[], read: (card: Card) => T): T | null {
  const values = new Set(presets.map((p) => read(p.card)));
  return values.size === 1 ? ([...values][0] as T) : null;
}

const KEEP = "keep";

/** The card of one sound, or what several are to have in common: only what is touched is changed. */
export function EditSheet({ presets: opened, begin }: Props) {
  const folders = useFolders().data?.folders ?? [];
  const { change } = useFiling();
  const [presets, setPresets] = useState(opened);
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const [refused, setRefused] = useState<string | null>(null);
  const many = presets.length > 1;
  const text = (read: (card: Card) => string | undefined) => common(presets, (c) => read(c) ?? "") ?? "";
  const choice = (read: (card: Card) => string) => common(presets, read) ?? KEEP;
  const form = useForm<Fields>({
    defaultValues: {
      name: text((c) => c.name),
      folder: choice((c) => c.folder ?? ""),
      newFolder: "",
      purpose: text((c) => c.purpose),
      notes: text((c) => c.notes),
      rating: choice((c) => String(c.rating)),
      colour: choice((c) => c.colour ?? ""),
      icon: choice((c) => c.icon ?? ""),
      addTags: "",
      ...Object.fromEntries(ORIGIN_FIELDS.map(([field]) => [field, text((c) => c.origin[field])])),
    },
  });
  const { register, handleSubmit, control, formState } = form;
  const folderChoice = useWatch({ control, name: "folder" });
  const { dirtyFields } = formState;
  const tags = new Map<string, number>();
  for (const { card } of presets) for (const tag of card.tags) tags.set(tag, (tags.get(tag) ?? 0) + 1);
  const measured = [...new Set(presets.flatMap((p) => p.measured))].filter((tag) => !off.has(tag));
  const differs = (read: (card: Card) => unknown) => (many && common(presets, read) === null ? "several" : "");

  const cardOf = (fields: Fields, folder: string | null | undefined) => (preset: PresetRow) => {
    const card: { -readonly [K in keyof Card]?: Card[K] } = {};
    if (dirtyFields.name && !many) card.name = fields.name.trim();
    if (folder !== undefined) card.folder = folder;
    if (dirtyFields.purpose) card.purpose = fields.purpose.trim();
    if (dirtyFields.notes) card.notes = fields.notes;
    if (dirtyFields.rating && fields.rating !== KEEP) card.rating = Number(fields.rating);
    if (dirtyFields.colour && fields.colour !== KEEP) card.colour = fields.colour;
    if (dirtyFields.icon && fields.icon !== KEEP) card.icon = fields.icon;
    const added = splitTags(fields.addTags);
    if (added.length > 0 || off.size > 0)
      card.tags = [...new Set([...preset.card.tags.filter((t) => !off.has(t)), ...added])];
    const unwanted = preset.measured.filter((t) => off.has(t));
    if (unwanted.length > 0) card.dismissed = [...(preset.card.dismissed ?? []), ...unwanted];
    const touched = ORIGIN_FIELDS.filter(([field]) => dirtyFields[field]);
    if (touched.length > 0) {
      const entries = touched.map(([field]) => [field, fields[field].trim()] as const);
      const origin = { ...preset.card.origin, ...Object.fromEntries(entries) };
      card.origin = Object.fromEntries(Object.entries(origin).filter(([, value]) => value !== ""));
    }
    return card;
  };

  const save = handleSubmit(async (fields) => {
    try {
      const isNew = fields.folder === NEW_FOLDER;
      const folder = !isNew && dirtyFields.folder && fields.folder !== KEEP ? fields.folder || null : undefined;
      const make = cardOf(fields, folder);
      const changed = presets.filter((p) => isNew || Object.keys(make(p)).length > 0);
      const names = [...(isNew ? ["folder"] : []), ...Object.keys(changed[0] ? make(changed[0]) : {})];
      if (changed.length > 0) await change(changed, make, verbFor(names), isNew ? fields.newFolder.trim() : undefined);
      closeSheet();
    } catch (error) {
      if (error instanceof OvertakenError) setPresets(presets.map((p) => error.rows.find((r) => r.id === p.id) ?? p));
      setRefused(error instanceof Error ? error.message : String(error));
    }
  });

  return (
    <Sheet
      open
      onClose={closeSheet}
      title={many ? countSounds(presets) : (presets[0]?.card.name ?? "")}
      aside={many ? "only what you touch is changed" : "card"}
      className="w-[760px]"
    >
      <form onSubmit={(event) => void save(event)} className="grid gap-[14px]">
        <div className="grid grid-cols-[84px_1fr_84px_1fr] gap-x-3 gap-y-2">
          {!many && (
            <Field label="Name">
              <input
                autoFocus={begin === "name"}
                autoComplete="off"
                className={`${INPUT} name col-span-3`}
                {...register("name", {
                  validate: (v) => many || v.trim() !== "" || "Give it a name.",
                  maxLength: { value: 200, message: "200 letters at the most." },
                })}
              />
            </Field>
          )}
          <Field label="Folder">
            <select autoFocus={begin === "folder"} className={INPUT} {...register("folder")}>
              {differs((c) => c.folder ?? "") !== "" && <option value={KEEP}>several</option>}
              <option value="">No folder</option>
              {folders.map((folder) => (
                <option key={folder.id} value={folder.id}>
                  {folderPath(folder, folders)}
                </option>
              ))}
              <option value={NEW_FOLDER}>New folder…</option>
            </select>
          </Field>
          {folderChoice === NEW_FOLDER ? (
            <Field label="Called">
              <input
                className={INPUT}
                {...register("newFolder", {
                  validate: (v, f) => f.folder !== NEW_FOLDER || v.trim() !== "" || "Name the new folder.",
                })}
              />
            </Field>
          ) : (
            <Field label="For">
              <input
                autoComplete="off"
                className={INPUT}
                placeholder={differs((c) => c.purpose)}
                {...register("purpose")}
              />
            </Field>
          )}
          <Field label="Rating">
            <select className={INPUT} {...register("rating")}>
              {differs((c) => c.rating) !== "" && <option value={KEEP}>several</option>}
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
              <select aria-label="Mark" className={INPUT} {...register("colour")}>
                {differs((c) => c.colour ?? "") !== "" && <option value={KEEP}>several</option>}
                {COLOURS.map((colour) => (
                  <option key={colour} value={colour}>
                    {colour === "" ? "no colour" : colour}
                  </option>
                ))}
              </select>
              <select aria-label="Icon" className={INPUT} {...register("icon")}>
                {differs((c) => c.icon ?? "") !== "" && <option value={KEEP}>several</option>}
                {ICONS.map((icon) => (
                  <option key={icon} value={icon}>
                    {icon === "" ? "kind’s icon" : icon}
                  </option>
                ))}
              </select>
            </span>
          </Field>
          <Field label="Add tags">
            <input
              autoFocus={begin === "tags"}
              autoComplete="off"
              placeholder="warm, close"
              className={INPUT}
              {...register("addTags")}
            />
          </Field>
          <span className="col-span-2 flex flex-wrap content-center gap-1">
            {[...tags]
              .filter(([tag]) => !off.has(tag))
              .map(([tag, n]) => (
                <Chip key={tag} label={`tag ${tag}`} onRemove={() => setOff(new Set([...off, tag]))}>
                  {tag}
                  {many && n < presets.length && ` · ${n}`}
                </Chip>
              ))}
            {measured.map((tag) => (
              <Chip
                key={`measured ${tag}`}
                label={`measured tag ${tag}`}
                onRemove={() => setOff(new Set([...off, tag]))}
              >
                measured: {tag}
              </Chip>
            ))}
          </span>
        </div>
        <fieldset className="grid grid-cols-[84px_1fr_84px_1fr] gap-x-3 gap-y-2 border-rule border-t pt-3">
          <legend className="h2 sr-only">Origin</legend>
          {ORIGIN_FIELDS.map(([field, label]) => (
            <Field key={field} label={label}>
              <input
                type={field === "date" ? "date" : "text"}
                autoComplete="off"
                maxLength={200}
                className={INPUT}
                placeholder={differs((c) => c.origin[field] ?? "")}
                {...register(field)}
              />
            </Field>
          ))}
        </fieldset>
        <div className="grid grid-cols-[84px_1fr] gap-x-3">
          <Field label="Notes">
            <textarea
              rows={3}
              maxLength={10_000}
              className="rounded-card border border-bound bg-ground px-[10px] py-1"
              placeholder={differs((c) => c.notes)}
              {...register("notes")}
            />
          </Field>
        </div>
        {Object.values(formState.errors).map(
          (error) => typeof error.message === "string" && <Refused key={error.message}>{error.message}</Refused>,
        )}
        {refused && <Refused>{refused}</Refused>}
        <div className="flex justify-end gap-2">
          <Button onClick={closeSheet}>Cancel</Button>
          <Button main type="submit" disabled={formState.isSubmitting}>
            {many ? `Change ${countSounds(presets)}` : "Save the card"}
          </Button>
        </div>
      </form>
    </Sheet>
  );
}

/** What undo will call it. */
function verbFor(fields: readonly string[]): string {
  const [only] = fields;
  const verbs: Record<string, string> = { name: "Rename", folder: "Move", tags: "Tag", rating: "Rate" };
  return (fields.length === 1 && verbs[only ?? ""]) || "Change";
}
