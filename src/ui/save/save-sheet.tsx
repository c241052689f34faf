"use client";

import { Suspense, lazy, useMemo, useRef } from "react";
import { useController } from "react-hook-form";
import type { ValuesQuery } from "@/contracts/library";
import { counted } from "@/core/names/count";
import { severalWords } from "@/core/names/several";
import type { ProjectBody } from "@/contracts/projects";
import { nodeName } from "@/core/chains/chain";
import { unknownFields } from "@/core/library/pattern";
import { KIND_NAMES } from "@/core/presets/preset";
import { offeredParts } from "@/core/strips/strip";
import { PART } from "@/core/strips/parts";
import { Button } from "../kit/button";
import { CompanionList } from "../kit/companion-list";
import { cx } from "../kit/class-names";
import { formatDate } from "../kit/dates";
import { Field, INPUT, Refused } from "../kit/field";
import { Segments } from "../kit/segments";
import { Sheet } from "../kit/sheet";
import { splitTags } from "../kit/split-tags";
import { KnownField } from "../names/known-field";
import { PatternHelp, usePatternHelp } from "../names/pattern-help";
import { folderPath, useFolders } from "../library/use-library";
import { useProjectAt } from "../plan/sources";
import { useProjectEditing } from "../projects/editing";
import { type Subject, nodeOf, originOf } from "./proposal";
import { type SaveRequest, closeSave } from "./save";
import { ARTISTS_FOLDER, NEW_FOLDER } from "./save-fields";
import { useProposedText } from "./use-proposed-text";
import { type As, type Saving, namedOf, useSaving } from "./use-saving";
import { WhatGoesIn, countWords } from "./what-goes-in";

/** It brings a layout of its own, which is not waited for. */
const FlowDrawing = lazy(() => import("./flow-drawing").then((m) => ({ default: m.FlowDrawing })));

export function SaveSheet({ request }: { readonly request: SaveRequest }) {
  const body = useBody(request);
  const has = body?.project.strips.some((s) => request.strips.includes(s.id));
  return body && has ? <SaveForm request={request} body={body} /> : null;
}

/** The project that is saved from, as it is or was. */
function useBody({ project, revision }: SaveRequest): ProjectBody | undefined {
  const { body } = useProjectEditing(project);
  const then = useProjectAt(revision === undefined ? null : project, revision).data;
  if (revision === undefined) return body;
  return body && then && { ...body, ...then };
}

interface FormProps {
  readonly request: SaveRequest;
  readonly body: ProjectBody;
}

function SaveForm({ request, body }: FormProps) {
  const saving = useSaving(request, body);
  const { items, rows, many, as, save, form, setParts } = saving;
  const wanted = items.filter((item) => item.content !== null);
  const [first] = items;
  if (!first) return null;
  return (
    <Sheet
      open
      onClose={closeSave}
      title={rows.length > 1 ? `Save ${rows.length} strips` : `Save ${titleOf(first.subject)}`}
      aside={many ? `${wanted.length} presets, each by itself` : `${kindOf(saving)} · ${countWords(first.content)}`}
      className="w-[1000px]"
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          save();
        }}
        className="grid gap-3"
      >
        {request.strips.length > 1 && <AsLine saving={saving} />}
        <div className="grid grid-cols-[76px_1fr_76px_1fr] items-center gap-x-3 gap-y-2">
          {!many && <NameLine saving={saving} />}
          {many && <PatternLine saving={saving} />}
          <FolderField saving={saving} artist={body.project.artist} />
          {!many && <PatternLine saving={saving} />}
          <PurposeAndTags saving={saving} />
          <Played saving={saving} />
          <OriginLine saving={saving} />
        </div>
        <WhatGoesIn items={rows} isOne={as !== "each"} onParts={setParts} />
        <div className="grid grid-flow-col auto-cols-fr gap-4">
          <CompanionList
            legend="Keep along with them"
            companions={saving.companions}
            along={saving.along}
            onAlong={saving.setAlong}
          />
          {!many && first.content && (
            <Suspense>
              <FlowDrawing content={first.content} name={first.subject.strip.look.name} />
            </Suspense>
          )}
        </div>
        <Clashes saving={saving} />
        {Object.values(form.formState.errors).map(
          (error) => typeof error.message === "string" && <Refused key={error.message}>{error.message}</Refused>,
        )}
        <Foot saving={saving} wanted={wanted.length} />
      </form>
    </Sheet>
  );
}

