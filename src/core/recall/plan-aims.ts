import { EMPTY_CHAIN, type StripRef } from "../chains/chain";
import type { StripKind } from "../documents/strip-kinds";
import { fold } from "../names/words";
import { soundingText } from "../presets/fingerprint";
import type { KeyedStrip } from "../presets/preset";
import { saveChain } from "../presets/save";
import { type Project, findStrip, freeStripName } from "../projects/project";
import { standsWithin } from "../projects/nesting";
import { namesAlong, wayOf } from "../projects/signal-flow";
import type { PartName } from "../strips/parts";
import type { AimQuestion, Aims, Part } from "../strips/parts/part";
import { type SavedStrip, type Strip, createStrip, stripName } from "../strips/strip";
import { applySteps } from "./apply";
import { type Lead, type Loops, leadKey } from "./plan-flow";
import type { PlanInput, PlanNote, PlanRow, Question, RecallRequest } from "./plan-shape";
import type { Step } from "./steps";

/* How what is saved with a name finds its strip in a project. */

/** What is being put together; `project` is the project as the steps so far leave it. */
export interface Draft {
  project: Project;
  /** Strips that are new, with nothing set. */
  readonly blanks: Strip[];
  /** The id of the strip that an answer makes, by its question. */
  readonly makes: (question: string) => string;
  /** Strips that answers have made. */
  readonly made: Made[];
  /** What the plan would lead where, and which of that it may not, since it closes a loop. */
  readonly leads: Lead[];
  readonly replaced: Map<string, ReadonlySet<string>>;
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
  /** What its row is called. */
  readonly key: string;
  readonly strip: Strip;
  readonly saved: SavedStrip;
}

/** Puts a question, once, and gives the answer in force: that which was given, where it is one of the choices. */
export function ask(draft: Draft, { answers }: PlanInput, question: Question): string {
  const given = answers[question.id];
  const answer = question.choices.find(({ id }) => id === given)?.id ?? question.answer;
  if (!draft.questions.some(({ id }) => id === question.id)) draft.questions.push({ ...question, answer });
  return answer;
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
  let stays = false;
  const none = (ref: StripRef): StripRef | null => {
    if (aims.whenNone === "leftOut") return null;
    stays = true;
    return ref;
  };
  const aim = (ref: StripRef): StripRef | null => {
    const here = anotherThan(context, ref) ?? findHere(draft.project, ref, draft.made);
    const { question, takes } = aims;
    const found = here ?? (question && askFor(context, part, { ...question, takes }, ref));
    if (!found) return question?.keepsName ? ref : none(ref);
    if (aims.way === null) return mayStandIn(draft.project, strip, found.strip) ? found : none(ref);
    const loop = loopBy(draft, { ...wayOf(aims.way, strip.id, found.strip), strip: strip.id, part });
    if (!loop) return found;
    // What comes back to itself at once is no news.
    if (found.strip !== strip.id) draft.notes.push({ strip: strip.id, text: loopWords(context, part, loop) });
    return none(ref);
  };
  const mapped = aims.mapped(value, aim);
  return stays ? null : { value: mapped };
}

/** Whether a strip may stand in a folder: in one that is there, and not within itself. */
function mayStandIn(project: Project, strip: Strip, folder: string): boolean {
  const there = findStrip(project, folder);
  return there?.kind === "folder" && there.id !== strip.id && !standsWithin(project, there, strip.id);
}

/** As a bus to which something leads is where that comes from; null where that is not known. */
function busThere({ request: { source } }: PartContext, ref: StripRef): KeyedStrip | null {
  if (!("external" in ref)) return null;
  return source.around?.find(({ kind, name }) => kind === ref.kind && fold(name) === fold(ref.name)) ?? null;
}

const soundOf = ({ inserts }: Pick<SavedStrip, "inserts">): string => soundingText(saveChain(inserts ?? EMPTY_CHAIN));

/** A bus of the same name is here, and set otherwise: that one, or another beside it, made as it is there. Null for the one here. */
function anotherThan(context: PartContext, ref: StripRef): { readonly strip: string } | null {
  const { draft, input, request, strip } = context;
  const there = busThere(context, ref);
  const here = resolveRef(draft.project, ref);
  if (!there || !here || here.kind === "main" || draft.made.some(({ id }) => id === here.id)) return null;
  if (soundOf(there) === soundOf(here)) return null;
  const name = stripName(here);
  const id = `same:${here.kind}:${fold(name)}`;
  const answer = ask(draft, input, {
    id,
    strip: strip.id,
    text: `“${name}” is here already, set otherwise than where “${request.source.name}” comes from.`,
    choices: [
      { id: "here", text: `Use the ${here.kind} that is here` },
      { id: "make", text: "Make another, as it is there" },
    ],
    answer: "here",
  });
  if (answer === "here") return null;
  const made = draft.makes(id);
  if (!findStrip(draft.project, made))
    makeStrip(draft, input, { id: made, kind: here.kind, name: freeStripName(draft.project, name), as: there });
  return { strip: made };
}

/** The loop that a lead would close; null where it may be. */
function loopBy({ leads, loops }: Draft, lead: Lead): readonly string[] | null {
  leads.push(lead);
  return loops.get(leadKey(lead)) ?? null;
}

