import { delaysOf, getSpec, heardValues, latencyAt } from "../processors/model";
import { findModel } from "../processors/models";
import { beatsOf, formatNoteLength, isNoteLength } from "../units/note-length";
import { type Value, clampTo } from "../units/param-spec";
import { type BeatsPerMinute, millisecondsOf } from "../units/quantities";
import type { StripKind } from "../documents/strip-kinds";
import { type Chain, type ChainNode, type Processor, processorName } from "./chain";
import { processorsOf, type Place, findNode, listsIn } from "./tree";

/** What mends a remark, in one step of the hand. */
export type Mend =
  /** Where a plugin made it quieter, a gain of so many dB stands in for that: what follows is driven no harder. */
  | { readonly kind: "switchOff"; readonly node: string; readonly dB?: number; readonly label: string }
  | {
      readonly kind: "set";
      readonly node: string;
      readonly values: Readonly<Record<string, Value>>;
      readonly label: string;
    }
  /** Another limiter, set as this one. */
  | { readonly kind: "limitAt"; readonly as: string; readonly place: Place; readonly label: string }
  /** A gain plugin of so many dB in front of a node, or behind all of them where none is named. */
  | { readonly kind: "turnDown"; readonly before: string | null; readonly dB: number; readonly label: string };

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
  readonly tempo: BeatsPerMinute;
  /** The highest sample that reaches each plugin, by its key, and that leaves the chain; 1 is full scale. Null until measured. */
  readonly peaks: { readonly inputs: Readonly<Record<string, number>>; readonly output: number } | null;
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

/** By how many dB a plugin makes it quieter, as far as that is known; undefined where it does not. */
function quieterBy(chain: Chain, { key }: Processor, { peaks }: CheckContext): { readonly dB?: number } {
  const run = runsOf(chain.nodes).find((one) => one.some((p) => p.key === key)) ?? [];
  const next = run[run.findIndex((p) => p.key === key) + 1];
  const isLastOfAll = !next && chain.nodes.at(-1)?.key === key;
  const after = next ? peaks?.inputs[next.key] : isLastOfAll ? peaks?.output : undefined;
  const before = peaks?.inputs[key];
  if (!before || !after || after >= before) return {};
  return { dB: Math.floor(20 * Math.log10(after / before)) };
}

const twoAmplifiers: Rule = (chain, context) =>
  runsOf(chain.nodes).flatMap((run) => {
    const [, ...later] = run.filter((p) => findModel(p.model)?.hasCabinet);
    return later.map((one) => ({
      id: `amplifiers ${one.key}`,
      node: one.key,
      text: `Two amplifiers in a row: ${processorName(one)} hears the cabinet of the one before.`,
      mend: {
        kind: "switchOff",
        node: one.key,
        ...quieterBy(chain, one, context),
        label: `Switch ${processorName(one)} off`,
      },
    }));
  });