/** Whether several strips are kept each by itself, or together. */
function AsLine({ saving: { as, setAs, isWhole } }: { readonly saving: Saving }) {
  const options: readonly { readonly value: As; readonly label: string }[] = [
    { value: "each", label: "Each by itself" },
    { value: "set", label: "Together, as a strip set" },
    ...(isWhole ? [{ value: "mix" as const, label: "As a whole mix" }] : []),
  ];
  return (
    <div className="flex items-center gap-3">
      <span className="w-[76px] text-soft">Keep</span>
      <Segments label="Keep them" options={options} value={as} onChange={setAs} />
    </div>
  );
}

const kindOf = ({ items, kind }: Saving): string =>
  items.every((item) => item.content === null) ? "nothing" : KIND_NAMES[kind].toLowerCase();

/** The name, given by a pattern until one is typed; of several each has its own, in the table below. */
function NameLine({ saving: { form, fields, items, pattern } }: { readonly saving: Saving }) {
  const isTyped = form.formState.dirtyFields.name === true;
  const name = items[0]?.name ?? "";
  // What is of no project is called after what it is: by no pattern.
  const isByPattern =
    pattern !== "" && items[0]?.subject.body.draft === null && items[0].subject.request.name === undefined;
  const { take, handlers } = useProposedText(isTyped);
  const { ref, ...field } = form.register("name", {
    validate: () => name.trim() !== "" || "Give it a name.",
    maxLength: { value: 200, message: "A name has 200 letters at the most." },
  });
  return (
    <Field label="Name">
      <span className="relative block">
        <input
          aria-label="Name"
          autoFocus
          autoComplete="off"
          className={`${INPUT} name pr-[84px]`}
          {...field}
          {...handlers}
          ref={(element) => {
            ref(element);
            take(element);
          }}
          value={isTyped ? fields.name : name}
        />
        {!isTyped && name !== "" && isByPattern && (
          <span className="pointer-events-none absolute top-0 right-[10px] text-small leading-[30px] text-soft">
            by pattern
          </span>
        )}
      </span>
    </Field>
  );
}

