import equal from "fast-deep-equal";
import { EMPTY_CHAIN } from "../chains/chain";
import { asStrip } from "../presets/as-strip";
import { KIND_NAMES, withFrom } from "../presets/preset";
import { type Project, findStrip, freeStripName, getStrip, nameIn } from "../projects/project";
import { type SavedStrip, type Strip, createStrip, partsOf, stripName } from "../strips/strip";
import { PART, type PartName } from "../strips/parts";
import type { Part } from "../strips/parts/part";
import { type Send, nameOfTarget } from "../strips/parts/sends";
import { type Draft, type Made, type PartContext, aimed, makeStrip, take } from "./plan-aims";
import { type Loops, cellKey, findLoops } from "./plan-flow";
import { planInserts } from "./plan-inserts";
import { planLayers } from "./plan-layers";
import { planSends } from "./plan-sends";
import type { Exception, Plan, PlanInput, PlanRow, RecallRequest, RecallSource } from "./plan-shape";
import type { Step } from "./steps";
import type { SetPart, WholePart } from "./steps/set-part";

/**
 * Puts together every change that the requests make, without making any. Laws: applying the steps gives exactly what the
 * plan shows; nothing outside of the chosen parts and targets changes; a second time in mode replace there is nothing
 * to do; no step leaves a reference to a strip that is not there, or a loop in the signal flow.
 */
export function planRecall(input: PlanInput): Plan {
  const ids = input.requests.map((request) => ("newStrip" in request.targets ? input.mint() : ""));
  const made = new Map<string, string>();
  const makes = (question: string): string => {
    const id = made.get(question) ?? input.mint();
    made.set(question, id);
    return id;
  };
  // First what answers make, then what would lead where, then what of it closes a loop, then the plan.
  const fresh = { ...input, mint: sketchKeys() };
  const { made: answered } = draftFor(fresh, { ids, makes, made: [] }, new Map());
  const sketch = draftFor(fresh, { ids, makes, made: answered }, new Map());
  const withBlanks = { ...input.project, strips: [...input.project.strips, ...sketch.blanks] };
  const { steps, rows, questions, notes } = draftFor(
    input,
    { ids, makes, made: answered },
    findLoops(withBlanks, sketch),
  );
  return { project: input.project.id, steps, rows, questions, notes };
}

/** Keys of what is only sketched. */
function sketchKeys(): () => string {
  let next = 0;
  return () => `sketched ${next++}`;
}

interface NewIds extends Pick<Draft, "makes"> {
  /** What answers make. */
  readonly made: readonly Made[];
  /** Of the new strips, by request. */
  readonly ids: readonly string[];
}

function draftFor(input: PlanInput, { ids, makes, made }: NewIds, loops: Loops): Draft {
  const draft: Draft = {
    project: input.project,
    blanks: [],
    makes,
    made: [],
    leads: [],
    replaced: new Set(),
    loops,
    steps: [],
    rows: [],
    questions: [],
    notes: [],
  };
  // What is there and how it is called comes first: what leads to a strip by its name is to find it by the name that it will have.
  const looks = input.requests.map((request) =>
    "newStrip" in request.targets ? [] : request.targets.strips.map((id) => planNamed({ draft, input, request, id })),
  );
  for (const one of made) makeStrip(draft, input, one);
  for (const [at, request] of input.requests.entries()) {
    if ("newStrip" in request.targets)
      planNewStrip({ draft, input, request, id: ids[at]! }, request.targets.newStrip.after);
    else
      for (const [n, id] of request.targets.strips.entries()) planStrip({ draft, input, request, id }, looks[at]![n]!);
  }
  return draft;
}

const isOn = (except: readonly Exception[], strip: string, part: PartName): boolean =>
  !except.some((e) => (e.strip ?? strip) === strip && (e.part ?? part) === part);

/** What a source holds, as parts of a strip. */
const savedStripOf = ({ content, from }: RecallSource): SavedStrip | null =>
  asStrip(from ? withFrom(content, from) : content);

/** One strip that a request is for. */
interface Target {
  readonly draft: Draft;
  readonly input: PlanInput;
  readonly request: RecallRequest;
  readonly id: string;
}

/** How a strip will be called, where that is asked for. */
function planNamed({ draft, input, request, id }: Target): readonly Step[] {
  const strip = findStrip(draft.project, id);
  const saved = savedStripOf(request.source);
  if (!strip || !saved?.look || !request.parts.includes("look") || !isOn(input.except, id, "look")) return [];
  return take(draft, planPart({ draft, input, request, strip, saved }, "look"));
}

function planStrip({ draft, input, request, id }: Target, look: readonly Step[]): void {
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
    const planned = () => take(draft, planPart({ draft, input, request, strip, saved }, part));
    const steps = !on ? [] : part === "look" ? look : planned();
    return { part, on, steps: steps.map((s) => s.id) };
  });
  draft.rows.push({ strip: id, isNew: false, parts });
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
  if (part === "sends") return planSendsPart(context);
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
  const { draft, input, request, strip } = context;
  const to = aimed(context, part, PART[part] as Part<unknown>, wanted);
  if (to === null) return [];
  if (part !== "source" || (request.layers ?? "whole") === "whole") draft.replaced.add(cellKey(strip.id, part));
  if (equal(strip[part], to.value)) return [];
  return [{ id: input.mint(), kind: "setPart", strip: strip.id, part, from: strip[part], to: to.value } as SetPart];
}

function planInsertsPart(context: PartContext): readonly Step[] {
  const { draft, input, request, strip, saved } = context;
  const single = request.source.content.kind === "plugin";
  const chain = saved.inserts ?? EMPTY_CHAIN;
  if (request.mode === "replace" && !single) draft.replaced.add(cellKey(strip.id, "inserts"));
  const planned = planInserts({
    strip: strip.id,
    now: strip.inserts,
    // Of values alone no key comes with them.
    wanted: request.mode === "values" ? chain : (aimed(context, "inserts", PART.inserts, chain)?.value ?? chain),
    single,
    mode: request.mode,
    mint: input.mint,
  });
  for (const text of planned.left) draft.notes.push({ strip: strip.id, text });
  return planned.steps;
}

function planSendsPart(context: PartContext): readonly Step[] {
  const { draft, input, request, strip, saved } = context;
  const mode = request.sends ?? "replace";
  const wanted = aimed(context, "sends", PART.sends, saved.sends ?? [])?.value ?? [];
  if (mode === "replace") draft.replaced.add(cellKey(strip.id, "sends"));
  const nameOf = (send: Send) => nameOfTarget(send.to, { nameOf: nameIn(draft.project) });
  const planned = planSends({ strip: strip.id, now: strip.sends, wanted, mode, nameOf, mint: input.mint });
  for (const text of planned.left) draft.notes.push({ strip: strip.id, text });
  return planned.steps;
}

/** A strip of the source's kind with nothing set, on its way to the main output. A second main output is a group. */
function blankFor(project: Project, saved: SavedStrip, id: string, name: string): Strip {
  const main = project.strips.find((s) => s.kind === "main");
  const kind = saved.kind === "main" ? "group" : saved.kind;
  const blank = createStrip(id, kind, { name }, main ? { strip: main.id } : null);
  return { ...blank, source: saved.source ?? blank.source };
}

function planNewStrip({ draft, input, request, id }: Target, after: string | null): void {
  const saved = savedStripOf(request.source);
  if (!saved) return;
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
  draft.blanks.push(blank);
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
