import { asStrip } from "../presets/as-strip";
import equal from "fast-deep-equal";
import { EMPTY_CHAIN, type PresetRef, type StripRef } from "../chains/chain";
import { type Content, KIND_NAMES, withFrom } from "../presets/preset";
import { type Project, findLoop, findStrip, freeStripName, getStrip } from "../projects/project";
import { type SavedStrip, type Strip, createStrip, partsOf, stripName } from "../strips/strip";
import { PART, type PartName } from "../strips/parts";
import { rekeyedBy } from "../strips/parts/inserts";
import type { AimQuestion, Part } from "../strips/parts/part";
import { applySteps } from "./apply";
import { type InsertMode, planInserts } from "./plan-inserts";
import { type LayerTake, planLayers } from "./plan-layers";
import { type Step, kindOf } from "./steps";
import type { SetPart, WholePart } from "./steps/set-part";

export interface RecallSource {
  readonly content: Content;
  /** The preset and version that it is; null for a document in hand. */
  readonly from: PresetRef | null;
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
  /** "whole" where it is not said. */
  readonly layers?: LayerTake | undefined;
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
  // What is switched off asks nothing and says nothing.
  const parts = held.map((part) => {
    const on = isOn(input.except, id, part);
    const steps = on ? take(draft, planPart({ draft, input, request, strip, saved }, part)) : [];
    return { part, on, steps: steps.map((s) => s.id) };
  });
  draft.rows.push({ strip: id, isNew: false, parts });
}

/** Adds steps to the draft, unless they would close a loop in the signal flow. */
function take(draft: Draft, steps: readonly Step[]): readonly Step[] {
  const applied = applySteps(draft.project, steps);
  if (!applied.ok) throw new Error(`A planned step does not fit: ${applied.error.reason}`);
  const routed = steps.find((s) => s.kind === "setPart" && s.part === "routing");
  const strip = routed ? kindOf(routed).cell(routed).strip : null;
  const loop = strip === null ? null : findLoop(applied.value, strip);
  if (strip !== null && loop) {
    draft.notes.push({ strip, text: `The output stays: ${loop.join(" → ")} would be a loop.` });
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
  const { draft, strip } = context;
  const misfit = PART[part].misfit(strip.kind);
  if (misfit !== null) {
    if (misfit !== "") draft.notes.push({ strip: strip.id, text: `${stripName(strip)} ${misfit}.` });
    return [];
  }
  if (part === "inserts") return planInsertsPart(context);
  if (part === "look") return planLook(context);
  return planWhole(context, part, part === "source" ? layersTaken(context) : context.saved[part]);
}

/** What of a saved instrument is taken. */
function layersTaken({ draft, request, strip, saved }: PartContext): SavedStrip["source"] {
  if (!saved.source) return undefined;
  const planned = planLayers({ now: strip.source, wanted: saved.source, take: request.layers ?? "whole" });
  for (const text of planned.left) draft.notes.push({ strip: strip.id, text });
  return planned.source;
}

/** Whether two strips are to have one name is asked first. */
function planLook(context: PartContext): readonly Step[] {
  const { draft, input, strip, saved } = context;
  const { look } = saved;
  if (!look) return [];
  const free = freeStripName(draft.project, look.name, strip.id);
  if (free === look.name) return planWhole(context, "look", look);
  const id = `look:${strip.id}`;
  const own = stripName(strip);
  const names: Readonly<Record<string, string>> = { keep: own, number: free, same: look.name };
  const choices = [
    { id: "keep", text: `Leave its name: ${own}` },
    { id: "number", text: `Call it ${free}` },
    { id: "same", text: `Call both ${look.name}` },
  ];
  const answer = input.answers[id] ?? "keep";
  const name = names[answer] ?? own;
  const text = `Another strip is called ${look.name} already. What is ${own} to be called?`;
  draft.questions.push({ id, strip: strip.id, text, choices, answer: name === names[answer] ? answer : "keep" });
  return planWhole(context, "look", { ...look, name });
}

/** A part as a whole, its references found here. Where a question is answered by leaving things as they are, it stays. */
function planWhole(context: PartContext, part: WholePart, wanted: unknown): readonly Step[] {
  const { input, strip } = context;
  const to = aimed(context, part, PART[part] as Part<unknown>, wanted);
  if (to === null || equal(strip[part], to.value)) return [];
  return [{ id: input.mint(), kind: "setPart", strip: strip.id, part, from: strip[part], to: to.value } as SetPart];
}

function planInsertsPart({ draft, input, request, strip, saved }: PartContext): readonly Step[] {
  const { content } = request.source;
  const planned = planInserts({
    strip: strip.id,
    now: strip.inserts,
    wanted: rekeyedBy(saved.inserts ?? EMPTY_CHAIN, (ref) => findHere(draft.project, ref) ?? ref),
    single: content.kind === "plugin",
    mode: request.mode,
    mint: input.mint,
  });
  for (const text of planned.left) draft.notes.push({ strip: strip.id, text });
  return planned.steps;
}

/** A value that leads to strips of this project; null where what stands here is to be left. */
function aimed<V>(context: PartContext, part: PartName, { aims }: Part<V>, value: V): { readonly value: V } | null {
  if (!aims) return { value };
  let isLeft = false;
  const aim = (ref: StripRef): StripRef => {
    const here = findHere(context.draft.project, ref);
    if (here && "strip" in here && here.strip === context.strip.id) isLeft = true;
    const found = here ?? (aims.question ? askFor(context, part, aims.question, ref) : ref);
    if (!found) isLeft = true;
    return found ?? ref;
  };
  const mapped = aims.mapped(value, aim);
  return isLeft ? null : { value: mapped };
}

/** What is to take the place of a strip that is missing here, by the answer in force; null to leave things as they are. */
function askFor({ draft, input, strip }: PartContext, part: PartName, question: AimQuestion, missing: StripRef) {
  const name = "name" in missing ? missing.name : missing.strip;
  const id = `${part}:${strip.id}`;
  const others = draft.project.strips.filter((s) => question.takes(s.kind) && s.id !== strip.id);
  const choices = [
    { id: "leave", text: question.leave },
    ...others.map((s) => ({ id: s.id, text: `Use ${stripName(s)} instead` })),
  ];
  const given = input.answers[id];
  const answer = choices.some((c) => c.id === given) ? (given as string) : "leave";
  draft.questions.push({ id, strip: strip.id, text: question.text(name, stripName(strip)), choices, answer });
  return answer === "leave" ? null : { strip: answer };
}

/** A reference to a strip of this project: by its id, or by kind and name for one that comes from outside. */
function findHere(project: Project, ref: StripRef): StripRef | null {
  const found = resolveRef(project, ref);
  return found && { strip: found.id };
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
  const blank = blankFor(draft.project, saved, id, freeStripName(draft.project, request.source.name));
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
    strip: id,
    kind: "placeStrip",
    from: null,
    to: { strip: getStrip(standing.project, id), after: place },
  };
  draft.rows.push(row(take(draft, [step])));
}

/** Whether a plan may be applied without being shown: no question, and nothing but its targets changes. */
export const mayApplyDirectly = (plan: Plan): boolean => plan.questions.length === 0 && plan.notes.length === 0;
