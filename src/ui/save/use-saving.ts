"use client";

import equal from "fast-deep-equal";
import { cutText } from "@/core/names/cut";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { type UseFormReturn, useForm, useWatch } from "react-hook-form";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { ProjectBody } from "@/contracts/projects";
import type { PresetRow } from "@/contracts/records";
import { usualOf } from "@/core/recall/choices";
import { followSet } from "@/core/recall/gestures/follow-set";
import { foundTags } from "@/core/library/found-tags";
import { withoutClashes } from "@/core/names/free";
import { type Named, applyPattern } from "@/core/library/pattern";
import { type Card, type Content, type PresetKind, isStrips, presetRef } from "@/core/presets/preset";
import { saveStrips, withoutSet } from "@/core/presets/save";
import { findCompanions } from "@/core/projects/companions";
import { findStrip } from "@/core/projects/project";
import { insideOf } from "@/core/library/inside";
import { fold } from "@/core/names/words";
import { type Strip, createStrip, offeredParts, partsOf } from "@/core/strips/strip";
import type { PartName } from "@/core/strips/parts";
import { errorText } from "../kit/error-text";
import { mintKey } from "../kit/mint";
import { say } from "../kit/say";
import { useSingly } from "../kit/use-singly";
import { usePatterns } from "../names/patterns";
import { useTaken } from "../names/taken";
import { useProjectEditing } from "../projects/editing";
import { wordsOfSave } from "./version-words";
import { type Subject, contentOf, followSteps, proposeName } from "./proposal";
import { type SaveRequest, closeSave } from "./save";
import { ARTISTS_FOLDER, EMPTY, NEW_FOLDER, type SaveFields, cardOf, fieldsOf } from "./save-fields";
import { type Known, useProposals } from "./use-proposals";

/** One preset that would be saved. */
export interface Item {
  readonly subject: Subject;
  readonly parts: readonly PartName[];
  /** null while every part of it is switched off. */
  readonly content: Content | null;
  readonly card: Card;
  readonly name: string;
  /** Its name had to be numbered, since another has it. */
  readonly clashed: boolean;
  readonly known: Known | undefined;
}

/** What is on from the start: what sounds, where there is anything. */
const firstParts = ({ kind, inserts }: Strip): readonly PartName[] => [
  ...(kind === "instrument" ? (["source"] as const) : []),
  // What an instrument plays through is a part of its sound, also where that is nothing.
  ...(inserts.nodes.length > 0 || kind === "instrument" ? (["inserts"] as const) : []),
];

/**
 * The parts of a strip of the library that is changed on the bench: it stays a strip, with all that it held and what was set since,
 * level and pan among it.
 */
function heldParts({ body, strip }: Subject, known: Known | undefined): readonly PartName[] | null {
  const content = known?.loaded?.content;
  if (body.draft === null || content?.kind !== "strip") return null;
  const held = partsOf(content.strip);
  const fresh = createStrip(strip.id, strip.kind, strip.look, null);
  return offeredParts(strip).filter((part) => held.includes(part) || !equal(strip[part], fresh[part]));
}

/** What of a strip is kept, until something else is chosen. */
const partsAtFirst = (subject: Subject, known: Known | undefined, as: As): readonly PartName[] =>
  as === "each" ? (heldParts(subject, known) ?? firstParts(subject.strip)) : usualOf(offeredParts(subject.strip));

/** The form, filled in with what is proposed; what was typed before that came stays. */
function useFilledForm(proposals: ReadonlyMap<string, Known> | undefined) {
  const form = useForm<SaveFields>({ defaultValues: EMPTY });
  const { reset } = form;
  const [filled, setFilled] = useState(proposals);
  useEffect(() => {
    if (!proposals) return;
    reset({ ...EMPTY, ...fieldsOf([...proposals.values()]) }, { keepDirtyValues: true });
    // What the form says is here one drawing later.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setFilled(proposals);
  }, [proposals, reset]);
  const fields: SaveFields = { ...EMPTY, ...useWatch({ control: form.control }) };
  return {
    form,
    fields,
    touched: form.formState.dirtyFields,
    isFilled: proposals !== undefined && filled === proposals,
  };
}

/** By what a pattern names it; null while nothing of it is kept. */
export const namedOf = ({ content, card }: Pick<Item, "content" | "card">): Named | null =>
  content && { kind: content.kind, card, inside: insideOf(content) };

/** Names by the pattern, or the one that is typed. */
function namesOf(subjects: readonly Made[], pattern: string, typed: string | null): readonly string[] {
  if (subjects.length === 1 && typed !== null) return [typed];
  return subjects.map((made, at) => {
    const { subject } = made;
    const named = namedOf(made);
    if (!named) return "";
    return (subject.body.draft ? "" : applyPattern(pattern, named, at + 1)) || proposeName(subject);
  });
}

