"use client";

import { useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import equal from "fast-deep-equal";
import { useSearchParams } from "next/navigation";
import { useEffect, useEffectEvent, useMemo, useState } from "react";
import * as api from "@/clients/api";
import { KEYS } from "@/clients/events";
import { type Chain, type ChainNode, EMPTY_CHAIN, type From, type Processor, processorName } from "@/core/chains/chain";
import { findProcessor, mapProcessor, processorsOf, findNode, mapLane, nodesIn } from "@/core/chains/tree";
import { type Difference, asInPluginPresets, differencesOf, partnersOf } from "@/core/chains/differences";
import { getSpec } from "@/core/processors/model";
import { findModel, getModel } from "@/core/processors/models";
import type { ParamId, Value } from "@/core/units/param-spec";
import { type Content, chainOf, withFrom } from "@/core/presets/preset";
import * as gestures from "@/core/recall/gestures";
import type { Step } from "@/core/recall/steps";
import { type Strip, chainAt } from "@/core/strips/strip";
import { formatPlain } from "@/core/units/format";
import { rememberBench, useHand, useTakeProject } from "../projects/in-hand";
import { type Sound, hear, setDifference, setSolo } from "../listening/listening";
import { soundAt } from "../listening/strip-sound";
import { type ProjectEditing, useProjectEditing } from "../projects/editing";
import { mintKey } from "../kit/mint";
import { useTempo } from "../library/use-tempo";

type Turned = Readonly<Record<ParamId, Value>>;

/** What the bench was opened from, by its address: a strip, a preset, or nothing yet. */
interface Place {
  readonly project: string | null;
  readonly strip: string | null;
  /** The layer of the strip's instrument whose effects are on the bench. */
  readonly layer: string | null;
  readonly error: string | null;
  readonly nothing: boolean;
}

function usePlace(): Place {
  const params = useSearchParams();
  const queries = useQueryClient();
  const tempo = useTempo();
  const [project, preset, version] = [params.get("project"), params.get("preset"), params.get("version")];
  const scratch = params.get("new");
  const wanted = project
    ? null
    : preset
      ? `${preset} ${version ?? "newest"}`
      : scratch === null
        ? null
        : `new ${scratch}`;
  const draft = useQuery({
    queryKey: ["draft", wanted],
    enabled: wanted !== null,
    retry: false,
    staleTime: 0,
    gcTime: 0,
    queryFn: async () => {
      const instrument = preset === null && findModel(scratch ?? "") ? { instrument: scratch ?? "" } : {};
      const body = await api.openDraft({
        preset,
        ...(version ? { version: Number(version) } : {}),
        ...instrument,
        tempo,
      });
      queries.setQueryData(KEYS.project(body.project.id), body);
      return body.project.id;
    },
  });
  useEffect(() => {
    if (params.size > 0) rememberBench(`/bench?${params}`);
  }, [params]);
  useTakeProject(project);
  const layer = params.get("layer");
  if (project) return { project, strip: params.get("strip"), layer, error: null, nothing: false };
  return {
    project: draft.data ?? null,
    strip: "strip",
    layer,
    error: draft.error?.message ?? null,
    nothing: wanted === null,
  };
}

/** The preset and version that the thing on the bench is compared with. */
function referenceOf(inserts: Chain): From | null {
  if (inserts.from) return inserts.from;
  const [only, ...others] = processorsOf(inserts);
  return others.length === 0 ? (only?.from ?? null) : null;
}

export type Choose = "only" | "also" | "upTo";

interface Saved {
  readonly chain: Chain;
  /** Of the preset that holds all of it; null where each plugin has its own. */
  readonly content: Content | null;
}

export interface Bench {
  readonly place: Place;
  readonly editing: ProjectEditing;
  readonly strip: Strip | null;
  /** With what is being dragged. */
  readonly chain: Chain;
  readonly tempo: number;
  readonly isDraft: boolean;
  /** The node whose editor is open. */
  readonly selected: ChainNode | null;
  /** What the next action is for, in the order of the chain. */
  readonly chosen: readonly string[];
  readonly select: (key: string | null, how?: Choose) => void;
  readonly reference: From | null;
  /** As it was saved: as a whole, or, where it never was, each plugin as its own preset has it. */
  readonly saved: Saved | null;
  readonly partners: ReadonlyMap<string, Processor>;
  readonly differences: readonly Difference[];
  /** While a control is dragged: heard and shown, not yet done. */
  readonly previewChain: (change: (chain: Chain) => Chain) => void;
  readonly preview: (key: string, values: Turned) => void;
  readonly previewLane: (key: string, settings: Partial<gestures.LaneSettings>) => void;
  readonly turn: (key: string, values: Turned) => void;
  /** Puts another chain of this bench on B; null puts back what was saved. */
  readonly hearBeside: (other: { readonly name: string; readonly chain: Chain } | null) => void;
  readonly gesture: (label: string, make: (hand: gestures.Hand) => readonly Step[]) => Promise<boolean>;
}

export function useBench(): Bench {
  const place = usePlace();
  const editing = useProjectEditing(place.project);
  const strip = editing.body?.project.strips.find((s) => s.id === place.strip) ?? null;
  const isDraft = Boolean(editing.body?.draft);
  const tempo = useBenchTempo(editing);
  const [dragged, setDragged] = useState<Chain | null>(null);
  const base = (strip && chainAt(strip, place.layer ?? undefined)) ?? EMPTY_CHAIN;
  const chain = dragged ?? base;
  const choice = useChoice(chain);
  const compared = useCompared(base, chain);
  const { reference, saved } = compared;
  const savedName = reference ? `${reference.name}, version ${reference.version}` : "";
  useListeningToBench({ base, saved, place, strip, name: nameOf(strip, editing), savedName, tempo });

  const gesture: Bench["gesture"] = (label, make) => {
    setDragged(null);
    return editing.commit(label, (project) => {
      const now = project.strips.find((s) => s.id === place.strip);
      return now ? make({ strip: now, mint: mintKey, ...(place.layer === null ? {} : { layer: place.layer }) }) : [];
    });
  };
  const previewChain: Bench["previewChain"] = (change) => {
    const live = change(base);
    // A drag that was broken off leaves nothing behind that would hide what comes next.
    setDragged(equal(live, base) ? null : live);
    hear("a", soundOf(live, { name: nameOf(strip, editing), tempo, strip, place }), true);
  };
  const preview: Bench["preview"] = (key, values) =>
    previewChain((c) => mapProcessor(c, key, (p) => ({ ...p, values: { ...p.values, ...values } })));
  const hearBeside: Bench["hearBeside"] = (other) => {
    const beside = other ?? (saved && { name: savedName, chain: saved.chain });
    hear("b", beside && soundOf(beside.chain, { name: beside.name, tempo, strip, place }));
  };
  const previewLane: Bench["previewLane"] = (key, settings) =>
    previewChain((c) => mapLane(c, key, (lane) => ({ ...lane, ...settings })));
  const turn: Bench["turn"] = (key, values) => {
    const processor = findProcessor(base, key);
    void gesture(processor ? labelOf(processor, values) : "Change a value", (hand) => gestures.turn(hand, key, values));
  };
  return {
    place,
    editing,
    strip,
    chain,
    tempo,
    isDraft,
    ...choice,
    ...compared,
    previewChain,
    preview,
    previewLane,
    turn,
    hearBeside,
    gesture,
  };
}

/** The chain beside the preset that it came from. */
function useCompared(base: Chain, chain: Chain): Pick<Bench, "reference" | "saved" | "partners" | "differences"> {
  const reference = referenceOf(base);
  const whole = useSaved(reference);
  const parts = useSavedPlugins(reference ? EMPTY_CHAIN : base);
  const saved = whole ?? parts;
  return {
    reference,
    saved,
    partners: saved ? partnersOf(saved.chain, chain) : new Map<string, Processor>(),
    differences: saved ? differencesOf(saved.chain, chain) : [],
  };
}

/** All from one to the other, both among them. */
function between(order: readonly string[], a: string, b: string): readonly string[] {
  const [from = 0, to = 0] = [order.indexOf(a), order.indexOf(b)].toSorted((x, y) => x - y);
  return order.slice(from, to + 1);
}

/** The open node, the first plugin where none is or where it is gone, and what else is chosen beside it. */
function useChoice(chain: Chain): Pick<Bench, "selected" | "chosen" | "select"> {
  const [selectedKey, setSelected] = useState<string | null>(null);
  const [others, setOthers] = useState<readonly string[]>([]);
  const order = nodesIn(chain.nodes).map((node) => node.key);
  const selected = (selectedKey === null ? null : findNode(chain, selectedKey)?.node) ?? processorsOf(chain)[0] ?? null;
  const chosen = order.filter((key) => key === selected?.key || others.includes(key));
  const leave = (key: string) => {
    const rest = chosen.filter((k) => k !== key);
    setOthers(rest);
    if (selected?.key === key) setSelected(rest[0] ?? null);
  };
  const select: Bench["select"] = (key, how = "only") => {
    if (key !== null && how === "also" && chosen.includes(key) && chosen.length > 1) return leave(key);
    const upTo = how === "upTo" && selected && key ? between(order, selected.key, key) : [];
    setOthers(how === "also" ? chosen : upTo);
    setSelected(key);
  };
  return { selected, chosen, select };
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

function useSaved(reference: From | null): Saved | null {
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

const processorOf = (content: Content): Processor | null => {
  const [only, ...others] = processorsOf(chainOf(content));
  return only && others.length === 0 ? only : null;
};

/** Null where no plugin came from a preset, and until they have come. */
function useSavedPlugins(chain: Chain): Saved | null {
  const origins = processorsOf(chain).flatMap((p) => p.from ?? []);
  const found = useQueries({
    queries: origins.map(({ preset, version }) => ({
      queryKey: KEYS.version(preset, version),
      queryFn: () => api.getPreset(preset, version),
      retry: false,
    })),
    combine: (answers) => answers.map(({ data }) => data?.preset.content ?? null),
  });
  return useMemo(() => {
    if (found.every((content) => content === null)) return null;
    const names = origins.map(nameOfVersion);
    const find = (from: From) => {
      const content = found[names.indexOf(nameOfVersion(from))];
      return content ? processorOf(content) : null;
    };
    return { content: null, chain: asInPluginPresets(chain, find) };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the origins stand in the chain
  }, [chain, found]);
}

const nameOfVersion = ({ preset, version }: From): string => `${preset} ${version}`;

interface Around {
  readonly name: string;
  readonly tempo: number;
  readonly strip: Strip | null;
  readonly place: Place;
}

const soundOf = (chain: Chain, { place: { layer }, ...around }: Around): Sound => soundAt(chain, { ...around, layer });

interface Heard extends Around {
  readonly base: Chain;
  readonly saved: { readonly chain: Chain } | null;
  readonly savedName: string;
}

/** A is what stands on the bench, B what it was saved as. */
function useListeningToBench({ base, saved, savedName, ...around }: Heard): void {
  const { name, tempo, strip, place } = around;
  const { layer } = place;
  const source = strip?.source;
  const put = useEffectEvent((side: "a" | "b", chain: Chain, called: string) =>
    hear(side, soundOf(chain, { ...around, name: called })),
  );
  useEffect(() => {
    put("a", base, name);
  }, [base, name, tempo, source, layer]);
  const savedChain = saved?.chain ?? null;
  useEffect(() => {
    if (savedChain) put("b", savedChain, savedName);
  }, [savedChain, savedName, tempo, source, layer]);
  // What was heard alone belonged to this bench.
  useEffect(
    () => () => {
      setSolo(null);
      setDifference(null);
    },
    [],
  );
}
