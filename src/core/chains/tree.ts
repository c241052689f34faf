import type { PanLaw } from "../dsp/pan";
import { MOST_NODES } from "../documents/limits";
import {
  type Chain,
  type ChainNode,
  type PresetRef,
  type Lane,
  type Processor,
  type Section,
  nodeName,
  originsOf,
} from "./chain";

/*
 * A chain is a tree: sections hold nodes, splits hold lanes, lanes hold nodes. Everything here finds and changes nodes
 * by their key, whatever they are in. What does not change stays the same object.
 */

export type Nodes = readonly ChainNode[];

/** Where a node stands: in the section or lane of this key, at the top where it is null; behind which, first where null. */
export interface Place {
  readonly within: string | null;
  readonly after: string | null;
}

/** A split within a lane of another is as deep as it goes. */
const DEEPEST = 2;

// The schema knows which kind of node may stand in which list; a tree is changed without, and checked by `findMisplaced`.
const inSection = (nodes: Nodes): Section["nodes"] => nodes as Section["nodes"];
const inLane = (nodes: Nodes): Lane["nodes"] => nodes as Lane["nodes"];

/** The same list where nothing in it changed. */
function mapEach<T>(list: readonly T[], change: (item: T) => T): readonly T[] {
  const changed = list.map(change);
  return changed.every((item, at) => item === list[at]) ? list : changed;
}

type ChangeList = (nodes: Nodes, within: string | null) => Nodes;

function mapWithin(node: ChainNode, change: ChangeList): ChainNode {
  switch (node.type) {
    case "processor":
      return node;
    case "section": {
      const nodes = mapListsIn(node.nodes, node.key, change);
      return nodes === node.nodes ? node : { ...node, nodes: inSection(nodes) };
    }
    case "split": {
      const lanes = mapEach<Lane>(node.lanes, (lane) => {
        const nodes = mapListsIn(lane.nodes, lane.key, change);
        return nodes === lane.nodes ? lane : { ...lane, nodes: inLane(nodes) };
      });
      return lanes === node.lanes ? node : { ...node, lanes: [...lanes] };
    }
  }
}

function mapListsIn(nodes: Nodes, within: string | null, change: ChangeList): Nodes {
  return change(
    mapEach(nodes, (node) => mapWithin(node, change)),
    within,
  );
}

/** Changes every list of nodes of a chain, the innermost first. */
export function mapLists(chain: Chain, change: ChangeList): Chain {
  const nodes = mapListsIn(chain.nodes, null, change);
  return nodes === chain.nodes ? chain : { ...chain, nodes: [...nodes] };
}

/** The chain with one of its nodes replaced; the same chain where none has that key. */
export const mapNode = (chain: Chain, key: string, change: (node: ChainNode) => ChainNode): Chain =>
  mapLists(chain, (nodes) => mapEach(nodes, (node) => (node.key === key ? change(node) : node)));

export const mapProcessors = (chain: Chain, change: (processor: Processor) => Processor): Chain =>
  mapLists(chain, (nodes) => mapEach(nodes, (node) => (node.type === "processor" ? change(node) : node)));

export const mapLane = (chain: Chain, key: string, change: (lane: Lane) => Lane): Chain =>
  mapLists(chain, (nodes) =>
    mapEach(nodes, (node) => {
      if (node.type !== "split") return node;
      const lanes = mapEach<Lane>(node.lanes, (lane) => (lane.key === key ? change(lane) : lane));
      return lanes === node.lanes ? node : { ...node, lanes: [...lanes] };
    }),
  );

/** The lists right inside a node, by the key of what holds them. */
export const listsIn = (node: ChainNode): readonly { readonly key: string; readonly nodes: Nodes }[] => {
  switch (node.type) {
    case "processor":
      return [];
    case "section":
      return [node];
    case "split":
      return node.lanes;
  }
};

/** Every node of a list, each before what it holds. */
export const nodesIn = (nodes: Nodes): readonly ChainNode[] =>
  nodes.flatMap((node) => [node, ...listsIn(node).flatMap((list) => nodesIn(list.nodes))]);

/** A node or lane by name, with its number along the signal where others are called the same: "VCA compressor 2". */
export function nameApart(chain: Chain, key: string): string {
  const node = findNode(chain, key)?.node;
  if (!node) return findLane(chain, key)?.name ?? "";
  const name = nodeName(node);
  const alike = nodesIn(chain.nodes).filter((other) => nodeName(other) === name);
  return alike.length > 1 ? `${name} ${alike.findIndex((other) => other.key === key) + 1}` : name;
}

/** Presets that something in a chain was loaded from, whatever it stands in. */
export const fromsIn = (nodes: Nodes): readonly PresetRef[] =>
  nodesIn(nodes).flatMap((node) => (node.type === "split" || !node.from ? [] : originsOf(node.from)));

/** As `fromsIn`, with the preset that the chain itself is. */
export const fromsOf = ({ from, nodes }: Chain): readonly PresetRef[] => [
  ...(from ? originsOf(from) : []),
  ...fromsIn(nodes),
];

/** Whether there is more in a list than a chain may hold, wherever in it. */
export const isTooLong = (nodes: Nodes): boolean => nodesIn(nodes).length > MOST_NODES;

export interface Found {
  readonly node: ChainNode;
  readonly place: Place;
}

