import type { ProjectBody } from "@/contracts/projects";
import { type Chain, type ChainNode, EMPTY_CHAIN, type PresetRef, nodeName, originsOf } from "@/core/chains/chain";
import { clip } from "@/core/chains/clipping";
import { findNode } from "@/core/chains/tree";
import type { Content, Origin } from "@/core/presets/preset";
import { aloneIn, saveChain, savePlugin, saveStrip } from "@/core/presets/save";
import * as gestures from "@/core/recall/gestures";
import { type Strip, chainAt } from "@/core/strips/strip";
import type { PartName } from "@/core/strips/parts";
import { layersOf } from "@/core/strips/parts/source";
import { plainDate } from "../kit/dates";
import { mintKey } from "../kit/mint";
import type { SaveRequest } from "./save";

/** A thing to be saved: a strip, or what the request means of it. */
export interface Subject {
  readonly request: SaveRequest;
  readonly body: ProjectBody;
  readonly strip: Strip;
}

/** The chain that the request is about. */
export const chainOfRequest = ({ request, strip }: Subject): Chain => chainAt(strip, request.layer) ?? EMPTY_CHAIN;

export const nodeOf = (props: Subject): ChainNode | null =>
  props.request.node === undefined ? null : (findNode(chainOfRequest(props), props.request.node)?.node ?? null);

/** A plugin or a section by itself. A section is a chain, with the macros that move something in it. */
function contentOfNode(chain: Chain, node: ChainNode): Content | null {
  if (node.type === "processor") return savePlugin(node);
  const nodes: readonly ChainNode[] = node.type === "section" ? node.nodes : [node];
  const { macros } = clip(
    { ...chain, nodes: [...nodes] },
    nodes.map((n) => n.key),
  );
  return saveChain({ nodes: [...nodes], macros: [...macros] });
}

/** What is being kept, by the switches that are on. */
export function contentOf(props: Subject, parts: readonly PartName[]): Content | null {
  const { request, body } = props;
  const strip = aloneIn(body.project, props.strip);
  const alone = { ...props, strip };
  const chain = chainOfRequest(alone);
  if (request.node !== undefined) {
    const node = nodeOf(alone);
    return node && contentOfNode(chain, node);
  }
  if (request.instrument) {
    const layer = layersOf(strip).find((l) => l.key === request.layer);
    return layer ? contentOfNode(chain, layer.instrument) : null;
  }
  if (request.layer !== undefined || (parts.length === 1 && parts[0] === "inserts")) return saveChain(chain);
  const { from: _, ...inserts } = props.strip.inserts;
  return parts.length === 0 ? null : saveStrip(body.project, { ...props.strip, inserts }, parts);
}

/** Which preset the thing in hand was loaded from. */
export function presetRef(props: Subject): PresetRef | undefined {
  const { request, strip } = props;
  if (request.instrument) return layersOf(strip).find((l) => l.key === request.layer)?.instrument.from;
  const node = nodeOf(props);
  if (request.node === undefined) return chainOfRequest(props).from;
  return node && node.type !== "split" ? node.from : undefined;
}

export function originOf(props: Subject): Origin {
  const {
    body: { project, draft },
    strip,
  } = props;
  const date = plainDate(new Date());
  const loaded = presetRef(props);
  const [from] = loaded ? originsOf(loaded) : [];
  const own = { date, ...(from ? { from } : {}) };
  if (draft) return own;
  const words = {
    artist: project.artist,
    client: project.client,
    song: project.song,
    project: project.name,
    strip: strip.look.name,
  };
  return { ...Object.fromEntries(Object.entries(words).filter(([, word]) => word !== "")), ...own };
}

/** A name where no pattern gives one: for what is of no strip. */
export function proposeName(subject: Subject): string {
  const { body, strip } = subject;
  const node = nodeOf(subject);
  if (!body.draft) return node ? nodeName(node) : strip.look.name;
  if (node) return `${nodeName(node)} of ${body.project.name}`;
  return body.project.name === "New sound" ? "" : `${body.project.name}, variation`;
}

/** After saving, the thing in hand goes by the new name. */
export function followSteps(content: Content, props: Subject, from: PresetRef) {
  const { strip, request } = props;
  const hand = { strip, mint: mintKey, ...(request.layer === undefined ? {} : { layer: request.layer }) };
  const node = nodeOf(props);
  if (request.instrument)
    return gestures.setLayers(
      hand,
      layersOf(strip).map((l) => (l.key === request.layer ? { ...l, instrument: { ...l.instrument, from } } : l)),
    );
  if (request.node !== undefined)
    return node && node.type !== "split" ? gestures.replaceNode(hand, { ...node, from }) : [];
  return content.kind === "chain" || (content.kind === "strip" && content.strip.inserts)
    ? gestures.follow(hand, from)
    : [];
}
