"use client";

import { type Chain, type Lane, nodeName, type Processor, type Split } from "@/core/chains/chain";
import { processorsOf, type Place, findList, findNode, mapNode, nodesIn } from "@/core/chains/tree";
import { clip, freshClipping, parseClipping, writeClipping } from "@/core/chains/clipping";
import type { Difference } from "@/core/chains/differences";
import type { PresetRow } from "@/contracts/records";
import { chainOf, withFrom } from "@/core/presets/preset";
import { getModel } from "@/core/processors/models";
import * as gestures from "@/core/recall/gestures";
import type { Step } from "@/core/recall/steps";
import { say, sayError } from "../kit/say";
import { useStarts } from "../settings/starts";
import { mintKey } from "../kit/mint";
import { openSave } from "../save/save";
import { stepsToLoad } from "./load-slot";
import type { Bench as BenchState } from "./use-bench";

export type BenchHands = ReturnType<typeof useBenchGestures>;

/** What can be done on the bench, by hand or by key. */
export function useBenchGestures(bench: BenchState) {
  const { gesture, selected, chosen, chain, saved } = bench;
  const start = useStarts(bench.strip?.kind ?? null);
  return {
    ...adding(bench, start),
    ...moving(bench),
    ...grouping(bench),
    ...splitting(bench),
    ...clipping(bench),
    callIt: gestures.callIt,
    putBack: (difference: Difference) =>
      void gesture("Put back", (hand) =>
        stepsToPutBack(hand, difference, { saved: saved?.chain ?? chain, now: chain }),
      ),
    toggle: () => {
      const things = chosen.map((key) => findNode(chain, key)?.node).filter((n) => n !== undefined && "enabled" in n);
      const to = !things.some((n) => n && "enabled" in n && n.enabled);
      const what = things.length === 1 && things[0] ? nodeName(things[0]) : `${things.length} plugins`;
      if (things.length > 0)
        void gesture(`Switch ${to ? "on" : "off"} ${what}`, (hand) => gestures.switchOn(hand, chosen, to));
    },
    backToSaved: () => saved && void gesture("Back to saved", (hand) => gestures.replaceInserts(hand, saved.chain)),
    step: (by: 1 | -1) => {
      const order = nodesIn(chain.nodes).filter((n) => n.type !== "split");
      const next = order[order.findIndex((n) => n.key === selected?.key) + by];
      if (next) bench.select(next.key);
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

/** Behind what is selected; into a selected section or lane's split it goes last. */
function nextPlace({ chain, selected }: BenchState): Place {
  if (!selected) return { within: null, after: chain.nodes.at(-1)?.key ?? null };
  if (selected.type === "section") return { within: selected.key, after: selected.nodes.at(-1)?.key ?? null };
  const place = findNode(chain, selected.key)?.place;
  return { within: place?.within ?? null, after: selected.key };
}

function adding(bench: BenchState, start: (model: string) => Promise<Processor>) {
  const { gesture, selected, chain } = bench;
  return {
    add: (modelId: string, place: Place = nextPlace(bench)) => {
      void start(modelId).then((node) => {
        void gesture(`Add ${getModel(modelId).name}`, (hand) => gestures.putIn(hand, node, place));
        bench.select(node.key);
      });
    },
    /** A plugin goes behind what is selected, a chain into the selected section, else into the place of all. */
    put: (row: PresetRow) => {
      const { id, version, card, content } = row;
      if (selected?.type === "section" && content.kind === "chain")
        return void gesture(`Load ${card.name}`, (hand) =>
          stepsToLoad(hand, { kind: "section", section: selected }, row, chain),
        );
      const from = { preset: id, version, name: card.name };
      const loaded = chainOf(withFrom(content, from));
      const [plugin] = processorsOf(loaded);
      void gesture(`Load ${card.name}`, (hand) =>
        content.kind === "plugin" && plugin
          ? gestures.putIn(hand, { ...plugin, key: mintKey() }, nextPlace(bench))
          : gestures.replaceInserts(hand, loaded),
      );
    },
    takeOut: () => {
      if (!selected) return;
      const lost = gestures.targetsLostWith(chain, selected.key);
      void gesture(`Take out ${nodeName(selected)}`, (hand) => gestures.takeOut(hand, selected.key));
      if (lost > 0) say(`Took out ${nodeName(selected)}. ${lost === 1 ? "A macro" : `${lost} macro targets`} lost it.`);
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
    setLane: (key: string, settings: Partial<gestures.LaneSettings>) =>
      void gesture("Blend lanes", (hand) => (settings.name === "" ? [] : gestures.setLane(hand, key, settings))),
  };
}

/** One crossover moved, as far as its neighbours let it. */
function withCrossover(split: Split, at: number, hz: number): Split {
  const { by } = split;
  if (by.way !== "bands") return split;
  const low = (by.crossovers[at - 1] ?? 19) + 1;
  const high = (by.crossovers[at + 1] ?? 20_001) - 1;
  const crossovers = by.crossovers.map((c, n) => (n === at ? Math.min(high, Math.max(low, hz)) : c));
  return { ...split, by: { way: "bands", crossovers } };
}

function splitting({ gesture, previewChain }: BenchState) {
  const setSplit = (label: string, split: Split, to: Partial<Pick<Split, "by" | "lanes">>) =>
    void gesture(label, (hand) => gestures.replaceNode(hand, { ...split, ...to }));
  const newLane = (name: string): Lane => ({ key: mintKey(), name, enabled: true, level: 0, pan: 0, nodes: [] });
  return {
    splitBy: (split: Split, way: Split["by"]["way"]) => {
      if (way === split.by.way) return;
      if (way === "copy") return setSplit("Lanes with the whole sound", split, { by: { way } });
      if (split.lanes.length > 6 || split.lanes.length < 2)
        return void sayError("Bands go from two to six; add or remove lanes first.");
      setSplit("Split by bands", split, { by: { way, crossovers: evenCrossovers(split.lanes.length) } });
    },
    previewCrossover: (split: Split, at: number, hz: number) =>
      previewChain((chain) =>
        mapNode(chain, split.key, (node) => (node.type === "split" ? withCrossover(node, at, hz) : node)),
      ),
    setCrossover: (split: Split, at: number, hz: number) =>
      setSplit("Move a crossover", split, { by: withCrossover(split, at, hz).by }),
    addLane: (split: Split) => {
      const lanes = [
        ...split.lanes,
        newLane(`${split.by.way === "bands" ? "Band" : "Lane"} ${split.lanes.length + 1}`),
      ];
      if (split.by.way === "bands" && lanes.length > 6) return void sayError("Six bands are the most.");
      const by: Split["by"] =
        split.by.way === "bands" ? { way: "bands", crossovers: evenCrossovers(lanes.length) } : split.by;
      setSplit("Add a lane", split, { lanes, by });
    },
    removeLane: (split: Split, key: string) => {
      const at = split.lanes.findIndex((l) => l.key === key);
      const lanes = split.lanes.filter((l) => l.key !== key);
      if (lanes.length === 0) return;
      const by: Split["by"] =
        split.by.way === "bands" && lanes.length > 1
          ? { way: "bands", crossovers: split.by.crossovers.filter((_, n) => n !== Math.max(0, at - 1)) }
          : { way: "copy" };
      void gesture("Remove a lane", (hand) => gestures.replaceSplit(hand, { ...split, lanes, by }));
    },
  };
}

/** Bands as wide as each other, by ear. */
const evenCrossovers = (bands: number): number[] =>
  Array.from({ length: bands - 1 }, (_, n) => Math.round(60 * (12_000 / 60) ** ((n + 1) / bands)));

/** Copies and pastes by the system's clipboard, as text, so that it goes from window to window. */
function clipping(bench: BenchState) {
  const { gesture, chain, chosen } = bench;
  return {
    /** null where there is nothing to copy. */
    copied: (): string | null => {
      if (chosen.length === 0) return null;
      const words = chosen.length === 1 ? nameOfKey(chain, chosen[0] ?? "") : `${chosen.length} plugins`;
      say(`Copied ${words}.`);
      return writeClipping(clip(chain, chosen));
    },
    /** False for text that is none of ours. */
    paste: (text: string): boolean => {
      const parsed = parseClipping(text);
      if (!parsed.ok) {
        if (parsed.error !== null) sayError(parsed.error);
        return parsed.error !== null;
      }
      const { nodes, macros } = freshClipping(parsed.value, mintKey);
      const place = nextPlace(bench);
      const [first] = nodes;
      void gesture(`Paste ${first && nodes.length === 1 ? nodeName(first) : `${nodes.length} plugins`}`, (hand) => {
        let { after } = place;
        const steps = nodes.flatMap((node) => {
          const step = gestures.putIn(hand, node, { within: place.within, after });
          after = node.key;
          return step;
        });
        return [...steps, ...(macros.length > 0 ? gestures.setMacros(hand, [...chain.macros, ...macros]) : [])];
      });
      if (first) bench.select(first.key);
      return true;
    },
  };
}

function nameOfKey(chain: Chain, key: string): string {
  const node = findNode(chain, key)?.node;
  return node ? nodeName(node) : "";
}

interface Chains {
  readonly saved: Chain;
  readonly now: Chain;
}

/** Where it was saved, behind the nearest of those before it there that is still here; last where its group is gone. */
function savedPlace({ saved, now }: Chains, key: string): Place {
  const place = findNode(saved, key)?.place ?? { within: null, after: null };
  const within = findList(now, place.within) ? place.within : null;
  const here = new Set((findList(now, within) ?? []).map((n) => n.key));
  const siblings = (findList(saved, place.within) ?? []).map((n) => n.key);
  const before = siblings.slice(0, siblings.indexOf(key)).toReversed();
  return { within, after: before.find((k) => here.has(k)) ?? null };
}

/** The steps that take one difference back. */
function stepsToPutBack(hand: gestures.Hand, difference: Difference, chains: Chains): readonly Step[] {
  switch (difference.kind) {
    case "value":
      return gestures.turn(hand, difference.processor, { [difference.param]: difference.from });
    case "enabled":
      return gestures.switchOn(hand, [difference.processor], difference.from);
    case "section":
      return gestures.switchOn(hand, [difference.section], difference.from);
    case "lane":
      return gestures.setLane(hand, difference.lane, { [difference.setting]: difference.from });
    case "added":
      return gestures.takeOut(hand, difference.processor.key);
    case "removed":
      return gestures.putIn(hand, difference.processor, savedPlace(chains, difference.processor.key));
    case "macros":
      return gestures.setMacros(hand, chains.saved.macros);
    case "order":
      return [];
  }
}