function loopWords({ draft, strip }: PartContext, part: PartName, loop: readonly string[]): string {
  const way = namesAlong(draft.project, loop).join(" → ");
  const what =
    part === "routing"
      ? "The output stays"
      : part === "sends"
        ? `A send of ${stripName(strip)} is left out`
        : `A plugin of ${stripName(strip)} hears itself`;
  return `${what}: ${way} would be a loop.`;
}

/** What is asked, and which strips can take the place of the missing one. */
type Asked = AimQuestion & Pick<Aims<unknown>, "takes">;

/** What can be answered where a strip is missing. */
function choicesFor({ draft, strip }: PartContext, { of, leave, takes }: Asked, makes: Omit<Made, "id" | "as"> | null) {
  const isMade = (id: string) => draft.made.some((made) => made.id === id);
  const others = draft.project.strips.filter(
    (s) => takes(s.kind) && (of === "all" || s.id !== strip.id) && !isMade(s.id),
  );
  return [
    { id: "leave", text: leave },
    ...(makes ? [{ id: "make", text: `Make a ${makes.kind} called ${makes.name} here` }] : []),
    ...others.map((s) => ({ id: s.id, text: `Use ${stripName(s)} instead` })),
  ];
}

const nameOfMissing = (ref: StripRef): string => ("name" in ref ? ref.name : ref.strip);

/** What is asked has one id: of each strip by itself, or of all that lead to what is missing. */
const questionId = (part: PartName, of: AimQuestion["of"], strip: string, missing: StripRef): string =>
  of === "each"
    ? `${part}:${strip}`
    : [part, ...("kind" in missing ? [missing.kind] : []), fold(nameOfMissing(missing))].join(":");

/** What is to take the place of a strip that is missing here, by the answer in force; null for none. */
function askFor(
  context: PartContext,
  part: PartName,
  question: Asked,
  missing: StripRef,
): { readonly strip: string } | null {
  const { draft, input, strip } = context;
  const name = nameOfMissing(missing);
  const makes = "kind" in missing && question.makes(missing.kind) ? { kind: missing.kind, name } : null;
  const id = questionId(part, question.of, strip.id, missing);
  const asked = draft.questions.find((q) => q.id === id);
  const choices = asked?.choices ?? choicesFor(context, question, makes);
  const given = input.answers[id];
  const answer = choices.find((c) => c.id === given)?.id ?? "leave";
  if (!asked)
    draft.questions.push({ id, strip: strip.id, text: question.text(name, stripName(strip)), choices, answer });
  if (answer === "leave") return null;
  if (answer !== "make" || !makes) return { strip: answer };
  const made = draft.makes(id);
  if (!findStrip(draft.project, made)) makeStrip(draft, input, { id: made, ...makes, as: busThere(context, missing) });
  return { strip: made };
}

export interface Made {
  readonly id: string;
  readonly kind: StripKind;
  readonly name: string;
  /** What it is set to; nothing where that is not known. */
  readonly as?: SavedStrip | null;
}

/** What a made strip has of the one that it is made after: what it sounds like, and how loud it is. */
const soundingLike = ({ inserts, level, pan }: SavedStrip): Partial<Strip> => ({
  ...(inserts ? { inserts } : {}),
  ...(level ? { level } : {}),
  ...(pan ? { pan } : {}),
});

/** A strip with nothing set but what it is made after, behind those that are there, on its way to the main output. */
export function makeStrip(draft: Draft, input: PlanInput, made: Made): void {
  const { id, kind, name } = made;
  draft.made.push(made);
  const main = draft.project.strips.find((s) => s.kind === "main");
  const blank = createStrip(id, kind, { name }, main ? { strip: main.id } : null);
  const strip: Strip = { ...blank, ...(made.as ? soundingLike(made.as) : {}) };
  const after = input.project.strips.at(-1)?.id ?? null;
  draft.blanks.push(strip);
  const [step] = take(draft, [{ id: input.mint(), kind: "placeStrip", strip: id, from: null, to: { strip, after } }]);
  draft.rows.push({
    strip: id,
    key: id,
    isNew: true,
    parts: [{ part: "look", on: true, steps: step ? [step.id] : [] }],
  });
}

/** Adds steps to the draft. */
export function take(draft: Draft, steps: readonly Step[]): readonly Step[] {
  const applied = applySteps(draft.project, steps);
  if (!applied.ok) throw new Error(`A planned step does not fit: ${applied.error.reason}`);
  draft.project = applied.value;
  draft.steps.push(...steps);
  return steps;
}

/** A reference to a strip of this project, but some: by its id, or by kind and name for one that comes from outside. */
export function findHere(
  project: Project,
  ref: StripRef,
  but: readonly Made[] = [],
): { readonly strip: string } | null {
  const found = resolveRef(project, ref);
  return found && !but.some(({ id }) => id === found.id) ? { strip: found.id } : null;
}

function resolveRef(project: Project, ref: StripRef): Strip | null {
  if ("strip" in ref) return findStrip(project, ref.strip);
  const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();
  const alike = project.strips.filter((s) => s.kind === ref.kind);
  const named = alike.find((s) => same(stripName(s), ref.name));
  // The main output of another project is that of this one, whatever it is called.
  return named ?? (ref.kind === "main" && alike.length === 1 ? alike[0]! : null);
}
