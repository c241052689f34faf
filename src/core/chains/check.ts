import { getSpec } from "../processors/model";
import { findModel } from "../processors/models";
import type { Value } from "../units/param-spec";
import type { StripKind } from "../documents/strip-kinds";
import { type Chain, type ChainNode, type Processor, processorName } from "./chain";
import { processorsOf, type Place, findNode, listsIn } from "./tree";

/** What mends a remark, in one step of the hand. */
export type Mend =
  | { readonly kind: "switchOff"; readonly node: string; readonly label: string }
  | {
      readonly kind: "set";
      readonly node: string;
      readonly values: Readonly<Record<string, Value>>;
      readonly label: string;
    }
  | { readonly kind: "move"; readonly node: string; readonly place: Place; readonly label: string }
  /** A gain plugin of so many dB in front of a node. */
  | { readonly kind: "turnDown"; readonly before: string; readonly dB: number; readonly label: string };

export interface Remark {
  readonly id: string;
  readonly node: string | null;
  readonly text: string;
  readonly mend: Mend | null;
}

export interface CheckContext {
  readonly strip: StripKind;
  readonly channels: "mono" | "stereo";
  readonly sampleRate: number;
  /** The highest sample that reached each plugin so far, 1 is full scale. */
  readonly peaks: ReadonlyMap<string, number>;
}

type Rule = (chain: Chain, context: CheckContext) => readonly Remark[];

/** Every stretch of plugins that the sound runs through one after the other: each lane by itself, sections dissolved. */
function runsOf(nodes: readonly ChainNode[]): readonly (readonly Processor[])[] {
  const own = nodes.flatMap((node): readonly Processor[] => {
    if (node.type === "processor") return node.enabled ? [node] : [];
    if (node.type === "section")
      return node.enabled ? (node.nodes.filter((n) => n.type === "processor" && n.enabled) as Processor[]) : [];
    return [];
  });
  const splits = nodes.flatMap((node) =>
    node.type === "split"
      ? [node]
      : node.type === "section" && node.enabled
        ? node.nodes.filter((n) => n.type === "split")
        : [],
  );
  return [own, ...splits.flatMap((split) => listsIn(split).flatMap((list) => runsOf(list.nodes)))];
}

const value = (processor: Processor, id: string): number => {
  const found = processor.values[id];
  return typeof found === "number" ? found : 0;
};

const twoAmplifiers: Rule = (chain) =>
  runsOf(chain.nodes).flatMap((run) => {
    const [, second] = run.filter((p) => findModel(p.model)?.hasCabinet);
    return second
      ? [
          {
            id: `amplifiers ${second.key}`,
            node: second.key,
            text: "Two amplifiers in a row: the second hears the first one's cabinet.",
            mend: { kind: "switchOff", node: second.key, label: `Switch ${processorName(second)} off` },
          },
        ]
      : [];
  });

const monoIntoStereo: Rule = (chain, { channels }) => {
  if (channels === "stereo") return [];
  const all = processorsOf(chain).filter((p) => p.enabled);
  const at = all.findIndex((p) => findModel(p.model)?.needsTwoSides);
  const width = all[at];
  if (!width || all.slice(0, at).some((p) => findModel(p.model)?.widens)) return [];
  return [
    {
      id: `mono ${width.key}`,
      node: width.key,
      text: `${processorName(width)} gets the same sound on both sides: the strip is mono.`,
      mend: { kind: "switchOff", node: width.key, label: `Switch ${processorName(width)} off` },
    },
  ];
};

const dryOnReturn: Rule = (chain, { strip }) =>
  strip !== "return"
    ? []
    : processorsOf(chain).flatMap((p): readonly Remark[] => {
        const model = findModel(p.model);
        if (!p.enabled || !model || (model.family !== "reverb" && model.family !== "delay")) return [];
        const { min } = getSpec(model, "dry");
        return value(p, "dry") <= min
          ? []
          : [
              {
                id: `dry ${p.key}`,
                node: p.key,
                text: `${processorName(p)} stands on a return and lets dry sound through: it comes twice.`,
                mend: { kind: "set", node: p.key, values: { dry: min }, label: "Take the dry sound away" },
              },
            ];
      });

