"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/endpoints";
import { type From, findProcessor, processorName, processorsOf } from "@/core/chains/chain";
import { type Content, KIND_NAMES, type Origin } from "@/core/presets/preset";
import { saveChain, saveStrip } from "@/core/presets/save";
import { CONTENT_SCHEMA } from "@/core/presets/version";
import { describeOutput } from "@/core/projects/project";
import * as gestures from "@/core/recall/gestures";
import { PARTS, PART_NAMES, type PartName, type Strip, formatFader, formatPanPart } from "@/core/strips/strip";
import { Button } from "../kit/button";
import { Chip } from "../kit/bits";
import { formatDate, plainDate } from "../kit/dates";
import { Shape } from "../kit/shape";
import { Sheet } from "../kit/sheet";
import { Tick } from "../kit/tick";
import { useFolders } from "../library/use-library";
import { useProjectEditing } from "../projects/editing";
import { mintKey } from "../projects/mint";
import { type SaveRequest, closeSave } from "./save";
import { say } from "../kit/say";

interface Fields {
  readonly name: string;
  readonly folder: string;
  readonly newFolder: string;
  readonly purpose: string;
  readonly tags: string;
}

const NEW_FOLDER = "+";

const splitTags = (tags: string): string[] => [
  ...new Set(
    tags
      .split(/[,;]/)
      .map((t) => t.trim())
      .filter((t) => t !== ""),
  ),
];

const INPUT = "h-[30px] w-full rounded-card border border-bound bg-ground px-[10px]";

export function SaveSheet({ request }: { readonly request: SaveRequest }) {
  const { body } = useProjectEditing(request.project);
  const strip = body?.project.strips.find((s) => s.id === request.strip);
  return body && strip ? <SaveForm request={request} body={body} strip={strip} /> : null;
}

interface FormProps {
  readonly request: SaveRequest;
  readonly body: ProjectBody;
  readonly strip: Strip;
}

/** What is being kept, by the switches that are on. */
function contentOf({ request, body, strip }: FormProps, parts: readonly PartName[]): Content | null {
  if (request.processor !== undefined) {
    const processor = findProcessor(strip.inserts, request.processor);
    if (!processor) return null;
    const { from: _, ...sound } = processor;
    return { kind: "plugin", schema: CONTENT_SCHEMA, processor: sound };
  }
  const { from: _, ...inserts } = strip.inserts;
  if (parts.length === 1 && parts[0] === "inserts") return saveChain(strip.inserts);
  return parts.length === 0 ? null : saveStrip(body.project, { ...strip, inserts }, parts);
}

function originOf({ body: { project, draft }, strip }: FormProps): Origin {
  const date = plainDate(new Date());
  if (draft) return { date };
  const words = {
    artist: project.artist,
    client: project.client,
    song: project.song,
    project: project.name,
    strip: strip.look.name,
  };
  return { ...Object.fromEntries(Object.entries(words).filter(([, word]) => word !== "")), date };
}

function proposeName({ request, body, strip }: FormProps): string {
  const processor = request.processor === undefined ? null : findProcessor(strip.inserts, request.processor);
  if (body.draft)
    return processor
      ? `${processorName(processor)} of ${body.project.name}`
      : body.project.name === "New sound"
        ? ""
        : `${body.project.name}, variation`;
  return processor
    ? `${strip.look.name} ${processorName(processor)}, ${body.project.song}`
    : `${strip.look.name}, ${body.project.song}`;
}

/** After saving, the thing in hand goes by the new name. */
function followSteps(content: Content, { strip, request }: FormProps, from: From) {
  const hand = { strip, mint: mintKey };
  if (content.kind === "plugin") {
    const processor = findProcessor(strip.inserts, request.processor ?? "");
    return processor ? gestures.followPlugin(hand, processor, from) : [];
  }
  return content.kind === "chain" || (content.kind === "strip" && content.strip.inserts)
    ? gestures.follow(hand, from)
    : [];
}