function findIn(nodes: Nodes, within: string | null, key: string): Found | null {
  for (const [at, node] of nodes.entries()) {
    if (node.key === key) return { node, place: { within, after: nodes[at - 1]?.key ?? null } };
    for (const list of listsIn(node)) {
      const found = findIn(list.nodes, list.key, key);
      if (found) return found;
    }
  }
  return null;
}

export const findNode = (chain: Chain, key: string): Found | null => findIn(chain.nodes, null, key);

export const lanesOf = (chain: Chain): readonly Lane[] =>
  nodesIn(chain.nodes).flatMap((node) => (node.type === "split" ? node.lanes : []));

/** What of a lane is set, beside what stands in it. */
export type LaneSettings = Omit<Lane, "key" | "nodes">;

export const laneSettings = ({ key: _, nodes: __, ...settings }: Lane): LaneSettings => settings;

export const panLawOf = ({ panLaw }: Pick<Lane, "panLaw">): PanLaw => panLaw ?? "balance";

/** Settings by a law: one that does not say is balanced. */
export const withPanLaw = <S extends Pick<Lane, "panLaw">>({ panLaw: _, ...others }: S, law: PanLaw) => ({
  ...others,
  ...(law === "pan" ? { panLaw: law } : {}),
});

export const findLane = (chain: Chain, key: string): Lane | null => lanesOf(chain).find((l) => l.key === key) ?? null;

/** The list of a section, of a lane, or of the top; null where there is none of that key. */
export function findList(chain: Chain, within: string | null): Nodes | null {
  if (within === null) return chain.nodes;
  const lists = nodesIn(chain.nodes).flatMap(listsIn);
  return lists.find((list) => list.key === within)?.nodes ?? null;
}

/** Keys of a node, of all that it holds, and of its lanes. */
export const keysIn = (node: ChainNode): readonly string[] => [
  node.key,
  ...listsIn(node).flatMap((list) => [
    ...(list.key === node.key ? [] : [list.key]),
    ...list.nodes.flatMap((inner) => keysIn(inner)),
  ]),
];

/** How many splits stand inside of each other in a node. */
const heightOf = (node: ChainNode): number =>
  Math.max(0, ...listsIn(node).flatMap((list) => list.nodes.map(heightOf))) + (node.type === "split" ? 1 : 0);

/** In how many lanes a list stands; null where there is no such list. */
function depthOf(chain: Chain, within: string | null): number | null {
  const search = (nodes: Nodes, depth: number): number | null => {
    for (const node of nodes)
      for (const list of listsIn(node)) {
        const inner = depth + (node.type === "split" ? 1 : 0);
        const found = list.key === within ? inner : search(list.nodes, inner);
        if (found !== null) return found;
      }
    return null;
  };
  return within === null ? 0 : search(chain.nodes, 0);
}

/** Why a node may not stand in a list, as a sentence; null where it may. */
export function findMisplaced(chain: Chain, node: ChainNode, within: string | null): string | null {
  const depth = depthOf(chain, within);
  if (depth === null) return `there is no section or lane “${within}”.`;
  const holdsSections = listsIn(node).some((list) => nodesIn(list.nodes).some(({ type }) => type === "section"));
  if (holdsSections || (node.type === "section" && within !== null))
    return "a section stands at the top of a chain, not in another part.";
  if (depth + heightOf(node) > DEEPEST) return "lanes nest once; this would be a third time.";
  return null;
}

/** A copy under new keys, and which key became which. */
export function rekeyed(node: ChainNode, mint: () => string): { node: ChainNode; keys: ReadonlyMap<string, string> } {
  const keys = new Map(keysIn(node).map((key) => [key, mint()]));
  const renamed = (key: string): string => keys.get(key) ?? key;
  const copy = (n: ChainNode): ChainNode => {
    switch (n.type) {
      case "processor":
        return { ...n, key: renamed(n.key) };
      case "section":
        return { ...n, key: renamed(n.key), nodes: inSection(n.nodes.map(copy)) };
      case "split":
        return {
          ...n,
          key: renamed(n.key),
          lanes: n.lanes.map(
            (lane): Lane => ({ ...lane, key: renamed(lane.key), nodes: inLane(lane.nodes.map(copy)) }),
          ),
        };
    }
  };
  return { node: copy(node), keys };
}

/** Without a node: its list, and what stood before it. */
export const withoutNode = (chain: Chain, key: string): Chain =>
  mapLists(chain, (nodes) => (nodes.some((n) => n.key === key) ? nodes.filter((n) => n.key !== key) : nodes));

/** With a node put behind another. The place must be there: see `findMisplaced` and `findList`. */
export const withNode = (chain: Chain, node: ChainNode, { within, after }: Place): Chain =>
  mapLists(chain, (nodes, list) => {
    if (list !== within) return nodes;
    const at = after === null ? 0 : nodes.findIndex((n) => n.key === after) + 1;
    return [...nodes.slice(0, at), node, ...nodes.slice(at)];
  });

/** The processors in the order in which the sound meets them; lanes one after the other. */
export const processorsOf = (chain: Chain): readonly Processor[] =>
  nodesIn(chain.nodes).filter((node) => node.type === "processor");

export const findProcessor = (chain: Chain, key: string): Processor | null =>
  processorsOf(chain).find((p) => p.key === key) ?? null;

/** The chain with one of its processors replaced; the same chain where no processor has that key. */
export const mapProcessor = (chain: Chain, key: string, change: (processor: Processor) => Processor): Chain =>
  mapNode(chain, key, (node) => (node.type === "processor" ? change(node) : node));