/** Presets that the only thing could become a version of: the one that has its name, and the one that it was loaded from. */
function overOf(items: readonly Item[], taken: readonly PresetRow[]) {
  const [only, second] = items;
  if (!only || second) return { taken: null, loaded: null };
  const { loaded = null, set = null } = only.known ?? {};
  return { taken: taken[0] ?? null, loaded: only.content && isStrips(only.content) ? set : loaded };
}

/** Names that are free, and which of them are not what was wished. */
function named(made: readonly Made[], wished: readonly string[], taken: readonly string[]): readonly Item[] {
  const names = made.length === 1 ? wished : withoutClashes(wished, taken);
  return made.map((one, at) => {
    const name = names[at] ?? "";
    return { ...one, name, clashed: fold(name) !== fold(wished[at] ?? "") };
  });
}

type Made = Omit<Item, "name" | "clashed">;

/** Several strips: each as a preset of its own, or together as one. */
export type As = "each" | "set" | "mix";

const isFolder = (strip: Strip | null): boolean => strip?.kind === "folder";

/** Strips of the request in the order of the project, with those that are taken along. */
function useStrips(request: SaveRequest, { project }: ProjectBody) {
  // A folder is kept with what stands in it.
  const [as, setAs] = useState<As>(
    request.as ?? (request.strips.some((id) => isFolder(findStrip(project, id))) ? "set" : "each"),
  );
  const [along, setAlong] = useState<readonly string[]>([]);
  const ids = as === "each" ? request.strips : [...request.strips, ...along];
  return {
    as,
    setAs,
    strips: project.strips.filter(({ id }) => ids.includes(id)),
    /** Whether the strips that were chosen are all that there are. */
    isWhole: project.strips.every(({ id }) => request.strips.includes(id)),
    companions: as === "set" ? findCompanions(project, request.strips) : [],
    along,
    setAlong: (id: string, on: boolean) => setAlong((now) => (on ? [...now, id] : now.filter((one) => one !== id))),
  };
}

/** What is made of several strips together; it goes by the folder or the group among them, else by the first. */
function togetherOf(rows: readonly Made[], as: "set" | "mix"): Made | null {
  const lead =
    rows.find(({ subject }) => isFolder(subject.strip)) ??
    rows.find(({ subject }) => subject.strip.kind === "group") ??
    rows[0];
  if (!lead) return null;
  const kept = rows
    .filter(({ parts }) => parts.length > 0)
    .map(({ subject, parts }) => ({ strip: withoutSet(subject.strip), parts }));
  const content = kept.length > 0 ? saveStrips(lead.subject.body.project, kept, as) : null;
  return { ...lead, content };
}

/** The name that is typed, else the one that what is kept together was to have from the start; null where a pattern gives it. */
function typedName(
  { name }: SaveRequest,
  as: As,
  { fields, touched }: Pick<ReturnType<typeof useFilledForm>, "fields" | "touched">,
): string | null {
  if (touched.name) return fields.name;
  return as === "each" || touched.pattern ? null : (name ?? null);
}

/** Everything that the save sheet knows and does. */
export function useSaving(request: SaveRequest, body: ProjectBody) {
  const { as, setAs, strips, ...company } = useStrips(request, body);
  const subjects: readonly Subject[] = strips.map((strip) => ({ request, body, strip }));
  const { proposals, isLookedUp, hasFailed } = useProposals(subjects);
  const [parts, setParts] = useState<Readonly<Record<string, readonly PartName[]>>>({});
  const { form, fields, touched, isFilled } = useFilledForm(proposals);
  const rows = subjects.map((subject): Made => {
    const known = proposals?.get(subject.strip.id);
    const own = parts[subject.strip.id] ?? partsAtFirst(subject, known, as);
    const card = cardOf(subject, known, { fields, touched });
    return { subject, parts: own, content: contentOf(subject, own), card, known };
  });
  const together = as === "each" ? null : togetherOf(rows, as);
  const made = together ? [together] : rows;
  const kind: PresetKind = made.find(({ content }) => content !== null)?.content?.kind ?? "chain";
  const { patterns, keep } = usePatterns(kind);
  const pattern = touched.pattern ? fields.pattern : (patterns[0] ?? "");
  const wished = namesOf(made, pattern, typedName(request, as, { fields, touched }));
  const taken = useTaken(wished);
  const many = made.length > 1;
  const items = named(made, wished, taken.names);
  const contents = items.flatMap(({ content }) => content ?? []);
  const keepPattern = touched.pattern || many ? () => keep(pattern) : null;
  const { save, saveOver } = useKeeping({ form, fields, items, keepPattern });
  return {
    form,
    fields,
    isLookedUp,
    /** What is kept, and what of each strip goes into it. */
    items,
    rows: together ? rows.map((row): Item => ({ ...row, name: row.subject.strip.look.name, clashed: false })) : items,
    many,
    as,
    setAs,
    ...company,
    kind,
    patterns,
    pattern,
    measured: [...new Set(contents.flatMap((content) => foundTags(content)))],
    ...overOf(items, taken.presets),
    setParts: (strip: string, next: readonly PartName[]) => setParts((now) => ({ ...now, [strip]: next })),
    saveOver,
    // Without proposals it is saved as it stands.
    save: useWhenFilled(isFilled || hasFailed, () => void save()),
  };
}

