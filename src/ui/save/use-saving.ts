"use client";

import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useForm, useWatch } from "react-hook-form";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import type { PresetRow } from "@/contracts/records";
import type { From } from "@/core/chains/chain";
import { foundTags } from "@/core/library/found-tags";
import { applyPattern, withoutClashes } from "@/core/names/pattern";
import { type Card, type Content, emptyCard } from "@/core/presets/preset";
import { insideOf } from "@/core/search/entry";
import { fold } from "@/core/search/words";
import type { PartName, Strip } from "@/core/strips/strip";
import { say } from "../kit/say";
import { splitTags } from "../kit/split-tags";
import { usePatterns } from "../names/patterns";
import { useTaken } from "../names/taken";
import { useProjectEditing } from "../projects/editing";
import { type Thing, contentOf, followSteps, originOf, proposeName } from "./proposal";
import { type SaveRequest, closeSave } from "./save";
import { type Known, useProposals } from "./use-proposals";

export interface SaveFields {
  readonly name: string;
  readonly pattern: string;
  /** An id, "" for none, or one of the two below. */
  readonly folder: string;
  readonly newFolder: string;
  readonly purpose: string;
  readonly tags: string;
  readonly performer: string;
  readonly instrument: string;
  readonly microphone: string;
}

/** Choices of folder that are no folder yet: one to be named, and one that is named after the artist. */
export const NEW_FOLDER = "+";
export const ARTISTS_FOLDER = "+artist";

const EMPTY: SaveFields = {
  name: "",
  pattern: "",
  folder: "",
  newFolder: "",
  purpose: "",
  tags: "",
  performer: "",
  instrument: "",
  microphone: "",
};

/** What all have in common; "" where they differ. */
const common = (values: readonly string[]): string => (new Set(values).size === 1 ? (values[0] ?? "") : "");

const fieldsOf = (known: readonly Known[]): Partial<SaveFields> => {
  const of = (read: (known: Known) => string | undefined) => common(known.map((k) => read(k) ?? ""));
  return {
    folder: of((k) => k.proposal.folder ?? ""),
    purpose: of((k) => k.proposal.purpose),
    tags: of((k) => k.proposal.tags.join(", ")),
    performer: of((k) => k.proposal.played.performer),
    instrument: of((k) => k.proposal.played.instrument),
    microphone: of((k) => k.proposal.played.microphone),
  };
};

/** One preset that would be saved. */
export interface Item {
  readonly thing: Thing;
  readonly parts: readonly PartName[];
  /** null while every part of it is switched off. */
  readonly content: Content | null;
  readonly name: string;
  /** Its name had to be numbered, since another has it. */
  readonly clashed: boolean;
  readonly known: Known | undefined;
}

/** What is on from the start: what sounds, where there is anything. */
const firstParts = ({ kind, inserts }: Strip): readonly PartName[] => [
  ...(kind === "instrument" ? (["source"] as const) : []),
  ...(inserts.nodes.length > 0 ? (["inserts"] as const) : []),
];

