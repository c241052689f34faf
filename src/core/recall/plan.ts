import { KIND_NAMES } from "../presets/preset";
import { type Project, findStrip, freeStripName, getStrip } from "../projects/project";
import { type SavedStrip, type Strip, createStrip, stripName } from "../strips/strip";
import { type Draft, type Made, type PartContext, makeStrip, take } from "./plan-aims";
import { type Loops, findLoops } from "./plan-flow";
import { withKnownModels } from "./plan-models";
import { planPart, planParts } from "./plan-part";
import { type Placement, type Places, askedFor, findPlaces, isOn } from "./plan-places";
import { inFolder } from "../strips/parts/look";
import type { Plan, PlanInput, PlanRow, RecallRequest } from "./plan-shape";
import { bringTogether } from "./plan-together";
import type { Step } from "./steps";

/**
 * Puts together every change that the requests make, without making any. Laws: applying the steps gives exactly what the
 * plan shows; nothing outside of the chosen parts and targets changes; a second time in mode replace there is nothing
 * to do; no step leaves a reference to a strip that is not there, or a loop in the signal flow.
 */
export function planRecall(input: PlanInput): Plan {
  const made = new Map<string, string>();
  const makes = (what: string): string => {
    const id = made.get(what) ?? input.mint();
    made.set(what, id);
    return id;
  };
  const found = findPlaces(input, makes);
  const { placements, notes: leftOut } = bringTogether(found.placements, input.except);
  const places = { ...found, placements };
  // First what answers make, then what would lead where, then what of it closes a loop, then the plan.
  const fresh = { ...input, mint: sketchKeys() };
  const { made: answered } = draftFor(fresh, { places, makes, made: [] }, new Map());
  const sketch = draftFor(fresh, { places, makes, made: answered }, new Map());
  const withBlanks = { ...input.project, strips: [...input.project.strips, ...sketch.blanks] };
  const { steps, rows, questions, notes } = draftFor(
    input,
    { places, makes, made: answered },
    findLoops(withBlanks, sketch),
  );
  return {
    project: input.project.id,
    steps,
    rows: [...oneEach(rows), ...places.idle],
    matches: places.matches,
    questions: [...places.questions, ...questions],
    notes: [...leftOut, ...notes],
  };
}

/** What several bring to one strip is told in one row. */
function oneEach(rows: readonly PlanRow[]): readonly PlanRow[] {
  const byKey = new Map<string, PlanRow>();
  for (const row of rows) {
    const before = byKey.get(row.key);
    const added = before?.parts.map((own) => {
      const more = row.parts.find(({ part }) => part === own.part);
      return more ? { ...own, steps: [...own.steps, ...more.steps] } : own;
    });
    const fresh = row.parts.filter(({ part }) => !before?.parts.some((own) => own.part === part));
    byKey.set(row.key, added && before ? { ...before, parts: [...added, ...fresh] } : row);
  }
  return [...byKey.values()];
}

/** Keys of what is only sketched. */
function sketchKeys(): () => string {
  let next = 0;
  return () => `sketched ${next++}`;
}

interface Planned extends Pick<Draft, "makes"> {
  /** What answers make. */
  readonly made: readonly Made[];
  readonly places: Places;
}

function draftFor(input: PlanInput, { places, makes, made }: Planned, loops: Loops): Draft {
  const draft: Draft = {
    project: input.project,
    blanks: [],
    makes,
    made: [],
    leads: [],
    replaced: new Map(),
    loops,
    steps: [],
    rows: [],
    questions: [],
    notes: [],
  };
  const targets = places.placements.map((place): Target => ({ draft, input, ...withKnownModels(draft, input, place) }));
  // What is there and how it is called comes first: what leads to a strip by its name is to find it by the name that it will have.
  const named = targets.map((target) => (target.newName === null ? planNamed(target) : []));
  const folders = placeFolders(targets);
  const looks = targets.map((target, at) =>
    target.newName === null && isHoused(target) ? [...named[at]!, ...planNamed(target, true)] : named[at]!,
  );
  for (const one of made) makeStrip(draft, input, one);
  // Of several strips each may lead to any other: all stand there before anything leads to them.
  const blanks = targets.map(
    (target) => folders.get(target) ?? (target.newName !== null && isAmong(target) ? placeBlank(target) : null),
  );
  for (const [at, target] of targets.entries()) {
    const blank = blanks[at];
    if (target.newName === null) planStrip(target, looks[at]!);
    else if (blank) planAmong(target, blank);
    else planNewStrip(target);
  }
  return draft;
}

/** One strip that a request is for. */
interface Target extends Placement {
  readonly draft: Draft;
  readonly input: PlanInput;
}

/** Whether it is one of several strips of a set. */
const isAmong = ({ request: { targets } }: Target): boolean => "set" in targets;

/** Whether it stands in a folder, which may be new: of its own set, or by its name of another that comes along. */
const isHoused = ({ saved }: Target): boolean => saved?.look?.folder !== undefined;

/** How a strip will be called, where that is asked for; in a folder it comes to stand when all are there. */
function planNamed(target: Target, hasFolders = false): readonly Step[] {
  const { draft, input, request, id, saved } = target;
  const strip = findStrip(draft.project, id);
  if (!strip || !saved?.look || !request.parts.includes("look") || !isOn(input.except, id, "look")) return [];
  const look = isHoused(target) && !hasFolders ? inFolder(saved.look, strip.look.folder ?? null) : saved.look;
  return take(draft, planPart({ draft, input, request, key: id, strip, saved: { ...saved, look } }, "look"));
}