/** Saves at once, or, where that is asked for before the form is filled in, as soon as it is: a quick hand loses nothing of it. */
function useWhenFilled(isFilled: boolean, save: () => void): () => void {
  const isAsked = useRef(false);
  const saveAsked = useEffectEvent(() => {
    if (isAsked.current) save();
    isAsked.current = false;
  });
  useEffect(() => {
    if (isFilled) saveAsked();
  }, [isFilled]);
  return () => {
    if (isFilled) save();
    else isAsked.current = true;
  };
}

export type Saving = ReturnType<typeof useSaving>;

interface Keeping {
  readonly form: UseFormReturn<SaveFields>;
  readonly fields: SaveFields;
  readonly items: readonly Item[];
  /** Remembers the pattern, where it was used. */
  readonly keepPattern: (() => Promise<void>) | null;
}

/** Letters of a folder's name. */
const LONGEST_FOLDER = 120;

/** The saving itself: all as new presets, or the only one as the next version of another. */
function useKeeping({ form, fields, items, keepPattern }: Keeping) {
  const singly = useSingly();
  const { finish, fail } = useFinish(items[0]?.subject.request ?? null, form);
  const artist = items[0]?.subject.body.project.artist ?? "";
  const newFolder =
    fields.folder === NEW_FOLDER
      ? fields.newFolder.trim()
      : fields.folder === ARTISTS_FOLDER
        ? cutText(artist.replaceAll("/", "-"), LONGEST_FOLDER).trim()
        : undefined;
  /** Where all go; undefined: each where it is proposed. */
  const isChosen = form.formState.dirtyFields.folder === true || items.length === 1;
  const folder = newFolder === undefined && isChosen ? fields.folder || null : undefined;
  const saveAll = async () => {
    const wanted = items.flatMap((item) => (item.content ? [{ ...item, content: item.content }] : []));
    try {
      const { presets } = await api.savePresets({
        presets: wanted.map(({ content, card, name, known }) => ({
          kind: content.kind,
          content,
          card: {
            ...card,
            name: name.trim(),
            folder: folder === undefined ? (known?.proposal.folder ?? null) : folder,
          },
        })),
        ...(newFolder === undefined ? {} : { newFolder, newFolderIn: fields.newFolderIn || null }),
      });
      await keepPattern?.();
      const [only] = presets;
      await finish(
        wanted.flatMap((item, at) => (presets[at] ? [{ item, preset: presets[at] }] : [])),
        only && presets.length === 1 ? `Saved “${only.card.name}”` : `Saved ${presets.length} presets`,
      );
    } catch (error) {
      fail(error);
    }
  };
  const saveOver = async (over: PresetRow) => {
    const [item] = items;
    if (!item?.content) return;
    try {
      const { preset } = await api.saveVersion(over.id, over.version, item.content);
      const { heldBy } = await api.getPreset(preset.id);
      await finish([{ item, preset }], wordsOfSave(over.version, preset, heldBy));
    } catch (error) {
      fail(error);
    }
  };
  return {
    save: form.handleSubmit(() => singly(saveAll)),
    saveOver: (over: PresetRow) => singly(() => saveOver(over)),
  };
}

/** What follows when presets were saved: the things in hand go by their names. */
function useFinish(request: SaveRequest | null, form: UseFormReturn<SaveFields>) {
  const queries = useQueryClient();
  const editing = useProjectEditing(request?.project ?? null);
  const follow = (saved: readonly { readonly item: Item; readonly preset: PresetRow }[], words: string) =>
    editing.commit(words.replace(/^Saved/, "Save"), (now) =>
      saved.flatMap(({ item: { subject, content }, preset }) => {
        const strip = now.strips.find((s) => s.id === subject.strip.id);
        const from = presetRef(preset);
        if (content && isStrips(content))
          return followSet(content, preset.content, now.strips, { from, mint: mintKey });
        return strip && content ? followSteps(content, { ...subject, strip }, from) : [];
      }),
    );
  const finish = async (saved: Parameters<typeof follow>[0], words: string) => {
    // What the strips were once does not say what they are loaded from now.
    if (request?.revision === undefined) await follow(saved, words);
    for (const key of [KEYS.presets, KEYS.folders]) await queries.invalidateQueries({ queryKey: key });
    closeSave();
    say(words);
  };
  const fail = (error: unknown) => {
    const path = error instanceof api.ApiFailure && "path" in error.error ? error.error.path : undefined;
    form.setError(path === "newFolder" ? "newFolder" : "root", {
      message: errorText(error),
    });
  };
  return { finish, fail };
}