const monoIntoStereo: Rule = (chain, context) => {
  if (context.channels === "stereo") return [];
  const all = processorsOf(chain).filter((p) => p.enabled);
  const widened = all.findIndex((p) => findModel(p.model)?.widens);
  const mono = widened < 0 ? all : all.slice(0, widened);
  return mono
    .filter((p) => findModel(p.model)?.needsTwoSides)
    .map((width) => ({
      id: `mono ${width.key}`,
      node: width.key,
      text: `${processorName(width)} gets the same sound on both sides: the strip is mono.`,
      mend: {
        kind: "switchOff",
        node: width.key,
        ...quieterBy(chain, width, context),
        label: `Switch ${processorName(width)} off`,
      },
    }));
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
  ["output", "makeup", "gain"].some((id) => value(p, id) > 0) || Number(p.values.makeupMode ?? 0) > 0;

const limiterBeforeGain: Rule = (chain) =>
  runsOf(chain.nodes).flatMap((run) => {
    // The last of them is the one that counts: what an earlier one lets become louder it catches.
    const at = run.findLastIndex((p) => findModel(p.model)?.limits);
    const limiter = run[at];
    const louder = limiter && run.slice(at + 1).find(raises);
    const last = run.at(-1);
    const within = last ? (findNode(chain, last.key)?.place.within ?? null) : null;
    return limiter && louder && last
      ? [
          {
            id: `limiter ${limiter.key}`,
            node: limiter.key,
            text: `${processorName(louder)} makes louder what ${processorName(limiter)} has limited.`,
            mend: {
              kind: "limitAt",
              as: limiter.key,
              place: { within, after: last.key },
              label: "Limit it at the end, too",
            },
          },
        ]
      : [];
  });

/** Room below full scale that is given back, in dB. */
const HEADROOM = 1;

const overBy = (peak: number): number => 20 * Math.log10(peak);

/** So much must go that it stands below full scale with some room, in whole dB. */
const downBy = (peak: number): number => Math.ceil(overBy(peak) + HEADROOM);

/** What is there to be given too much: a gain to turn it down, a limiter to limit it. */
const takesIt = (p: Processor): boolean => p.model === "gain" || findModel(p.model)?.limits === true;

/** The name of what is too loud is that of where it comes from: the same sound is the same remark, wherever it is seen. */
const behind = (source: Processor | undefined): string => `over behind ${source?.key ?? "the material"}`;

/** Every plugin that is driven over full scale, the first in the way of the sound first: turned down there, the others mostly are, too. */
const clipping: Rule = (chain, { peaks }) =>
  runsOf(chain.nodes).flatMap((run) =>
    run.flatMap((p, at): readonly Remark[] => {
      const peak = peaks?.inputs[p.key] ?? 0;
      if (peak <= 1 || takesIt(p)) return [];
      const dB = downBy(peak);
      return [
        {
          id: behind(run[at - 1]),
          node: p.key,
          text: `What reaches ${processorName(p)} is ${overBy(peak).toFixed(1)} dB over full scale.`,
          mend: { kind: "turnDown", before: p.key, dB: -dB, label: `Turn it down by ${dB} dB before` },
        },
      ];
    }),
  );

const clippingOutput: Rule = (chain, { peaks }) => {
  if (!peaks || peaks.output <= 1) return [];
  const dB = downBy(peaks.output);
  return [
    {
      id: behind(runsOf(chain.nodes)[0]?.at(-1)),
      node: null,
      text: `What leaves the chain is ${overBy(peaks.output).toFixed(1)} dB over full scale.`,
      mend: { kind: "turnDown", before: null, dB: -dB, label: `Turn it down by ${dB} dB at the end` },
    },
  ];
};

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

/** A note length that is longer, or turns more slowly, than the plugin can: it stops at its end. */
const beyondItsRange: Rule = (chain, { tempo }) =>
  processorsOf(chain).flatMap((p): readonly Remark[] =>
    (findModel(p.model)?.params ?? []).flatMap((spec): readonly Remark[] => {
      const note = p.values[spec.id];
      if (!p.enabled || !isNoteLength(note)) return [];
      const ms = millisecondsOf(beatsOf(note), tempo);
      const wanted = spec.unit === "Hz" ? 1000 / ms : ms;
      const stops = clampTo(spec, wanted);
      if (Math.abs(stops - wanted) < 1e-9 * wanted) return [];
      const told = (value: number) =>
        spec.unit === "Hz" ? `${value.toFixed(2)} Hz` : `${(value / 1000).toFixed(2)} s`;
      return [
        {
          id: `range ${p.key} ${spec.id}`,
          node: p.key,
          text: `${spec.name} of ${processorName(p)}: ${formatNoteLength(note)} is ${told(wanted)} at this tempo, and it stops at ${told(stops)}.`,
          mend: null,
        },
      ];
    }),
  );

const latency: Rule = (chain, context) => {
  const { sampleRate } = context;
  const samples = latencyOf(chain.nodes, context);
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

/** In samples at a rate: lanes are as late as the slowest of them, switched on or not. */
export const latencyOf = (nodes: readonly ChainNode[], context: Pick<CheckContext, "sampleRate" | "tempo">): number =>
  nodes.reduce((sum, node) => {
    if (node.type !== "processor")
      return sum + Math.max(0, ...listsIn(node).map((list) => latencyOf(list.nodes, context)));
    const model = findModel(node.model);
    if (!model) return sum;
    return sum + latencyAt(delaysOf(model, heardValues(model, node.values, context.tempo)), context.sampleRate);
  }, 0);

const RULES: readonly Rule[] = [
  twoAmplifiers,
  monoIntoStereo,
  dryOnReturn,
  limiterBeforeGain,
  clipping,
  clippingOutput,
  leftOn,
  beyondItsRange,
  latency,
];

/** What an experienced ear would look at again, each with a mend where there is one. Nothing here stops anybody. */
export const checkChain = (chain: Chain, context: CheckContext): readonly Remark[] =>
  RULES.flatMap((rule) => rule(chain, context));
