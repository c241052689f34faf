"use client";

import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useSearchParams } from "next/navigation";
import { useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import type { PlanRequest, ProjectBody } from "@/contracts/projects";
import type { PresetRow } from "@/contracts/records";
import type { Exception, SetTargets } from "@/core/recall/plan-shape";
import type { InsertMode } from "@/core/recall/plan-inserts";
import type { LayerTake } from "@/core/recall/plan-layers";
import type { SendMode } from "@/core/recall/plan-sends";
import { asStrip } from "@/core/presets/as-strip";
import { isStrips } from "@/core/presets/preset";
import { partsOf } from "@/core/strips/strip";
import { PARTS, type PartName } from "@/core/strips/parts";
import { useProjectEditing } from "../projects/editing";
import { lastBeforeMain, targetsOf } from "./recall";

/** The parts that there are of it, of several strips those of any. */
function heldBy({ content }: PresetRow): readonly PartName[] {
  const strips = isStrips(content) ? content.strips : [asStrip(content)].filter((strip) => strip !== null);
  return PARTS.filter((part) => strips.some((strip) => partsOf(strip).includes(part)));
}

export type Onto = SetTargets["onto"];

/** What was switched off, as the plan takes it. */
const toExceptions = (off: ReadonlySet<string>): Exception[] =>
  [...off].map((cell) => {
    const [strip, part] = cell.split(" ");
    return { strip: strip ?? "", ...(part ? { part: part as PartName } : {}) };
  });

interface Choices extends Omit<PlanRequest["requests"][number], "parts"> {
  readonly parts: readonly PartName[];
  readonly off: ReadonlySet<string>;
  readonly answers: Readonly<Record<string, string>>;
}

/** With every part switched off, the plan is asked for all of them and told to leave each out: it then says what stays. */
function requestOf({ parts, off, answers, ...rest }: Choices): PlanRequest {
  const some = parts.length > 0;
  return {
    requests: [{ ...rest, parts: some ? [...parts] : [...PARTS] }],
    except: some ? toExceptions(off) : PARTS.map((part) => ({ part })),
    answers,
  };
}

/** What the address asks for; version 0 is the newest. */
function useAsked() {
  const params = useSearchParams();
  return {
    presetId: params.get("preset") ?? "",
    version: Number(params.get("version") ?? 0),
    strips: params.get("strips")?.split(",").filter(Boolean) ?? [],
  };
}

/** What a hand has chosen in the plan so far. */
function useChoices() {
  const [without, setWithout] = useState<readonly PartName[]>([]);
  const [chosenMode, setMode] = useState<InsertMode | null>(null);
  const [layers, setLayers] = useState<LayerTake>("whole");
  const [sends, setSends] = useState<SendMode>("replace");
  const [onto, setOnto] = useState<Onto>("matched");
  const [off, setOff] = useState<ReadonlySet<string>>(new Set());
  const [answers, setAnswers] = useState<Readonly<Record<string, string>>>({});
  return {
    without,
    setWithout,
    chosenMode,
    setMode,
    layers,
    setLayers,
    sends,
    setSends,
    onto,
    setOnto,
    off,
    setOff,
    answers,
    setAnswers,
  };
}

/** Several strips find theirs among those that are chosen, where any are. */
const targetsFor = (
  row: PresetRow | undefined,
  body: ProjectBody | undefined,
  { strips, onto }: { readonly strips: readonly string[]; readonly onto: Onto },
): PlanRequest["requests"][number]["targets"] =>
  row && isStrips(row.content)
    ? { set: { onto, among: strips.length > 0 ? [...strips] : null, after: lastBeforeMain(body) } }
    : targetsOf(body, strips);

export function usePlan(id: string) {
  const { presetId, version, strips } = useAsked();
  const editing = useProjectEditing(id);
  const preset = useQuery({
    queryKey: KEYS.version(presetId, version),
    queryFn: () => api.getPreset(presetId, version || undefined),
    retry: false,
  });
  const choices = useChoices();
  const { without, chosenMode, layers, sends, onto, off, answers, ...setters } = choices;
  const row = preset.data?.preset;
  const held = row ? heldBy(row) : [];
  const mode = chosenMode ?? (row?.kind === "plugin" ? "after" : "replace");
  const parts = held.filter((p) => !without.includes(p));
  const revision = editing.body?.revision;
  const request = requestOf({
    source: { preset: presetId, ...(version ? { version } : {}) },
    parts,
    targets: targetsFor(row, editing.body, { strips, onto }),
    mode,
    layers,
    sends,
    off,
    answers,
  });
  const planned = useQuery({
    queryKey: ["plan", id, revision, request],
    queryFn: () => api.planRecall(id, request),
    enabled: row !== undefined && revision !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 0,
  });
  return {
    editing,
    row,
    held,
    parts,
    mode,
    layers,
    sends,
    onto,
    off,
    planned,
    strips,
    ...setters,
    error: preset.error ?? planned.error ?? editing.error,
  };
}
