"use client";

import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import {
  type Chain,
  EMPTY_CHAIN,
  type From,
  type Processor,
  findProcessor,
  mapProcessor,
  processorName,
  processorsOf,
} from "@/core/chains/chain";
import { type Difference, differencesOf, partnersOf } from "@/core/chains/differences";
import { getSpec } from "@/core/processors/model";
import { getModel } from "@/core/processors/models";
import type { ParamId, Value } from "@/core/processors/param-spec";
import { type Content, chainOf, withFrom } from "@/core/presets/preset";
import * as gestures from "@/core/recall/gestures";
import type { Step } from "@/core/recall/step";
import type { Strip } from "@/core/strips/strip";
import { formatPlain } from "@/core/units/format";
import { rememberBench, useHand, useTakeProject } from "../frame/hand";
import { hear } from "../listening/listening";
import { type ProjectEditing, useProjectEditing } from "../projects/editing";
import { mintKey } from "../projects/mint";
import { useTempo } from "../library/library";

type Turned = Readonly<Record<ParamId, Value>>;

/** What the bench was opened from, by its address: a strip, a preset, or nothing yet. */
interface Place {
  readonly project: string | null;
  readonly strip: string | null;
  readonly error: string | null;
  readonly nothing: boolean;
}

function usePlace(): Place {
  const params = useSearchParams();
  const queries = useQueryClient();
  const tempo = useTempo();
  const [project, preset, version] = [params.get("project"), params.get("preset"), params.get("version")];
  const scratch = params.get("new") !== null;
  const wanted = project ? null : preset ? `${preset} ${version ?? "newest"}` : scratch ? "new" : null;
  const draft = useQuery({
    queryKey: ["draft", wanted],
    enabled: wanted !== null,
    retry: false,
    staleTime: 0,
    gcTime: 0,
    queryFn: async () => {
      const body = await api.openDraft({ preset, ...(version ? { version: Number(version) } : {}), tempo });
      queries.setQueryData(KEYS.project(body.project.id), body);
      return body.project.id;
    },
  });
  useEffect(() => {
    if (params.size > 0) rememberBench(`/bench?${params}`);
  }, [params]);
  useTakeProject(project);
  if (project) return { project, strip: params.get("strip"), error: null, nothing: false };
  return { project: draft.data ?? null, strip: "strip", error: draft.error?.message ?? null, nothing: wanted === null };
}

/** The preset and version that the thing on the bench is compared with. */
function referenceOf(inserts: Chain): From | null {
  if (inserts.from) return inserts.from;
  const [only, ...others] = processorsOf(inserts);
  return others.length === 0 ? (only?.from ?? null) : null;
}

export interface Bench {
  readonly place: Place;
  readonly editing: ProjectEditing;
  readonly strip: Strip | null;
  /** With the value that is being dragged. */
  readonly chain: Chain;
  readonly tempo: number;
  readonly isDraft: boolean;
  readonly selected: Processor | null;
  readonly select: (key: string | null) => void;
  readonly reference: From | null;
  readonly saved: { readonly chain: Chain; readonly content: Content } | null;
  readonly partners: ReadonlyMap<string, Processor>;
  readonly differences: readonly Difference[];
  /** While a control is dragged: heard and shown, not yet done. */
  readonly preview: (key: string, values: Turned) => void;
  readonly turn: (key: string, values: Turned) => void;
  readonly gesture: (label: string, make: (hand: gestures.Hand) => readonly Step[]) => Promise<boolean>;
}

