import { asStrip } from "../presets/as-strip";
import equal from "fast-deep-equal";
import type { From, StripRef } from "../chains/chain";
import { type Content, KIND_NAMES, withFrom } from "../presets/preset";
import { type Project, findLoop, findStrip, getStrip } from "../projects/project";
import { type SavedStrip, type Strip, createStrip, partsOf, stripName } from "../strips/strip";
import type { Output } from "../strips/parts/routing";
import type { PartName } from "../strips/parts";
import { applySteps } from "./apply";
import { type InsertMode, planInserts } from "./plan-inserts";
import type { Step } from "./step";

export interface RecallSource {
  readonly content: Content;
  /** The preset and version that it is; null for a document in hand. */
  readonly from: From | null;
  readonly name: string;
}

export type RecallTargets =
  | { readonly strips: readonly string[] }
  | { readonly newStrip: { readonly after: string | null } };

export interface RecallRequest {
  readonly source: RecallSource;
  /** Those that are asked for; what the source does not hold is passed by. */
  readonly parts: readonly PartName[];
  readonly targets: RecallTargets;
  readonly mode: InsertMode;
}

/** Switched off: a cell, a whole row (no part) or a whole column (no strip). */
export interface Exception {
  readonly strip?: string | undefined;
  readonly part?: PartName | undefined;
}

/** What a plan cannot decide alone. `answer` is in force until another is given. */
export interface Question {
  readonly id: string;
  readonly strip: string;
  readonly text: string;
  readonly choices: readonly { readonly id: string; readonly text: string }[];
  readonly answer: string;
}

/** Something that stays as it is, or is left out, and why. */
export interface PlanNote {
  readonly strip: string;
  readonly text: string;
}

export interface PlanRow {
  readonly strip: string;
  readonly isNew: boolean;
  /** What the source holds for this strip, and whether it is switched on. */
  readonly parts: readonly { readonly part: PartName; readonly on: boolean; readonly steps: readonly string[] }[];
}

export interface Plan {
  readonly project: string;
  readonly steps: readonly Step[];
  readonly rows: readonly PlanRow[];
  readonly questions: readonly Question[];
  readonly notes: readonly PlanNote[];
}

export interface PlanInput {
  readonly project: Project;
  readonly requests: readonly RecallRequest[];
  readonly except: readonly Exception[];
  /** Question id → choice id. */
  readonly answers: Readonly<Record<string, string>>;
  /** Makes a new id each time; ids of new strips and keys of copied plugins come from here. */
  readonly mint: () => string;
}

/** What is being put together; `project` is the project as the steps so far leave it. */
interface Draft {
  project: Project;
  readonly steps: Step[];
  readonly rows: PlanRow[];
  readonly questions: Question[];
  readonly notes: PlanNote[];
}

/**
 * Puts together every change that the requests make, without making any. Laws: applying the steps gives exactly what the
 * plan shows; nothing outside of the chosen parts and targets changes; a second time in mode replace there is nothing
 * to do; no step leaves a reference to a strip that is not there, or a loop in the signal flow.
 */
export function planRecall(input: PlanInput): Plan {
  const draft: Draft = { project: input.project, steps: [], rows: [], questions: [], notes: [] };
  for (const request of input.requests) {
    if ("newStrip" in request.targets) planNewStrip(draft, input, request, request.targets.newStrip.after);
    else for (const id of request.targets.strips) planStrip(draft, input, request, id);
  }
  const { steps, rows, questions, notes } = draft;
  return { project: input.project.id, steps, rows, questions, notes };
}

const isOn = (except: readonly Exception[], strip: string, part: PartName): boolean =>
  !except.some((e) => (e.strip ?? strip) === strip && (e.part ?? part) === part);

/** What a source holds, as parts of a strip. */
const savedStripOf = ({ content, from }: RecallSource): SavedStrip | null =>
  asStrip(from ? withFrom(content, from) : content);

function planStrip(draft: Draft, input: PlanInput, request: RecallRequest, id: string): void {
  const strip = findStrip(draft.project, id);
  const saved = savedStripOf(request.source);
  if (!strip) {
    draft.notes.push({ strip: id, text: "This strip is not here any more; it is left out." });
    return;
  }
  if (!saved) {
    const kind = KIND_NAMES[request.source.content.kind].toLowerCase();
    draft.notes.push({ strip: id, text: `A ${kind} cannot be applied to a single strip yet; it is left out.` });
    return;
  }
  const held = partsOf(saved).filter((part) => request.parts.includes(part));
  const parts = held.map((part) => {
    const on = isOn(input.except, id, part);
    const planned = planPart({ draft, input, request, strip, saved }, part);
    const steps = on ? take(draft, planned) : [];
    return { part, on, steps: steps.map((s) => s.id) };
  });
  draft.rows.push({ strip: id, isNew: false, parts });
}

/** Adds steps to the draft, unless they would close a loop in the signal flow. */
function take(draft: Draft, steps: readonly Step[]): readonly Step[] {
  const applied = applySteps(draft.project, steps);
  if (!applied.ok) throw new Error(`A planned step does not fit: ${applied.error.reason}`);
  const routed = steps.find((s) => s.kind === "setRouting");
  const loop = routed?.cell.strip ? findLoop(applied.value, routed.cell.strip) : null;
  if (loop) {
    draft.notes.push({
      strip: routed?.cell.strip ?? "",
      text: `The output stays: ${loop.join(" → ")} would be a loop.`,
    });
    return [];
  }
  draft.project = applied.value;
  draft.steps.push(...steps);
  return steps;
}

interface PartContext {
  readonly draft: Draft;
  readonly input: PlanInput;
  readonly request: RecallRequest;
  readonly strip: Strip;
  readonly saved: SavedStrip;
}

