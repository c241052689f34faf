"use client";

import { useFormContext } from "react-hook-form";
import type { PresetRow } from "@/contracts/records";
import { Chip } from "../kit/bits";
import { Field, INPUT } from "../kit/field";
import { type Fields, ORIGIN_FIELDS } from "./card-edit";
import { FIELDS_GRID, type PaneProps, SEVERAL } from "./edit-filing";

interface TagProps {
  readonly presets: readonly PresetRow[];
  readonly off: ReadonlySet<string>;
  readonly focused: boolean;
  readonly onOff: (tag: string) => void;
}

/** Tags to add, and those that are there, to take off: of several cards, how many have each. */
export function TagFields({ presets, off, focused, onOff }: TagProps) {
  const { register } = useFormContext<Fields>();
  const counts = new Map<string, number>();
  for (const { card } of presets) for (const tag of card.tags) counts.set(tag, (counts.get(tag) ?? 0) + 1);
  const measured = new Set(presets.flatMap((p) => p.measured));
  return (
    <>
      <Field label="Add tags">
        <input
          autoFocus={focused}
          autoComplete="off"
          placeholder="warm, close"
          className={INPUT}
          {...register("addTags")}
        />
      </Field>
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

/** Where it comes from, in the person's own words. */
export function OriginFields({ differs, fixed }: PaneProps) {
  const { register } = useFormContext<Fields>();
  return (
    <fieldset disabled={fixed} className={`${FIELDS_GRID} border-rule border-t pt-3`}>
      <legend className="h2 sr-only">Origin</legend>
      {ORIGIN_FIELDS.map(([field, label]) => (
        <Field key={field} label={label}>
          <input
            type={field === "date" ? "date" : "text"}
            autoComplete="off"
            maxLength={200}
            className={INPUT}
            placeholder={differs((c) => c.origin[field] ?? "") ? SEVERAL : ""}
            {...register(field)}
          />
        </Field>
      ))}
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
