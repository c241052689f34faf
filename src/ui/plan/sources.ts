"use client";

import { useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "next/navigation";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PlanRequest } from "@/contracts/projects";
import type { PresetRow } from "@/contracts/records";
import { counted } from "@/core/names/count";
import type { Content, PresetKind } from "@/core/presets/preset";
import { nameOfStrips, takeStrips } from "@/core/presets/save";
import { type Project, findStrip } from "@/core/projects/project";
import { PARTS } from "@/core/strips/parts";
import { fetchProject } from "../projects/sending";

export type AskedSource = PlanRequest["requests"][number]["source"];

/** One thing that a plan brings. */
export interface PlanSource {
  readonly ask: AskedSource;
  readonly name: string;
  /** Which state of it: "version 3", "as it is in Reed Beds". */
  readonly words: string;
  readonly kind: PresetKind;
  readonly content: Content;
}

const listIn = (words: URLSearchParams, name: string): readonly string[] =>
  words.get(name)?.split(",").filter(Boolean) ?? [];

/** What the address asks for; version 0 is the newest. */
export function useAsked() {
  const words = useSearchParams();
  const versions = words.getAll("version");
  const revision = words.get("revision");
  const strips = listIn(words, "strips");
  const [strip = ""] = strips;
  const [on, behind, below] = [words.get("on"), words.get("behind"), words.get("below")];
  const parts = PARTS.filter((part) => listIn(words, "parts").includes(part));
  const slot =
    on !== null ? { strip, on } : behind !== null ? { strip, after: behind === "" ? null : behind } : undefined;
  return {
    strips,
    slot,
    newStrip: below === null ? undefined : below === "" ? null : below,
    parts: parts.length > 0 ? parts : null,
    presets: words.getAll("preset").map((id, at) => ({ id, version: Number(versions[at] ?? 0) })),
    project: words.get("from"),
    revision: revision === null ? undefined : Number(revision),
    take: listIn(words, "take"),
  };
}

/** A project as it is, or was at a revision. */
export function useProjectAt(id: string | null, revision: number | undefined) {
  const queries = useQueryClient();
  return useQuery({
    queryKey: revision === undefined ? KEYS.project(id ?? "") : [...KEYS.project(id ?? ""), "revision", revision],
    queryFn: () => (revision === undefined ? fetchProject(queries, id ?? "") : api.getRevision(id ?? "", revision)),
    enabled: id !== null,
  });
}

function ofStrips(project: Project, { revision, take }: ReturnType<typeof useAsked>): PlanSource | null {
  const strips = take.flatMap((id) => findStrip(project, id) ?? []);
  if (strips.length === 0) return null;
  const content = takeStrips(project, strips);
  return {
    ask: { project: project.id, strips: [...take], ...(revision === undefined ? {} : { revision }) },
    name: nameOfStrips(project, strips),
    words: revision === undefined ? `as it is in ${project.name}` : `as it was in ${project.name}, change ${revision}`,
    kind: content.kind,
    content,
  };
}

const ofPreset = ({ id, card, kind, content, version }: PresetRow, asked: number): PlanSource => ({
  ask: { preset: id, ...(asked > 0 ? { version: asked } : {}) },
  name: card.name,
  words: `version ${version}`,
  kind,
  content,
});

/** All that the address asks for; null until it has come. */
export function useSources(asked: ReturnType<typeof useAsked>) {
  const presets = useQueries({
    queries: asked.presets.map(({ id, version }) => ({
      queryKey: KEYS.version(id, version),
      queryFn: () => api.getPreset(id, version || undefined),
    })),
  });
  const from = useProjectAt(asked.project, asked.revision);
  const rows = presets.flatMap(({ data }, at) => (data ? [ofPreset(data.preset, asked.presets[at]!.version)] : []));
  const taken = from.data ? ofStrips(from.data.project, asked) : null;
  const sources = taken ? [...rows, taken] : rows;
  const wanted = asked.presets.length + (asked.project === null ? 0 : 1);
  const faults = [...presets.map(({ error }) => error), from.error, from.data && !taken ? GONE : null];
  return {
    sources: sources.length === wanted && wanted > 0 ? sources : null,
    error: faults.find((fault) => fault !== null) ?? (wanted === 0 ? NOTHING : null),
  };
}

const GONE = new Error("The strips that it takes are not in that project any more.");
const NOTHING = new Error("Nothing was chosen to be applied. Choose a sound in the library, or strips of a project.");

/** “Wood and rosin”, “Wood and rosin” and “Plate”, “Wood and rosin” and 3 more. */
export function namesOf(sources: readonly PlanSource[]): string {
  const [first, second] = sources.map(({ name }) => `“${name}”`);
  if (sources.length < 2) return first ?? "";
  return sources.length === 2
    ? `${first} and ${second}`
    : `${first} and ${counted(sources.length - 1, "more", "more")}`;
}