function planStrip({ draft, input, request, id, saved }: Target, look: readonly Step[]): void {
  const strip = findStrip(draft.project, id);
  if (!strip) {
    draft.notes.push({ strip: id, text: "This strip is not here any more; it is left out." });
    return;
  }
  if (!saved) {
    const kind = KIND_NAMES[request.source.content.kind].toLowerCase();
    draft.notes.push({ strip: id, text: `A ${kind} holds several strips; it cannot go onto one.` });
    return;
  }
  draft.rows.push({
    strip: id,
    key: id,
    isNew: false,
    parts: planParts({ draft, input, request, key: id, strip, saved }, look),
  });
}

/** A strip of the source's kind with nothing set, on its way to the main output. A second main output is a group. */
function blankFor(project: Project, saved: SavedStrip, id: string, name: string): Strip {
  const main = project.strips.find((s) => s.kind === "main");
  const kind = saved.kind === "main" ? "group" : saved.kind;
  return createStrip(id, kind, { name }, main ? { strip: main.id } : null);
}

const standsIn = ({ project }: Draft, after: string | null): string | null =>
  after !== null && findStrip(project, after) ? after : (project.strips.at(-1)?.id ?? null);

/** New folders of sets, before all else: the look of what stands in one says so. */
function placeFolders(targets: readonly Target[]): ReadonlyMap<Target, Strip> {
  const placed = new Map<Target, Strip>();
  const last = new Map<RecallRequest, string | null>();
  for (const target of targets) {
    const { draft, request, saved, newName } = target;
    if (newName === null || saved?.kind !== "folder" || !("set" in request.targets)) continue;
    // The one before it may come later: then it stands behind the folder before it, or where the set begins.
    const isHere = target.after !== null && findStrip(draft.project, target.after) !== null;
    const after = isHere ? target.after : (last.get(request) ?? request.targets.set.after);
    const folder = placeBlank({ ...target, after });
    last.set(request, target.id);
    if (folder) placed.set(target, folder);
  }
  return placed;
}

/** A new strip of a set, with nothing set yet but what comes in. */
function placeBlank({ draft, input, saved, id, newName, after }: Target): Strip | null {
  if (!saved || newName === null) return null;
  const blank = blankFor(draft.project, saved, id, freeStripName(draft.project, newName));
  const strip =
    saved.source && saved.source.type !== "layers" && saved.kind === blank.kind
      ? { ...blank, source: saved.source }
      : blank;
  draft.blanks.push(strip);
  const to = { strip, after: standsIn(draft, after) };
  take(draft, [{ id: input.mint(), kind: "placeStrip", strip: id, from: null, to }]);
  return strip;
}

/** What a new strip of a set holds, planned as onto a strip that stands there. */
function planAmong({ draft, input, request, id, key, saved }: Target, blank: Strip): void {
  if (!saved) return;
  const placed = draft.steps.find((step) => step.kind === "placeStrip" && step.strip === blank.id);
  // Its name is its own already.
  const named = saved.look ? { ...saved, look: { ...saved.look, name: stripName(blank) } } : saved;
  const context: PartContext = {
    draft,
    input,
    request: { ...request, mode: "replace" },
    key,
    strip: getStrip(draft.project, id),
    saved: named,
  };
  const hasLook = askedFor(saved, request).includes("look") && isOn(input.except, key, "look");
  const look = hasLook ? take(draft, planPart(context, "look")) : [];
  const [first, ...rest] = planParts(context, look);
  const parts = first && placed ? [{ ...first, steps: [placed.id, ...first.steps] }, ...rest] : [];
  draft.rows.push({ strip: id, key, isNew: true, parts });
}

function planNewStrip({ draft, input, request, id, key, saved, newName, after }: Target): void {
  if (!saved || newName === null) return;
  const held = askedFor(saved, request);
  const on = held.filter((part) => isOn(input.except, key, part));
  const row = (steps: readonly Step[]): PlanRow => ({
    strip: id,
    key,
    isNew: true,
    parts: held.map((part) => ({ part, on: on.includes(part), steps: steps.map((s) => s.id) })),
  });
  if (on.length === 0) {
    draft.rows.push(row([]));
    return;
  }
  const empty = blankFor(draft.project, saved, id, freeStripName(draft.project, newName));
  const blank = { ...empty, source: saved.source ?? empty.source };
  draft.blanks.push(blank);
  // The parts are planned as onto a strip that stands there already; what comes out is placed in one step.
  const standing: Draft = {
    ...draft,
    project: { ...draft.project, strips: [...draft.project.strips, blank] },
    steps: [],
  };
  for (const part of on) {
    const strip = getStrip(standing.project, id);
    const context = { draft: standing, input, request: { ...request, mode: "replace" as const }, key, strip, saved };
    take(standing, planPart(context, part));
  }
  const step: Step = {
    id: input.mint(),
    strip: id,
    kind: "placeStrip",
    from: null,
    to: { strip: getStrip(standing.project, id), after: standsIn(draft, after) },
  };
  draft.rows.push(row(take(draft, [step])));
}

/** Whether a plan may be applied without being shown: no question, and nothing but its targets changes. */
export const mayApplyDirectly = (plan: Plan): boolean => plan.questions.length === 0 && plan.notes.length === 0;
