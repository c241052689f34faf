"use client";

import equal from "fast-deep-equal";
import { useState } from "react";
import { type Chain, EMPTY_CHAIN, type Processor, processorName } from "@/core/chains/chain";
import { findProcessor, mapLane, mapProcessor } from "@/core/chains/tree";
import { getSpec } from "@/core/processors/model";
import { getModel } from "@/core/processors/models";
import * as gestures from "@/core/recall/gestures";
import type { Step } from "@/core/recall/steps";
import { type Strip, chainAt } from "@/core/strips/strip";
import { formatPlain } from "@/core/units/format";
import type { ParamId, Value } from "@/core/units/param-spec";
import { mintKey } from "../kit/mint";
import { useTempo } from "../library/use-tempo";
import { hear, hearBeside as hearBesideA } from "../listening/listening";
import { type How, type ProjectEditing, useProjectEditing } from "../projects/editing";
import { useInHand } from "../projects/in-hand";
import { type Choice, useChoice } from "./use-choice";
import { type Compared, useCompared } from "./use-compared";
import { soundOf, useHearing } from "./use-hearing";
import { type Place, usePlace } from "./use-place";

type Turned = Readonly<Record<ParamId, Value>>;

export interface Bench extends Choice, Compared {
  readonly place: Place;
  readonly editing: ProjectEditing;
  readonly strip: Strip | null;
  /** With what is being dragged. */
  readonly chain: Chain;
  readonly tempo: number;
  readonly isDraft: boolean;
  /** While a control is dragged: heard and shown, not yet done. */
  readonly previewChain: (change: (chain: Chain) => Chain) => void;
  readonly preview: (key: string, values: Turned) => void;
  readonly previewLane: (key: string, settings: gestures.LaneChange) => void;
  readonly turn: (key: string, values: Turned) => void;
  /** Puts another chain of this bench on B while it is considered; null ends that. */
  readonly hearBeside: (other: { readonly name: string; readonly chain: Chain } | null) => void;
  readonly gesture: (
    label: string,
    make: (hand: gestures.Hand) => readonly Step[],
    how?: How,
  ) => Promise<number | null>;
}

/** What stands on the bench, beside how it was saved, and what a hand does to it. */
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
  const compared = useCompared({ strip, layer: place.layer, base, chain });
  const { reference, saved } = compared;
  const savedName = reference ? `${reference.name}, version ${reference.version}` : "";
  useHearing({ base, saved, place, strip, name: nameOf(strip, editing), savedName, tempo });

  const gesture: Bench["gesture"] = (label, make, how) => {
    setDragged(null);
    return editing.commit(
      label,
      (project) => {
        const now = project.strips.find((s) => s.id === place.strip);
        return now ? make({ strip: now, mint: mintKey, ...(place.layer === null ? {} : { layer: place.layer }) }) : [];
      },
      how,
    );
  };
  const previewChain: Bench["previewChain"] = (change) => {
    const live = change(base);
    // A drag that was broken off leaves nothing behind that would hide what comes next.
    setDragged(equal(live, base) ? null : live);
    hear(soundOf(live, { name: nameOf(strip, editing), tempo, strip, place }), true);
  };
  const preview: Bench["preview"] = (key, values) =>
    previewChain((c) => mapProcessor(c, key, (p) => ({ ...p, values: { ...p.values, ...values } })));
  const hearBeside: Bench["hearBeside"] = (other) => {
    hearBesideA(other && soundOf(other.chain, { name: other.name, tempo, strip, place }));
  };
  const previewLane: Bench["previewLane"] = (key, settings) =>
    previewChain((c) => mapLane(c, key, (lane) => gestures.withLane(lane, settings)));
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

/** A strip is heard at its project's tempo, a draft at that of the project in act. */
function useBenchTempo({ body }: ProjectEditing): number {
  const hasProject = useInHand((h) => h.project) !== null;
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
