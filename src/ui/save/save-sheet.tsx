"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { type From, nodeName } from "@/core/chains/chain";
import { type Content, KIND_NAMES } from "@/core/presets/preset";
import { PARTS, PART_NAMES, type PartName } from "@/core/strips/strip";
import { Button } from "../kit/button";
import { Chip } from "../kit/bits";
import { formatDate } from "../kit/dates";
import { Sheet } from "../kit/sheet";
import { INPUT } from "../kit/field";
import { splitTags } from "../kit/split-tags";
import { folderPath, useFolders } from "../library/use-library";
import { useProjectEditing } from "../projects/editing";
import { type SaveRequest, closeSave } from "./save";
import { say } from "../kit/say";
import { type FormProps, contentOf, nodeOf, originOf, proposeName, followSteps } from "./proposal";
import { countWords, WhatGoesIn } from "./what-goes-in";

interface Fields {
  readonly name: string;
  readonly folder: string;
  readonly newFolder: string;
  readonly purpose: string;
  readonly tags: string;
}

const NEW_FOLDER = "+";

export function SaveSheet({ request }: { readonly request: SaveRequest }) {
  const { body } = useProjectEditing(request.project);
  const strip = body?.project.strips.find((s) => s.id === request.strip);
  return body && strip ? <SaveForm request={request} body={body} strip={strip} /> : null;
}

function SaveForm(props: FormProps) {
  const { request, body, strip } = props;
  const queries = useQueryClient();
  const editing = useProjectEditing(request.project);
  const folders = useFolders().data?.folders ?? [];
  const [parts, setParts] = useState<readonly PartName[]>(
    strip.kind === "instrument" ? ["source", "inserts"] : ["inserts"],
  );
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
    request.node === undefined && request.layer === undefined
      ? PARTS.filter((p) => !parts.includes(p) && (p !== "source" || strip.kind === "instrument")).map((p) =>
          PART_NAMES[p].toLowerCase(),
        )
      : [];
  return (
    <Sheet
      open
      onClose={closeSave}
      title={`Save ${titleOf(props)}`}
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
                  {folderPath(f, folders)}
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

function titleOf(props: FormProps): string {
  const node = nodeOf(props);
  if (node) return nodeName(node);
  if (props.request.instrument) return `the instrument of ${props.strip.look.name}`;
  return props.request.layer === undefined ? props.strip.look.name : `the effects inside ${props.strip.look.name}`;
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