/** Everything that the save sheet knows and does. */
export function useSaving(request: SaveRequest, body: ProjectBody, strips: readonly Strip[]) {
  const queries = useQueryClient();
  const editing = useProjectEditing(request.project);
  const things: readonly Thing[] = strips.map((strip) => ({ request, body, strip }));
  const proposals = useProposals(things);
  const [parts, setParts] = useState<Readonly<Record<string, readonly PartName[]>>>({});
  const partsOf = (strip: Strip) => parts[strip.id] ?? firstParts(strip);
  const contents = things.map((thing) => contentOf(thing, partsOf(thing.strip)));
  const kind = contents.find((content) => content !== null)?.kind ?? "chain";
  const { patterns, keep } = usePatterns(kind);
  const form = useForm<SaveFields>({ defaultValues: EMPTY });
  const fields = { ...EMPTY, ...useWatch({ control: form.control }) } as SaveFields;
  const { dirtyFields } = form.formState;
  const many = things.length > 1;
  useEffect(() => {
    // What was typed before the proposals came stays.
    if (proposals) form.reset({ ...EMPTY, ...fieldsOf([...proposals.values()]) }, { keepDirtyValues: true });
  }, [proposals, form]);

  /** What is typed is for all; what is not touched is each one's own. */
  const cardOf = (thing: Thing, name: string, folder: string | null): Card => {
    const own = proposals?.get(thing.strip.id)?.proposal;
    const word = (field: "performer" | "instrument" | "microphone") =>
      (dirtyFields[field] || !own ? fields[field] : (own.played[field] ?? "")).trim();
    const played = Object.entries({
      performer: word("performer"),
      instrument: word("instrument"),
      microphone: word("microphone"),
    }).filter(([, text]) => text !== "");
    return {
      ...emptyCard(name),
      folder,
      tags: [...new Set(dirtyFields.tags || !own ? splitTags(fields.tags) : own.tags)],
      purpose: (dirtyFields.purpose || !own ? fields.purpose : own.purpose).trim(),
      origin: { ...originOf(thing), ...Object.fromEntries(played) },
    };
  };
  const pattern = dirtyFields.pattern ? fields.pattern : (patterns[0] ?? "");
  const byPattern = things.map((thing, at) => {
    const content = contents[at];
    if (!content) return "";
    const named = { kind: content.kind, card: cardOf(thing, "", null), inside: insideOf(content) };
    return (body.draft ? "" : applyPattern(pattern, named, at + 1)) || proposeName(thing);
  });
  const wished = many ? byPattern : [dirtyFields.name ? fields.name : (byPattern[0] ?? "")];
  const taken = useTaken(wished);
  const names = many
    ? withoutClashes(
        wished,
        taken.map((p) => p.card.name),
      )
    : wished;
  const items: readonly Item[] = things.map((thing, at) => ({
    thing,
    parts: partsOf(thing.strip),
    content: contents[at] ?? null,
    name: names[at] ?? "",
    clashed: fold(names[at] ?? "") !== fold(wished[at] ?? ""),
    known: proposals?.get(thing.strip.id),
  }));

  const finish = async (saved: readonly { readonly item: Item; readonly preset: PresetRow }[], words: string) => {
    await editing.commit(words, (project) =>
      saved.flatMap(({ item: { thing, content }, preset }) => {
        const strip = project.strips.find((s) => s.id === thing.strip.id);
        const from: From = { preset: preset.id, version: preset.version, name: preset.card.name };
        return strip && content ? followSteps(content, { ...thing, strip }, from) : [];
      }),
    );
    for (const key of [KEYS.presets, KEYS.folders]) await queries.invalidateQueries({ queryKey: key });
    closeSave();
    say(words);
  };
  const fail = (error: unknown) => {
    const path = error instanceof api.ApiFailure && "path" in error.error ? error.error.path : undefined;
    form.setError(path === "name" ? "newFolder" : "root", {
      message: error instanceof Error ? error.message : String(error),
    });
  };
  const makeFolder = async (): Promise<string | null | undefined> => {
    const made = async (name: string) => (await api.makeFolder(name.trim(), null)).folder.id;
    if (fields.folder === NEW_FOLDER) return made(fields.newFolder);
    if (fields.folder === ARTISTS_FOLDER) return made(body.project.artist);
    return dirtyFields.folder || !many ? fields.folder || null : undefined;
  };
  const save = form.handleSubmit(async () => {
    const wanted = items.filter((item) => item.content !== null);
    try {
      const folder = await makeFolder();
      const { presets } = await api.savePresets(
        wanted.map(({ thing, content, name, known }) => ({
          kind: content!.kind,
          content: content!,
          card: cardOf(thing, name.trim(), folder === undefined ? (known?.proposal.folder ?? null) : folder),
        })),
      );
      if (dirtyFields.pattern || many) await keep(pattern);
      const [only] = presets;
      await finish(
        wanted.map((item, at) => ({ item, preset: presets[at]! })),
        presets.length === 1 ? `Saved “${only!.card.name}”` : `Saved ${presets.length} presets`,
      );
    } catch (error) {
      fail(error);
    }
  });
  /** The only thing becomes the next version of a preset. */
  const saveOver = async (over: PresetRow) => {
    const [item] = items;
    if (!item?.content) return;
    try {
      const { preset } = await api.saveVersion(over.id, over.version, item.content);
      const { heldBy } = await api.getPreset(preset.id);
      const held =
        heldBy.length > 0
          ? ` ${heldBy.map((h) => `“${h.name}”`).join(", ")} ${heldBy.length === 1 ? "has" : "have"} an earlier one inside, and stay as they are.`
          : "";
      await finish([{ item, preset }], `Saved version ${preset.version} of “${preset.card.name}”.${held}`);
    } catch (error) {
      fail(error);
    }
  };
  return {
    form,
    fields,
    items,
    many,
    kind,
    patterns,
    pattern,
    measured: [...new Set(contents.flatMap((content) => (content ? foundTags(content) : [])))],
    /** The preset that has the one name, if it is taken. */
    taken: many ? null : (taken[0] ?? null),
    loaded: many ? null : (items[0]?.known?.loaded ?? null),
    setParts: (strip: string, next: readonly PartName[]) => setParts((now) => ({ ...now, [strip]: next })),
    save,
    saveOver,
  };
}

export type Saving = ReturnType<typeof useSaving>;