/** Values that make louder, by the name that they have in most models. */
const raises = (p: Processor): boolean =>
  ["output", "makeup", "gain"].some((id) => value(p, id) > 0) || p.values.makeupMode === 1;

const limiterBeforeGain: Rule = (chain) =>
  runsOf(chain.nodes).flatMap((run) => {
    const at = run.findIndex((p) => findModel(p.model)?.limits);
    const limiter = run[at];
    const louder = limiter && run.slice(at + 1).find((p) => !findModel(p.model)?.limits && raises(p));
    const last = run.at(-1);
    const within = last ? (findNode(chain, last.key)?.place.within ?? null) : null;
    return limiter && louder && last
      ? [
          {
            id: `limiter ${limiter.key}`,
            node: limiter.key,
            text: `${processorName(louder)} makes louder what ${processorName(limiter)} has limited.`,
            mend: {
              kind: "move",
              node: limiter.key,
              place: { within, after: last.key },
              label: "Put the limiter last",
            },
          },
        ]
      : [];
  });

/** Room below full scale that is given back, in dB. */
const HEADROOM = 1;

const clipping: Rule = (chain, { peaks }) =>
  processorsOf(chain).flatMap((p): readonly Remark[] => {
    const peak = peaks.get(p.key) ?? 0;
    if (!p.enabled || peak <= 1) return [];
    const over = 20 * Math.log10(peak);
    const dB = -Math.ceil(over + HEADROOM);
    return [
      {
        id: `clips ${p.key}`,
        node: p.key,
        text: `What reaches ${processorName(p)} is ${over.toFixed(1)} dB over full scale.`,
        mend: { kind: "turnDown", before: p.key, dB, label: `Turn it down by ${-dB} dB before` },
      },
    ];
  });

/** It is there to be looked at, and changes nothing that is heard. */
const isForLooking = (p: Processor): boolean => {
  const reads = findModel(p.model)?.reads ?? null;
  return reads === "pitch" || reads === "loudness";
};

const leftOn: Rule = (chain) =>
  processorsOf(chain).flatMap((p): readonly Remark[] =>
    p.enabled && isForLooking(p)
      ? [
          {
            id: `on ${p.key}`,
            node: p.key,
            text:
              p.values.mute === 1
                ? `${processorName(p)} is on and mutes the sound.`
                : `${processorName(p)} is still on.`,
            mend: { kind: "switchOff", node: p.key, label: "Switch it off" },
          },
        ]
      : [],
  );

const latency: Rule = (chain, { sampleRate }) => {
  const samples = latencyOf(chain.nodes);
  return samples === 0
    ? []
    : [
        {
          id: "latency",
          node: null,
          text: `The chain is late by ${samples} samples, ${((1000 * samples) / sampleRate).toFixed(1)} ms.`,
          mend: null,
        },
      ];
};

/** In samples: lanes are as late as the slowest of them, switched on or not. */
export const latencyOf = (nodes: readonly ChainNode[]): number =>
  nodes.reduce((sum, node) => {
    if (node.type === "processor") return sum + (findModel(node.model)?.latency ?? 0);
    return sum + Math.max(0, ...listsIn(node).map((list) => latencyOf(list.nodes)));
  }, 0);

const RULES: readonly Rule[] = [
  twoAmplifiers,
  monoIntoStereo,
  dryOnReturn,
  limiterBeforeGain,
  clipping,
  leftOn,
  latency,
];

/** What an experienced ear would look at again, each with a mend where there is one. Nothing here stops anybody. */
export const checkChain = (chain: Chain, context: CheckContext): readonly Remark[] =>
  RULES.flatMap((rule) => rule(chain, context));