function PatternLine({ saving: { form, items, many, patterns, pattern } }: { readonly saving: Saving }) {
  const unknown = unknownFields(pattern);
  const { take, handlers } = useProposedText(form.formState.dirtyFields.pattern === true);
  const { ref, ...field } = form.register("pattern", { maxLength: 300 });
  const input = useRef<HTMLInputElement>(null);
  const onPattern = (next: string) => form.setValue("pattern", next, { shouldDirty: true });
  const help = usePatternHelp({ field: input, pattern, onPattern });
  const [first] = items;
  const named = useMemo(() => (help.help && first ? namedOf(first) : null), [help.help, first]);
  return (
    <>
      <Field label="Pattern">
        <span className="block">
          <input
            aria-label="Pattern"
            autoComplete="off"
            autoFocus={many}
            list={help.help ? undefined : "save-patterns"}
            title="{strip}, {song}, {artist}, {purpose}, {model}, {character}, {number}, {date}…"
            className={`${INPUT} num`}
            {...field}
            {...handlers}
            onSelect={help.handlers.onSelect}
            onKeyDown={(event) => {
              handlers.onKeyDown();
              help.handlers.onKeyDown(event);
            }}
            onBlur={(event) => {
              help.handlers.onBlur();
              void field.onBlur(event);
            }}
            ref={(element) => {
              ref(element);
              take(element);
              input.current = element;
            }}
            value={pattern}
          />
          {unknown.length > 0 && !help.help && (
            <span role="status" className="block text-small text-edit">
              {unknown.join(", ")} is not understood; it stays as it stands.
            </span>
          )}
        </span>
      </Field>
      <div className="col-span-4 empty:hidden">
        <PatternHelp help={help.help} at={help.at} named={named} onTake={help.take} />
      </div>
      <datalist id="save-patterns">
        {patterns.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
    </>
  );
}

interface FolderProps {
  readonly saving: Saving;
  readonly artist: string;
}

function FolderField({ saving: { form, fields, many }, artist }: FolderProps) {
  const folders = useFolders().data?.folders ?? [];
  const hasArtists = folders.some((f) => f.parent === null && f.name === artist);
  return (
    <Field label="Folder">
      <span className="flex gap-2">
        <select aria-label="Folder" className={`${INPUT} min-w-0 flex-1`} {...form.register("folder")}>
          <option value="">{many ? "Each where its like is" : "No folder"}</option>
          {folders.map((f) => (
            <option key={f.id} value={f.id}>
              {folderPath(f, folders)}
            </option>
          ))}
          {artist !== "" && !hasArtists && <option value={ARTISTS_FOLDER}>New folder “{artist}”</option>}
          <option value={NEW_FOLDER}>New folder…</option>
        </select>
        {fields.folder === NEW_FOLDER && (
          <input
            aria-label="Name of the new folder"
            placeholder="Name, or Voices / Lead"
            className={`${INPUT} min-w-0 flex-1`}
            {...form.register("newFolder", {
              validate: (v, f) => f.folder !== NEW_FOLDER || v.trim() !== "" || "Name the new folder.",
            })}
          />
        )}
        {fields.folder === NEW_FOLDER && (
          <select
            aria-label="Within which folder"
            className={`${INPUT} min-w-0 flex-1`}
            {...form.register("newFolderIn")}
          >
            <option value="">at the top</option>
            {folders.map((f) => (
              <option key={f.id} value={f.id}>
                within {folderPath(f, folders)}
              </option>
            ))}
          </select>
        )}
      </span>
    </Field>
  );
}

interface WordsProps {
  readonly saving: Saving;
  readonly name: "purpose" | "tags" | "performer" | "instrument" | "microphone";
  readonly label: string;
  readonly of: ValuesQuery["field"];
  /** What stands there while nothing does. */
  readonly placeholder?: string;
}

/** Words of the card, each by itself; those that other cards say are offered. */
function Words({ saving: { form, many }, name, label, of, placeholder = "" }: WordsProps) {
  const { field } = useController({
    control: form.control,
    name,
    rules: {
      validate: (value) =>
        of !== "tag" || splitTags(value).every((tag) => tag.length <= 60) || "A tag has 60 letters at the most.",
    },
  });
  return (
    <KnownField
      label={label}
      of={of}
      placeholder={many ? [placeholder, "each its own"].filter(Boolean).join(": ") : placeholder}
      value={field.value}
      onValue={field.onChange}
    />
  );
}

function PurposeAndTags({ saving }: { readonly saving: Saving }) {
  const { many, measured } = saving;
  return (
    <>
      <span className="text-soft">For</span>
      <Words saving={saving} name="purpose" label="For" of="for" />
      <span className="text-soft">Tags</span>
      <span className={cx("flex min-w-0 items-center gap-2", !many && "col-span-3")}>
        <span className="min-w-0 flex-1">
          <Words saving={saving} name="tags" label="Tags" of="tag" placeholder={many ? "" : "warm, close"} />
        </span>
        {measured.length > 0 && (
          <span
            className="max-w-[50%] flex-none truncate text-small text-soft"
            title={`Found by measuring: ${measured.join(", ")}`}
          >
            measured: {measured.join(", ")}
          </span>
        )}
      </span>
    </>
  );
}

function Played({ saving }: { readonly saving: Saving }) {
  const words = [
    ["performer", "Performer", "performer"],
    ["instrument", "Instrument", "instrument"],
    ["microphone", "Microphone", "mic"],
  ] as const;
  return (
    <>
      <span className="text-soft">Played on</span>
      <span className="col-span-3 grid grid-cols-3 gap-2">
        {words.map(([name, label, of]) => (
          <Words key={name} saving={saving} name={name} label={label} of={of} placeholder={label} />
        ))}
      </span>
    </>
  );
}

function OriginLine({ saving: { items, many } }: { readonly saving: Saving }) {
  const [first] = items;
  if (!first) return null;
  const { artist, song, strip, date, from } = originOf(first.subject);
  return (
    <>
      <span className="text-soft">Origin</span>
      <p className="col-span-3 truncate">
        {severalWords(artist) || "own"}
        {song && (
          <>
            , <em className="font-name text-[15px]">{song}</em>
          </>
        )}
        {strip && !many && ` · strip ${strip}`}
        {date && ` · ${formatDate(date)}`}
        {from && !many && ` · made from “${from.name}”, version ${from.version}`}
      </p>
    </>
  );
}

/** A name that is taken asks: the next version of that, or another name. It is never replaced. */
function Clashes({ saving: { taken, items, saveOver, many } }: { readonly saving: Saving }) {
  const clashed = items.filter((item) => item.clashed).length;
  if (many)
    return clashed > 0 ? (
      <p className="border-edit border-l-[3px] bg-edit-tint px-3 py-2" role="status">
        {clashed === 1 ? "One name is taken; it is numbered." : `${clashed} names are taken; they are numbered.`}
      </p>
    ) : null;
  if (!taken) return null;
  return (
    <p className="flex items-center gap-3 border-edit border-l-[3px] bg-edit-tint px-3 py-2" role="status">
      <span className="flex-1">
        {taken.pack === null
          ? `“${taken.card.name}” is there already. Give this another name, or keep it as the next version of that; the earlier ones stay.`
          : `“${taken.card.name}” comes with the pack ${taken.pack} and stays as it is. Give this a name of its own.`}
      </span>
      {items[0]?.content?.kind === taken.kind && taken.pack === null && (
        <Button onClick={() => void saveOver(taken)}>Save as version {taken.version + 1}</Button>
      )}
    </p>
  );
}

function Foot({ saving, wanted }: { readonly saving: Saving; readonly wanted: number }) {
  const { items, many, taken, loaded, form, saveOver } = saving;
  const [first] = items;
  const canGrow =
    loaded !== null && loaded.pack === null && loaded.id !== taken?.id && loaded.kind === first?.content?.kind;
  const left = first && !many ? leftOut(first.subject, first.parts) : [];
  return (
    <div className="sticky bottom-[-18px] z-10 -my-2 flex items-center gap-2 bg-card py-2">
      <p className="text-small text-soft">
        {left.length > 0 && `Left out: ${left.join(", ")}. `}
        {first && !first.subject.body.draft && "The project stays as it is."}
      </p>
      <span className="ml-auto flex flex-none gap-2">
        <Button onClick={closeSave}>Cancel</Button>
        {canGrow && (
          <Button onClick={() => void saveOver(loaded)}>
            Version {loaded.version + 1} of “{loaded.card.name}”
          </Button>
        )}
        <Button
          main
          type="submit"
          disabled={wanted === 0 || taken !== null || saving.isLookedUp || form.formState.isSubmitting}
        >
          {many ? `Save ${counted(wanted, "preset")}` : `Save ${kindOf(saving)}`}
        </Button>
      </span>
    </div>
  );
}

/** Parts of a strip that are not kept, in words. */
function leftOut({ request, strip }: Subject, parts: readonly string[]): readonly string[] {
  if (request.node !== undefined || request.layer !== undefined) return [];
  return offeredParts(strip)
    .filter((p) => !parts.includes(p))
    .map((p) => PART[p].title.toLowerCase());
}

function titleOf(subject: Subject): string {
  const node = nodeOf(subject);
  if (node) return nodeName(node);
  if (subject.request.instrument) return `the instrument of ${subject.strip.look.name}`;
  return subject.request.layer === undefined
    ? subject.strip.look.name
    : `the effects inside ${subject.strip.look.name}`;
}