function SaveForm(props: FormProps) {
  const { request, body, strip } = props;
  const queries = useQueryClient();
  const editing = useProjectEditing(request.project);
  const folders = useFolders().data?.folders ?? [];
  const [parts, setParts] = useState<readonly PartName[]>(["inserts"]);
  const form = useForm<Fields>({
    defaultValues: {
      name: proposeName(props),
      folder: "",
      newFolder: "",
      purpose: strip.look.name === body.project.name ? "" : strip.look.name,
      tags: "",
    },
  });
  const { register, handleSubmit, control, formState } = form;
  const [name, folder, tags] = useWatch({ control, name: ["name", "folder", "tags"] });
  const content = contentOf(props, parts);
  const taken = useTaken(name);
  const origin = originOf(props);
  const kind = content ? KIND_NAMES[content.kind].toLowerCase() : "nothing";

  const finish = async (from: From, made: Content, words: string): Promise<void> => {
    await editing.commit(words, (project) => {
      const now = project.strips.find((s) => s.id === request.strip);
      return now ? followSteps(made, { ...props, strip: now }, from) : [];
    });
    for (const key of [KEYS.presets, KEYS.folders]) await queries.invalidateQueries({ queryKey: key });
    closeSave();
    say(words);
  };
  const fail = (error: unknown) => {
    const path = error instanceof api.ApiFailure && "path" in error.error ? error.error.path : undefined;
    form.setError(path?.endsWith("newFolder") || path === "name" ? "newFolder" : "root", {
      message: error instanceof Error ? error.message : String(error),
    });
  };
  const save = handleSubmit(async (fields) => {
    if (!content) return;
    try {
      const place =
        fields.folder === NEW_FOLDER
          ? (await api.makeFolder(fields.newFolder.trim(), null)).folder.id
          : fields.folder || null;
      const card = {
        name: fields.name.trim(),
        folder: place,
        tags: splitTags(fields.tags),
        purpose: fields.purpose.trim(),
        rating: 0,
        notes: "",
        origin,
      };
      const { preset } = await api.savePreset({ kind: content.kind, content, card });
      await finish({ preset: preset.id, version: 1, name: preset.card.name }, content, `Saved “${preset.card.name}”`);
    } catch (error) {
      fail(error);
    }
  });
  const saveOver = async () => {
    if (!taken || !content) return;
    try {
      const { preset } = await api.saveVersion(taken.id, taken.version, content);
      await finish(
        { preset: preset.id, version: preset.version, name: preset.card.name },
        content,
        `Saved version ${preset.version} of “${preset.card.name}”`,
      );
    } catch (error) {
      fail(error);
    }
  };
  const left =
    request.processor === undefined
      ? PARTS.filter((p) => !parts.includes(p)).map((p) => PART_NAMES[p].toLowerCase())
      : [];
  return (
    <Sheet
      open
      onClose={closeSave}
      title={`Save ${request.processor === undefined ? strip.look.name : "one plugin"}`}
      aside={`${kind} · ${countWords(content)}`}
      className="w-[960px]"
    >
      <form onSubmit={(event) => void save(event)} className="grid gap-[14px]">
        <div className="grid grid-cols-[84px_1fr_84px_1fr] items-center gap-x-3 gap-y-2">
          <label htmlFor="save-name" className="text-soft">
            Name
          </label>
          <input
            id="save-name"
            autoComplete="off"
            className={`${INPUT} name`}
            {...register("name", {
              validate: (v) => v.trim() !== "" || "Give it a name.",
              maxLength: { value: 200, message: "200 letters at the most." },
            })}
          />
          <label htmlFor="save-folder" className="text-soft">
            Folder
          </label>
          <div className="flex gap-2">
            <select id="save-folder" className={INPUT} {...register("folder")}>
              <option value="">No folder</option>
              {folders.map((f) => (
                <option key={f.id} value={f.id}>
                  {f.parent ? `${folders.find((p) => p.id === f.parent)?.name} / ${f.name}` : f.name}
                </option>
              ))}
              <option value={NEW_FOLDER}>New folder…</option>
            </select>
            {folder === NEW_FOLDER && (
              <input
                aria-label="Name of the new folder"
                placeholder="Name of the new folder"
                className={INPUT}
                {...register("newFolder", {
                  validate: (v, f) => f.folder !== NEW_FOLDER || v.trim() !== "" || "Name the new folder.",
                })}
              />
            )}
          </div>
          <label htmlFor="save-purpose" className="text-soft">
            For
          </label>
          <input id="save-purpose" autoComplete="off" className={INPUT} {...register("purpose")} />
          <label htmlFor="save-tags" className="text-soft">
            Tags
          </label>
          <div className="flex min-w-0 items-center gap-2">
            <input
              id="save-tags"
              autoComplete="off"
              placeholder="warm, close"
              className={INPUT}
              {...register("tags")}
            />
            <span className="flex flex-none gap-1">
              {splitTags(tags)
                .slice(0, 4)
                .map((tag) => (
                  <Chip key={tag}>{tag}</Chip>
                ))}
            </span>
          </div>
          <span className="text-soft">Origin</span>
          <p className="col-span-3 truncate">
            {[origin.artist, origin.song].filter(Boolean).join(", ") || "own"}
            {origin.strip && ` · strip ${origin.strip}`}
            {origin.date && ` · ${formatDate(origin.date)}`}
          </p>
        </div>
        <WhatGoesIn {...props} parts={parts} onParts={setParts} />
        {taken && (
          <p className="flex items-center gap-3 border-edit border-l-[3px] bg-edit-tint px-3 py-2" role="status">
            <span className="flex-1">
              “{taken.card.name}” is there already. Give this another name, or keep it as the next version of that; the
              earlier ones stay.
            </span>
            {content?.kind === taken.kind && (
              <Button onClick={() => void saveOver()}>Save as version {taken.version + 1}</Button>
            )}
          </p>
        )}
        {Object.values(formState.errors).map((error) => (
          <p key={error.message} role="alert" className="border-alert border-l-[3px] bg-alert-tint px-3 py-2">
            {error.message}
          </p>
        ))}
        <div className="flex items-center gap-2">
          <p className="text-small text-soft">
            {left.length > 0 && `Left out: ${left.join(", ")}. `}
            The project stays as it is.
          </p>
          <span className="ml-auto flex gap-2">
            <Button onClick={closeSave}>Cancel</Button>
            <Button main type="submit" disabled={!content || taken !== null || formState.isSubmitting}>
              Save {kind}
            </Button>
          </span>
        </div>
      </form>
    </Sheet>
  );
}

