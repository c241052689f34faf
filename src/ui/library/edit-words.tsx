"use client";

import { useFormContext } from "react-hook-form";
import type { ValuesQuery } from "@/contracts/library";
import type { PresetRow } from "@/contracts/records";
import { Chip } from "../kit/bits";
import { Field, INPUT } from "../kit/field";
import { type Fields, ORIGIN_FIELDS } from "./card-edit";
import { FIELDS_GRID, type PaneProps, SEVERAL } from "./edit-filing";
import { WordsField } from "./words-field";

interface TagProps {
  readonly presets: readonly PresetRow[];
  readonly off: ReadonlySet<string>;
  readonly focused: boolean;
  readonly onOff: (tag: string) => void;
}

/** Tags to add, and those that are there, to take off: of several cards, how many have each. */
export function TagFields({ presets, off, focused, onOff }: TagProps) {
  const counts = new Map<string, number>();
  for (const { card } of presets) for (const tag of card.tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  const measured = new Set(presets.flatMap((p) => p.measured));
  return (
    <>
      <WordsField name="addTags" label="Add tags" of="tag" focused={focused} placeholder="warm, close" />
      <span className="col-span-2 flex flex-wrap content-center gap-1">
        {[...counts]
          .filter(([tag]) => !off.has(tag))
          .map(([tag, n]) => (
            <Chip key={tag} label={`tag ${tag}`} onRemove={() => onOff(tag)}>
              {tag}
              {n < presets.length && ` · ${n}`}
            </Chip>
          ))}
        {[...measured]
          .filter((tag) => !off.has(tag))
          .map((tag) => (
            <Chip key={`measured ${tag}`} label={`measured tag ${tag}`} onRemove={() => onOff(tag)}>
              measured: {tag}
            </Chip>
          ))}
      </span>
    </>
  );
}

/** Fields that may say several names, and by which field of the search they are known. */
const KNOWN_BY: Readonly<Partial<Record<keyof Fields, ValuesQuery["field"]>>> = {
  artist: "artist",
  client: "client",
  song: "song",
  project: "project",
  performer: "performer",
  instrument: "instrument",
  microphone: "mic",
};

/** Where it comes from, in the person's own words. */
export function OriginFields({ differs, fixed }: PaneProps) {
  const { register } = useFormContext<Fields>();
  return (
    <fieldset disabled={fixed} className={`${FIELDS_GRID} border-rule border-t pt-3`}>
      <legend className="h2 sr-only">Origin</legend>
      {ORIGIN_FIELDS.map(([field, label]) => {
        const placeholder = differs((c) => c.origin[field] ?? "") ? SEVERAL : "";
        const of = KNOWN_BY[field];
        return of === undefined ? (
          <Field key={field} label={label}>
            <input
              type={field === "date" ? "date" : "text"}
              autoComplete="off"
              maxLength={200}
              className={INPUT}
              placeholder={placeholder}
              {...register(field)}
            />
          </Field>
        ) : (
          <WordsField key={field} name={field} label={label} of={of} placeholder={placeholder} fixed={fixed} />
        );
      })}
    </fieldset>
  );
}

export function NotesField({ differs, fixed }: PaneProps) {
  const { register } = useFormContext<Fields>();
  return (
    <div className="grid grid-cols-[84px_1fr] gap-x-3">
      <Field label="Notes">
        <textarea
          disabled={fixed}
          rows={3}
          maxLength={10_000}
          className="rounded-card border border-bound bg-ground px-[10px] py-1 disabled:border-edge disabled:bg-transparent disabled:text-soft"
          placeholder={differs((c) => c.notes) ? SEVERAL : ""}
          {...register("notes")}
        />
      </Field>
    </div>
  );
}
