import type { StripRef } from "../chains/chain";
import { type Project, findStrip } from "../projects/project";
import { namesAlong, wayOf } from "../projects/signal-flow";
import type { PartName } from "../strips/parts";
import type { AimQuestion, Part } from "../strips/parts/part";
import { type SavedStrip, type Strip, stripName } from "../strips/strip";
import { type Lead, type Loops, leadKey } from "./plan-flow";
import type { PlanInput, PlanNote, PlanRow, Question, RecallRequest } from "./plan-shape";
import type { Step } from "./steps";

/* How what is saved with a name finds its strip in a project. */

/** What is being put together; `project` is the project as the steps so far leave it. */
export interface Draft {
  project: Project;
  /** Strips that are new, with nothing set. */
  readonly blanks: Strip[];
  /** What the plan would lead where, and which of that it may not, since it closes a loop. */
  readonly leads: Lead[];
  readonly replaced: Set<string>;
  readonly loops: Loops;
  readonly steps: Step[];
  readonly rows: PlanRow[];
  readonly questions: Question[];
  readonly notes: PlanNote[];
}

export interface PartContext {
  readonly draft: Draft;
  readonly input: PlanInput;
  readonly request: RecallRequest;
  readonly strip: Strip;
  readonly saved: SavedStrip;
}

/**
 * A value that leads to strips of this project; null where what stands here is to be left. What would close a loop is left out, and
 * said: an output stays, a plugin hears itself.
 */
export function aimed<V>(
  context: PartContext,
  part: PartName,
  { aims }: Part<V>,
  value: V,
): { readonly value: V } | null {
  const { draft, strip } = context;
  if (!aims) return { value };
  let isLeft = false;
  const aim = (ref: StripRef): StripRef | null => {
    const found = findHere(draft.project, ref) ?? (aims.question ? askFor(context, part, aims.question, ref) : ref);
    if (found && !("strip" in found)) return found;
    const loop = found && loopBy(draft, { ...wayOf(aims.way, strip.id, found.strip), strip: strip.id, part });
    if (found && !loop) return found;
    // What comes back to itself at once is no news.
    if (loop && found.strip !== strip.id) draft.notes.push({ strip: strip.id, text: loopWords(context, part, loop) });
    if (aims.way === "in") return null;
    isLeft = true;
    return ref;
  };
  const mapped = aims.mapped(value, aim);
  return isLeft ? null : { value: mapped };
}

/** The loop that a lead would close; null where it may be. */
function loopBy({ leads, loops }: Draft, lead: Lead): readonly string[] | null {
  leads.push(lead);
  return loops.get(leadKey(lead)) ?? null;
}

function loopWords({ draft, strip }: PartContext, part: PartName, loop: readonly string[]): string {
  const way = namesAlong(draft.project, loop).join(" → ");
  return part === "routing"
    ? `The output stays: ${way} would be a loop.`
    : `A plugin of ${stripName(strip)} hears itself: ${way} would be a loop.`;
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