function countWords(content: Content | null): string {
  if (!content) return "switch on what is to be kept";
  const processors =
    content.kind === "plugin"
      ? [content.processor]
      : content.kind === "chain"
        ? processorsOf(content.chain)
        : content.kind === "strip" && content.strip.inserts
          ? processorsOf(content.strip.inserts)
          : [];
  return `${processors.length} plugin${processors.length === 1 ? "" : "s"}`;
}

/** The preset that has this very name, if there is one. */
function useTaken(name: string) {
  const q = name.trim();
  const hits = useQuery({
    queryKey: [...KEYS.presets, "taken", q],
    queryFn: () => api.listPresets({ q, limit: 20 }),
    enabled: q !== "",
  });
  return hits.data?.items.find((p) => p.card.name.toLowerCase() === q.toLowerCase()) ?? null;
}

interface WhatProps extends FormProps {
  readonly parts: readonly PartName[];
  readonly onParts: (parts: readonly PartName[]) => void;
}

const COLUMNS = "grid grid-cols-[120px_minmax(0,1fr)_100px_72px_110px_120px] items-center gap-x-[10px]";

/** The table of what goes in: strips by parts, each with its switch. */
function WhatGoesIn({ request, body, strip, parts, onParts }: WhatProps) {
  const processors =
    request.processor === undefined
      ? processorsOf(strip.inserts)
      : processorsOf(strip.inserts).filter((p) => p.key === request.processor);
  const shapes = (
    <span className="flex flex-wrap gap-x-2 gap-y-1">
      {processors.map((processor) => (
        <span key={processor.key} className="grid justify-items-start gap-px text-small">
          <Shape processor={processor} tempo={body.project.tempo} />
          <span className="max-w-[110px] truncate text-soft">
            {processorName(processor)}
            {processor.enabled ? "" : ", off"}
          </span>
        </span>
      ))}
      {processors.length === 0 && <span className="text-soft">no plugins</span>}
    </span>
  );
  const says: Record<PartName, ReactNode> = {
    inserts: shapes,
    level: `${formatFader(strip.level)} dB`,
    pan: formatPanPart(strip.pan),
    routing: describeOutput(body.project, strip.routing.output),
    look: "name, colour",
  };
  const only = request.processor !== undefined || body.draft !== null;
  const shown = only ? (["inserts"] as const) : PARTS;
  return (
    <div role="table" aria-label="What goes in">
      <div role="row" className={`${COLUMNS} h-7 border-edge border-b text-small text-soft`}>
        <span role="columnheader">Strip</span>
        {shown.map((part) => (
          <span role="columnheader" key={part}>
            {PART_NAMES[part]}
          </span>
        ))}
      </div>
      <div role="row" className={`${COLUMNS} min-h-[58px] border-rule border-b py-1`}>
        <span role="cell" className="name truncate">
          {strip.look.name}
        </span>
        {shown.map((part) => (
          <span role="cell" key={part} className="flex min-w-0 items-center gap-[7px]">
            {request.processor === undefined && (
              <Tick
                label={`${PART_NAMES[part]} of ${strip.look.name}`}
                on={parts.includes(part)}
                onChange={(on) => onParts(PARTS.filter((p) => (p === part ? on : parts.includes(p))))}
              />
            )}
            <span className={parts.includes(part) ? "" : "text-faint"}>{says[part]}</span>
          </span>
        ))}
      </div>
    </div>
  );
}