function planPart(context: PartContext, part: PartName): readonly Step[] {
  const { input, strip, saved } = context;
  const base = { id: input.mint(), cell: { strip: strip.id, part }, needs: [] };
  const unlessSame = (step: Step): readonly Step[] => (equal(step.from, step.to) ? [] : [step]);
  switch (part) {
    case "source":
      return planSource(context);
    case "inserts":
      return planInsertsPart(context);
    case "level":
      return unlessSame({ ...base, kind: "setLevel", from: strip.level, to: saved.level ?? strip.level });
    case "pan":
      return unlessSame({ ...base, kind: "setPan", from: strip.pan, to: saved.pan ?? strip.pan });
    case "look":
      return unlessSame({ ...base, kind: "setLook", from: strip.look, to: saved.look ?? strip.look });
    case "routing":
      return unlessSame({ ...base, kind: "setRouting", from: strip.routing, to: { output: planOutput(context) } });
  }
}

/** Layers play on a strip that plays; elsewhere they are left out, with a word. */
function planSource({ draft, input, strip, saved }: PartContext): readonly Step[] {
  const to = saved.source;
  if (!to || to.type !== "layers") return [];
  if (strip.kind !== "instrument") {
    draft.notes.push({ strip: strip.id, text: `${stripName(strip)} plays no instrument; the layers are left out.` });
    return [];
  }
  const step = { id: input.mint(), cell: { strip: strip.id, part: "source" as const }, needs: [] };
  return equal(strip.source, to) ? [] : [{ ...step, kind: "setSource", from: strip.source, to }];
}

function planInsertsPart({ draft, input, request, strip, saved }: PartContext): readonly Step[] {
  const { content } = request.source;
  const planned = planInserts({
    strip: strip.id,
    now: strip.inserts,
    wanted: saved.inserts ?? { nodes: [], macros: [] },
    single: content.kind === "plugin",
    mode: request.mode,
    mint: input.mint,
  });
  for (const text of planned.left) draft.notes.push({ strip: strip.id, text });
  return planned.steps;
}

/** Where the strip goes after the plan: a reference from outside is found here by kind and name, or asked about. */
function planOutput({ draft, input, strip, saved }: PartContext): Output {
  const wanted = saved.routing?.output ?? null;
  if (strip.kind === "main" || !wanted || "hardware" in wanted)
    return strip.kind === "main" ? strip.routing.output : wanted;
  const here = resolveRef(draft.project, wanted);
  if (here) return here.id === strip.id ? strip.routing.output : { strip: here.id };
  const name = "name" in wanted ? wanted.name : wanted.strip;
  const id = `output:${strip.id}`;
  const buses = draft.project.strips.filter((s) => (s.kind === "group" || s.kind === "main") && s.id !== strip.id);
  const choices = [
    { id: "leave", text: "Leave the output as it is" },
    ...buses.map((s) => ({ id: s.id, text: `Use ${stripName(s)} instead` })),
  ];
  const given = input.answers[id];
  const answer = choices.some((c) => c.id === given) ? (given as string) : "leave";
  draft.questions.push({
    id,
    strip: strip.id,
    text: `“${name}” is missing here. ${stripName(strip)} would go to it.`,
    choices,
    answer,
  });
  return answer === "leave" ? strip.routing.output : { strip: answer };
}

function resolveRef(project: Project, ref: StripRef): Strip | null {
  if ("strip" in ref) return findStrip(project, ref.strip);
  const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();
  return project.strips.find((s) => s.kind === ref.kind && same(stripName(s), ref.name)) ?? null;
}

/** A strip of the source's kind with nothing set, on its way to the main output. A second main output is a group. */
function blankFor(project: Project, saved: SavedStrip, id: string, name: string): Strip {
  const main = project.strips.find((s) => s.kind === "main");
  const kind = saved.kind === "main" ? "group" : saved.kind;
  const blank = createStrip(id, kind, { name }, main ? { strip: main.id } : null);
  return { ...blank, source: saved.source ?? blank.source };
}

function planNewStrip(draft: Draft, input: PlanInput, request: RecallRequest, after: string | null): void {
  const saved = savedStripOf(request.source);
  if (!saved) return;
  const id = input.mint();
  const held = partsOf(saved).filter((part) => request.parts.includes(part));
  const on = held.filter((part) => isOn(input.except, id, part));
  const row = (steps: readonly Step[]): PlanRow => ({
    strip: id,
    isNew: true,
    parts: held.map((part) => ({ part, on: on.includes(part), steps: steps.map((s) => s.id) })),
  });
  if (on.length === 0) {
    draft.rows.push(row([]));
    return;
  }
  const blank = blankFor(draft.project, saved, id, request.source.name);
  // The parts are planned as onto a strip that stands there already; what comes out is placed in one step.
  const standing: Draft = {
    ...draft,
    project: { ...draft.project, strips: [...draft.project.strips, blank] },
    steps: [],
  };
  for (const part of on) {
    const strip = getStrip(standing.project, id);
    take(standing, planPart({ draft: standing, input, request: { ...request, mode: "replace" }, strip, saved }, part));
  }
  const place = after !== null && findStrip(draft.project, after) ? after : (draft.project.strips.at(-1)?.id ?? null);
  const step: Step = {
    id: input.mint(),
    cell: { strip: id, part: "strip" },
    needs: [],
    kind: "placeStrip",
    from: null,
    to: { strip: getStrip(standing.project, id), after: place },
  };
  draft.rows.push(row(take(draft, [step])));
}

/** Whether a plan may be applied without being shown: no question, and nothing but its targets changes. */
export const mayApplyDirectly = (plan: Plan): boolean => plan.questions.length === 0 && plan.notes.length === 0;
