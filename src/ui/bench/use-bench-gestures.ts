"use client";

import { useQueryClient } from "@tanstack/react-query";
import { presetRef } from "@/core/presets/preset";
import { type Chain, nodeName, type Processor, type Split } from "@/core/chains/chain";
import { counted } from "@/core/names/count";
import { type Place, findNode, mapNode, nameApart, nodesIn } from "@/core/chains/tree";
import { clip, freshClipping, parseClipping, writeClipping } from "@/core/chains/clipping";
import type { Difference } from "@/core/chains/differences";
import type { PresetRow } from "@/contracts/records";
import { getModel } from "@/core/processors/models";
import * as gestures from "@/core/recall/gestures";
import type { Step } from "@/core/recall/steps";
import type { Result } from "@/core/result";
import { orSay, say, sayError } from "../kit/say";
import { takeVersion } from "../plan/take-version";
import { useStarts } from "../settings/starts";
import { mintKey } from "../kit/mint";
import { openSave } from "../save/save";
import type { Bench as BenchState } from "./use-bench";
import type { Choose } from "./use-choice";

export type BenchGestures = ReturnType<typeof useBenchGestures>;

/** What can be done on the bench, by hand or by key. */
export function useBenchGestures(bench: BenchState) {
  const { gesture, selected, chosen, chain, saved } = bench;
  const start = useStarts(bench.strip?.kind ?? null);
  const queries = useQueryClient();
  /** A version of what it came from, in its place. */
  const take = (version: number | null, label: string) => {
    const { place, strip, reference } = bench;
    if (reference && version !== null && place.project && strip && place.layer === null)
      orSay(
        takeVersion({
          queries,
          project: place.project,
          followers: [{ strip: strip.id, reference }],
          version,
          label,
        }),
      );
    else if (saved) void gesture(label, (hand) => gestures.replaceInserts(hand, saved.chain));
  };
  return {
    ...adding(bench, start),
    ...moving(bench),
    ...grouping(bench),
    ...splitting(bench),
    ...clipping(bench),
    rename: gestures.rename,
    putBack: (difference: Difference) =>
      void gesture("Put back", (hand) => gestures.putBackInStrip(hand, difference, saved?.chain ?? chain)),
    toggle: () => {
      const nodes = chosen.map((key) => findNode(chain, key)?.node).filter((n) => n !== undefined && "enabled" in n);
      const to = !nodes.some((n) => n && "enabled" in n && n.enabled);
      const what = nodes.length === 1 && nodes[0] ? nodeName(nodes[0]) : `${nodes.length} plugins`;
      if (nodes.length > 0)
        void gesture(`Switch ${to ? "on" : "off"} ${what}`, (hand) => gestures.switchOn(hand, chosen, to));
    },
    backToSaved: () => take(bench.reference?.version ?? null, "Back to saved"),
    takeNewest: () => take(saved?.newest ?? null, `Take version ${saved?.newest} of “${bench.reference?.name ?? ""}”`),
    step: (by: 1 | -1, how: Choose = "only") => {
      const order = nodesIn(chain.nodes).filter((n) => n.type !== "split");
      const next = order[order.findIndex((n) => n.key === selected?.key) + by];
      if (next) bench.select(next.key, how);
    },
    saveNode: (node: string) => openSaveOf(bench, node),
  };
}

function openSaveOf({ place, strip }: BenchState, node?: string): void {
  if (!place.project || !strip) return;
  openSave({
    project: place.project,
    strips: [strip.id],
    ...(place.layer === null ? {} : { layer: place.layer }),
    ...(node === undefined ? {} : { node }),
  });
}

/** Where what is added goes, unless a place is named. */
const nextPlace = ({ chain, selected }: BenchState): Place => gestures.placeBehind(chain, selected);

function adding(bench: BenchState, start: (model: string) => Promise<Processor>) {
  const { gesture, selected, chosen, chain } = bench;
  return {
    add: (modelId: string, place: Place = nextPlace(bench)) => {
      void start(modelId).then((node) => {
        void gesture(`Add ${getModel(modelId).name}`, (hand) => gestures.putInNear(hand, node, place));
        bench.select(node.key);
      });
    },
    /** A plugin goes behind what is selected, a chain into the selected section, else into the place of all. */
    put: (row: PresetRow) => {
      const { content } = row;
      const from = presetRef(row);
      void gesture(`Load ${from.name}`, (hand) => {
        if (content.kind === "plugin")
          return gestures.putInNear(hand, { ...content.processor, from, key: mintKey() }, nextPlace(bench));
        const slot: gestures.Slot =
          selected?.type === "section" && content.kind === "chain"
            ? { kind: "section", section: selected }
            : { kind: "chain" };
        return gestures.loadIntoSlot(hand, slot, content, from);
      });
    },
    takeOut: () => {
      if (chosen.length === 0) return;
      const what = wordsOf(chain, chosen);
      const lost = gestures.targetsLostWith(chain, chosen);
      void gesture(`Take out ${what}`, (hand) => gestures.takeOut(hand, ...chosen));
      if (lost > 0) say(`Took out ${what}. ${lost === 1 ? "A macro lost a value" : `Macros lost ${lost} values`}.`);
    },
    duplicate: () => {
      if (!selected) return;
      let copy: string | null = null;
      void gesture(`Duplicate ${nodeName(selected)}`, (hand) => {
        const made = gestures.duplicate(hand, selected.key);
        copy = made?.key ?? null;
        return made?.steps ?? [];
      });
      if (copy !== null) bench.select(copy);
    },
  };
}

