import { type Chain, findProcessor, processorName, processorsOf } from "../chains/chain";
import { findSpec } from "../processors/model";
import { findModel } from "../processors/models";
import { type Project, describeOutput, findStrip } from "../projects/project";
import { formatFader, formatPanPart } from "../strips/strip";
import { formatPlain } from "../units/format";
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

function describeNode(
  step: Extract<Step, { kind: "placeNode" | "moveNode" | "setNode" | "setEnabled" | "setLabel" }>,
  chain: Chain | null,
): string {
  const standing = chain ? findProcessor(chain, step.node) : null;
  const name = standing ? processorName(standing) : "the plugin";
  const nodeName = (node: { type: string }) => processorName(node as Parameters<typeof processorName>[0]);
  switch (step.kind) {
    case "placeNode":
      if (step.to) return `add ${nodeName(step.to.node)}`;
      return `take out ${step.from ? nodeName(step.from.node) : name}`;
    case "moveNode":
      return `move ${name}`;
    case "setNode":
      return `replace ${nodeName(step.from)} by ${nodeName(step.to)}`;
    case "setEnabled":
      return `switch ${name} ${step.to ? "on" : "off"}`;
    case "setLabel":
      return `name ${name} “${step.to ?? "as its model"}”`;
  }
}

/** The part of the sentence behind the strip's name. `project` is the one the step is applied to. */
function describeChange(step: Step, project: Project): string {
  const chain = step.cell.strip === null ? null : (findStrip(project, step.cell.strip)?.inserts ?? null);
  switch (step.kind) {
    case "setInserts":
      return describeInserts(step.from, step.to);
    case "setFrom":
      return step.to ? `now follows ${step.to.name}, version ${step.to.version}` : "follows no preset any more";
    case "setValue":
      return describeValue(chain, step);
    case "setLevel":
      return `level ${formatFader(step.from)} → ${formatFader(step.to)} dB`;
    case "setPan":
      return `pan ${formatPanPart(step.from)} → ${formatPanPart(step.to)}`;
    case "setRouting":
      return `output ${describeOutput(project, step.from.output)} → ${describeOutput(project, step.to.output)}`;
    case "setLook":
      return step.from.name === step.to.name ? "look changes" : `now called ${step.to.name}`;
    case "setTempo":
      return `tempo ${step.from} → ${step.to} bpm`;
    case "placeStrip":
      return step.to
        ? `new ${step.to.strip.kind} strip with ${plugins(processorsOf(step.to.strip.inserts).length)}`
        : "strip taken out";
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