export function useBench(): Bench {
  const place = usePlace();
  const editing = useProjectEditing(place.project);
  const strip = editing.body?.project.strips.find((s) => s.id === place.strip) ?? null;
  const isDraft = Boolean(editing.body?.draft);
  const tempo = useBenchTempo(editing);
  const [selectedKey, select] = useState<string | null>(null);
  const [turned, setTurned] = useState<{ key: string; values: Turned } | null>(null);
  const base = strip?.inserts ?? EMPTY_CHAIN;
  const chain = turned
    ? mapProcessor(base, turned.key, (p) => ({ ...p, values: { ...p.values, ...turned.values } }))
    : base;
  const reference = referenceOf(base);
  const saved = useSaved(reference);
  const partners = saved ? partnersOf(saved.chain, chain) : new Map<string, Processor>();
  const differences = saved ? differencesOf(saved.chain, chain) : [];
  useListeningToBench({
    base,
    saved,
    name: nameOf(strip, editing),
    savedName: reference ? `${reference.name}, version ${reference.version}` : "",
    tempo,
  });

  const gesture: Bench["gesture"] = (label, make) =>
    editing.commit(label, (project) => {
      const now = project.strips.find((s) => s.id === place.strip);
      return now ? make({ strip: now, mint: mintKey }) : [];
    });
  const preview: Bench["preview"] = (key, values) => {
    setTurned({ key, values });
    const live = mapProcessor(base, key, (p) => ({ ...p, values: { ...p.values, ...values } }));
    hear("a", { name: nameOf(strip, editing), chain: live, tempo }, true);
  };
  const turn: Bench["turn"] = (key, values) => {
    const processor = findProcessor(base, key);
    void gesture(processor ? labelOf(processor, values) : "Change a value", (hand) => gestures.turn(hand, key, values));
    setTurned(null);
  };
  return {
    place,
    editing,
    strip,
    chain,
    tempo,
    isDraft,
    selected: selectedOf(chain, selectedKey),
    select,
    reference,
    saved,
    partners,
    differences,
    preview,
    turn,
    gesture,
  };
}

/** The chosen processor; the first where none is, or where it is gone. */
function selectedOf(chain: Chain, key: string | null): Processor | null {
  const processors = processorsOf(chain);
  return processors.find((p) => p.key === key) ?? processors[0] ?? null;
}

/** A strip is heard at its project's tempo, a draft at that of the project in hand. */
function useBenchTempo({ body }: ProjectEditing): number {
  const hasProject = useHand((h) => h.project) !== null;
  const inHand = useTempo();
  return !body || (body.draft && hasProject) ? inHand : body.project.tempo;
}

const nameOf = (strip: Strip | null, { body }: ProjectEditing): string =>
  strip?.inserts.from?.name ?? strip?.look.name ?? body?.project.name ?? "";

/** "Parametric EQ, Band 2 gain −7.0 dB" */
function labelOf(processor: Processor, values: Turned): string {
  const model = getModel(processor.model);
  const words = Object.entries(values).map(([id, value]) => {
    const spec = getSpec(model, id);
    return `${spec.name} ${formatPlain(spec, value)}`;
  });
  return `${processorName(processor)}, ${words.slice(0, 2).join(", ")}`;
}

function useSaved(reference: From | null) {
  const query = useQuery({
    queryKey: KEYS.version(reference?.preset ?? "", reference?.version ?? 0),
    queryFn: () => api.getPreset(reference?.preset ?? "", reference?.version),
    enabled: reference !== null,
    retry: false,
  });
  const content = reference ? query.data?.preset.content : undefined;
  const { preset, version, name } = reference ?? {};
  return useMemo(() => {
    if (!content || preset === undefined || version === undefined || name === undefined) return null;
    return { content, chain: chainOf(withFrom(content, { preset, version, name })) };
  }, [content, preset, version, name]);
}

interface Heard {
  readonly base: Chain;
  readonly saved: { readonly chain: Chain } | null;
  readonly name: string;
  readonly savedName: string;
  readonly tempo: number;
}

/** A is what stands on the bench, B what it was saved as. */
function useListeningToBench({ base, saved, name, savedName, tempo }: Heard): void {
  useEffect(() => {
    hear("a", { name, chain: base, tempo });
  }, [base, name, tempo]);
  const savedChain = saved?.chain ?? null;
  useEffect(() => {
    if (savedChain) hear("b", { name: savedName, chain: savedChain, tempo });
  }, [savedChain, savedName, tempo]);
}
