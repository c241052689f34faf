import { type Chain, type From, nodeName, processorName } from "../chains/chain";
import { findProcessor, processorsOf, findLane, findNode } from "../chains/tree";

import { findSpec } from "../processors/model";
import { findModel } from "../processors/models";
import { type Project, describeOutput, findStrip } from "../projects/project";
import { LANE_LEVEL } from "../chains/params";
import { chainAt } from "../strips/strip";
import { describeLevel, formatFader } from "../strips/parts/level";
import { describePan } from "../strips/parts/pan";

import { formatLevel, formatPan, formatPlain } from "../units/format";
import type { Step } from "./step";

const plugins = (count: number): string => `${count} plugin${count === 1 ? "" : "s"}`;

function describeInserts(from: Chain, to: Chain): string {
  const [before, after] = [processorsOf(from).length, processorsOf(to).length];
  const name = to.from ? ` of ${to.from.name}` : "";
  if (before === 0) return `put in ${plugins(after)}${name}`;
  if (after === 0) return `take out ${plugins(before)}`;
  return `replace ${plugins(before)} by ${after}${name}`;
}

function describeValue(chain: Chain | null, step: Extract<Step, { kind: "setValue" }>): string {
  const processor = chain ? findProcessor(chain, step.node) : null;
  const model = processor ? findModel(processor.model) : null;
  const spec = model ? findSpec(model, step.param) : null;
  if (!processor || !spec) return `${step.param} changes`;
  return `${processorName(processor)}, ${spec.name} ${formatPlain(spec, step.from)} → ${formatPlain(spec, step.to)}`;
}

type NodeStep = Extract<
  Step,
  { kind: "placeNode" | "moveNode" | "setNode" | "setEnabled" | "setLabel" | "setKeyInput" }
>;

function describePlacing({ from, to }: Extract<Step, { kind: "placeNode" }>): string {
  if (to) return `add ${nodeName(to.node)}`;
  return from ? `take out ${nodeName(from.node)}` : "nothing changes";
}

/** What a step is about: a node, or a lane, of the chain that it is applied to. */
const nameIn = (chain: Chain | null, key: string): string => {
  const node = chain ? findNode(chain, key)?.node : null;
  return node ? nodeName(node) : ((chain ? findLane(chain, key)?.name : null) ?? "the plugin");
};

function describeNode(step: NodeStep, chain: Chain | null): string {
  const name = nameIn(chain, step.node);
  switch (step.kind) {
    case "placeNode":
      return describePlacing(step);
    case "moveNode":
      return `move ${name}`;
    case "setNode":
      return `replace ${nodeName(step.from)} by ${nodeName(step.to)}`;
    case "setEnabled":
      return `switch ${name} ${step.to ? "on" : "off"}`;
    case "setLabel":
      return `name ${name} “${step.to ?? "as its model"}”`;
    case "setKeyInput":
      return step.to ? `${name} is keyed from outside` : `${name} hears itself again`;
  }
}

function describeLane({ from, to }: Extract<Step, { kind: "setLane" }>): string {
  if (from.name !== to.name) return `lane ${from.name} is now called ${to.name}`;
  if (from.enabled !== to.enabled) return `switch lane ${to.name} ${to.enabled ? "on" : "off"}`;
  return `lane ${to.name}, ${formatLevel(to.level, LANE_LEVEL.min)} dB, ${formatPan(to.pan)}`;
}

function describeMacros({ from, to }: Extract<Step, { kind: "setMacros" }>): string {
  if (to.length > from.length) return `add macro ${to.at(-1)?.name ?? ""}`;
  if (to.length < from.length) return "take out a macro";
  return "macros change";
}

type StripPartStep = Extract<Step, { kind: "setLevel" | "setPan" | "setRouting" | "setLook" | "setSource" }>;

function describePart(step: StripPartStep, project: Project): string {
  switch (step.kind) {
    case "setLevel":
      return `level ${formatFader(step.from)} → ${describeLevel(step.to)}`;
    case "setPan":
      return `pan ${describePan(step.from)} → ${describePan(step.to)}`;
    case "setRouting":
      return `output ${describeOutput(project, step.from.output)} → ${describeOutput(project, step.to.output)}`;
    case "setLook":
      return step.from.name === step.to.name ? "look changes" : `now called ${step.to.name}`;
    case "setSource":
      return "the instrument changes";
  }
}

function describeProject(step: Extract<Step, { kind: "setTempo" | "placeStrip" }>): string {
  if (step.kind === "setTempo") return `tempo ${step.from} → ${step.to} bpm`;
  if (!step.to) return "strip taken out";
  const { kind, inserts } = step.to.strip;
  return `new ${kind} strip with ${plugins(processorsOf(inserts).length)}`;
}

function describeOrigin(to: From | null): string {
  return to ? `now follows ${to.name}, version ${to.version}` : "follows no preset any more";
}

function insertsAt(project: Project, { cell }: Step): Chain | null {
  const strip = cell.strip === null ? null : findStrip(project, cell.strip);
  return strip ? chainAt(strip, cell) : null;
}

const PART_STEPS: readonly string[] = ["setLevel", "setPan", "setRouting", "setLook", "setSource"];
const isPartStep = (step: Step): step is StripPartStep => PART_STEPS.includes(step.kind);

/** The part of the sentence behind the strip's name. `project` is the one the step is applied to. */
function describeChange(step: Step, project: Project): string {
  if (isPartStep(step)) return describePart(step, project);
  const chain = insertsAt(project, step);
  switch (step.kind) {
    case "setInserts":
      return describeInserts(step.from, step.to);
    case "setFrom":
      return describeOrigin(step.to);
    case "setValue":
      return describeValue(chain, step);
    case "setLane":
      return describeLane(step);
    case "setMacros":
      return describeMacros(step);
    case "setTempo":
    case "placeStrip":
      return describeProject(step);
    default:
      return describeNode(step, chain);
  }
}

/** A step as one sentence: "Cello: replace 2 plugins by 4 of Wood and rosin." */
export function sentenceOf(step: Step, project: Project): string {
  const placed = step.kind === "placeStrip" ? (step.to ?? step.from)?.strip.look.name : undefined;
  const strip = step.cell.strip === null ? null : findStrip(project, step.cell.strip);
  const who = placed ?? strip?.look.name ?? project.name;
  return `${who}: ${describeChange(step, project)}.`;
}