function moving({ gesture, selected, chain }: BenchState) {
  const move = (label: string, make: (hand: gestures.Hand, key: string) => readonly Step[]) => {
    if (selected) void gesture(`${label} ${nodeName(selected)}`, (hand) => make(hand, selected.key));
  };
  return {
    moveBy: (by: 1 | -1) => move("Move", (hand, key) => gestures.move(hand, key, by)),
    moveAcross: (by: 1 | -1) => move("Move", (hand, key) => gestures.moveAcross(hand, key, by)),
    moveTo: (key: string, place: Place) => {
      const node = findNode(chain, key)?.node;
      if (!node) return;
      void gesture(`Move ${nodeName(node)}`, (hand) => {
        const steps = gestures.moveTo(hand, key, place);
        if (!steps.ok) sayError(sentence(steps.error));
        return steps.ok ? steps.value : [];
      });
    },
  };
}

/** A reason, as a sentence. */
const sentence = (reason: string): string => `${reason[0]?.toUpperCase() ?? ""}${reason.slice(1)}`;

const HALFWAY_HZ = 800;

function grouping(bench: BenchState) {
  const { gesture, chosen } = bench;
  const group = (label: string, make: (hand: gestures.Hand) => gestures.GroupResult) => {
    let made: string | null = null;
    void gesture(label, (hand) => {
      const result = make(hand);
      if (!result.ok) sayError(sentence(result.error));
      made = result.ok ? result.value.key : null;
      return result.ok ? result.value.steps : [];
    });
    if (made !== null) bench.select(made);
  };
  return {
    makeSection: () => group("Make a section", (hand) => gestures.sectionAround(hand, chosen, "Section")),
    makeLanes: () => group("Split into lanes", (hand) => gestures.splitAround(hand, chosen, { way: "copy" })),
    makeBands: () =>
      group("Split into bands", (hand) =>
        gestures.splitAround(hand, chosen, { way: "bands", crossovers: [HALFWAY_HZ] }),
      ),
    dissolve: (key: string) => void gesture("Put in a row", (hand) => gestures.dissolve(hand, key)),
    setLane: (key: string, settings: gestures.LaneChange) =>
      void gesture("Blend lanes", (hand) => (settings.name === "" ? [] : gestures.setLane(hand, key, settings))),
  };
}

function splitting({ gesture, previewChain }: BenchState) {
  const orSay = (label: string, make: (hand: gestures.Hand) => Result<readonly Step[], string>) =>
    void gesture(label, (hand) => {
      const steps = make(hand);
      if (!steps.ok) sayError(steps.error);
      return steps.ok ? steps.value : [];
    });
  return {
    splitBy: (split: Split, way: Split["by"]["way"]) =>
      orSay(way === "copy" ? "Lanes with the whole sound" : "Split by bands", (hand) =>
        gestures.splitBy(hand, split, way),
      ),
    previewCrossover: (split: Split, at: number, hz: number) =>
      previewChain((chain) =>
        mapNode(chain, split.key, (node) => (node.type === "split" ? gestures.withCrossover(node, at, hz) : node)),
      ),
    setCrossover: (split: Split, at: number, hz: number) =>
      void gesture("Move a crossover", (hand) => gestures.setCrossover(hand, split, at, hz)),
    addLane: (split: Split) => orSay("Add a lane", (hand) => gestures.addLane(hand, split)),
    removeLane: (split: Split, key: string) =>
      void gesture("Remove a lane", (hand) => gestures.removeLane(hand, split, key)),
  };
}

/** Copies and pastes by the system's clipboard, as text, so that it goes from window to window. */
function clipping(bench: BenchState) {
  const { gesture, chain, chosen } = bench;
  return {
    /** null where there is nothing to copy. */
    copied: (): string | null => {
      if (chosen.length === 0) return null;
      say(`Copied ${wordsOf(chain, chosen)}.`);
      return writeClipping(clip(chain, chosen));
    },
    /** False for text that is none of ours. */
    paste: (text: string): boolean => {
      const parsed = parseClipping(text);
      if (!parsed.ok) {
        if (parsed.error !== null) sayError(parsed.error);
        return parsed.error !== null;
      }
      const fresh = freshClipping(parsed.value, mintKey);
      const { nodes } = fresh;
      const [first] = nodes;
      void gesture(`Paste ${first && nodes.length === 1 ? nodeName(first) : `${nodes.length} plugins`}`, (hand) =>
        gestures.paste(hand, fresh, nextPlace(bench)),
      );
      if (first) bench.select(first.key);
      return true;
    },
  };
}

/** "VCA compressor 2", "3 plugins" */
const wordsOf = (chain: Chain, keys: readonly string[]): string =>
  keys.length === 1 ? nameApart(chain, keys[0] ?? "") : counted(keys.length, "plugin");
