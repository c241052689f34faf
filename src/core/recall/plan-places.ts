import type { StripRef } from "../chains/chain";
import { asStrip } from "../presets/as-strip";
import { type Content, type KeyedStrip, type Strips, isStrips, withFrom } from "../presets/preset";
import { findStrip } from "../projects/project";
import { type PartName } from "../strips/parts";
import { type SavedStrip, partsOf, stripName, withAims } from "../strips/strip";
import { faceOfStrip, mayGoOnto } from "./match/alike";
import { type Match, matchStrips } from "./match/match";
import type { Exception, PlanInput, PlanRow, PlannedMatch, Question, RecallRequest, SetTargets } from "./plan-shape";

/* Which strips of a project what is brought goes to. */

/** One strip of a source, and the strip here that it goes to. */
export interface Placement {
  readonly request: RecallRequest;
  /** What it brings, its references among several strips found here; null where it cannot go onto one. */
  readonly saved: SavedStrip | null;
  readonly id: string;
  /** What it is switched off by: its id, or of a new one of a set what its match is called, since ids of new ones are new each time. */
  readonly key: string;
  /** How a new one would be called; null for a strip that is there. */
  readonly newName: string | null;
  /** Behind which strip a new one comes to stand. */
  readonly after: string | null;
}

export interface Places {
  readonly placements: readonly Placement[];
  /** New strips of which all is switched off: they are not made, and can be switched on again. */
  readonly idle: readonly PlanRow[];
  readonly matches: readonly PlannedMatch[];
  readonly questions: readonly Question[];
}

export const isOn = (except: readonly Exception[], strip: string, part: PartName): boolean =>
  !except.some((e) => e.send === undefined && (e.strip ?? strip) === strip && (e.part ?? part) === part);

/** Whether a single send of a strip is on, where its sends are. */
export const isSendOn = (except: readonly Exception[], strip: string, send: string): boolean =>
  !except.some((e) => e.send === send && (e.strip ?? strip) === strip);

/** The parts of a saved strip that a request asks for. */
export const askedFor = (saved: SavedStrip, { parts }: RecallRequest): readonly PartName[] =>
  partsOf(saved).filter((part) => parts.includes(part));

/** What a source brings, with where it comes from. */
const contentOf = ({ source: { content, from } }: RecallRequest): Content => (from ? withFrom(content, from) : content);

/** Where everything goes. `makes`: the id of the new strip for what is told apart by these words. */
export function findPlaces(input: PlanInput, makes: (what: string) => string): Places {
  const all = input.requests.map((request, at) => placesOf({ input, request, at, makes }));
  return {
    placements: all.flatMap(({ placements }) => placements),
    idle: all.flatMap(({ idle }) => idle),
    matches: all.flatMap(({ matches }) => matches),
    questions: all.flatMap(({ questions }) => questions),
  };
}

const only = (placements: readonly Placement[]): Places => ({ placements, idle: [], matches: [], questions: [] });

function placesOf({ input, request, at, makes }: Omit<OfSet, "content" | "to">): Places {
  const { targets, source } = request;
  const content = contentOf(request);
  // Null for several strips.
  const saved = asStrip(content);
  if ("strips" in targets)
    return only(targets.strips.map((id) => ({ request, saved, id, key: id, newName: null, after: null })));
  if ("slot" in targets) {
    const { strip } = targets.slot;
    // A place takes what stands in one: plugins.
    const inserts = saved?.inserts && { kind: saved.kind, inserts: saved.inserts };
    return only([{ request, saved: inserts ?? null, id: strip, key: strip, newName: null, after: null }]);
  }
  if ("newStrip" in targets) {
    const id = makes(`new ${at}`);
    const { after } = targets.newStrip;
    return only(saved ? [{ request, saved, id, key: `new:${at}`, newName: source.name, after }] : []);
  }
  return isStrips(content) ? placesOfSet({ input, request, at, content, to: targets.set, makes }) : only([]);
}

interface OfSet {
  readonly input: PlanInput;
  readonly request: RecallRequest;
  /** Which of the requests it is. */
  readonly at: number;
  readonly content: Strips;
  readonly to: SetTargets;
  readonly makes: (what: string) => string;
}

const NEW = "new";
const OUT = "out";
/** An answer that names a strip, which may be called by any id. */
export const answerFor = (strip: string): string => `strip:${strip}`;
const stripIn = (answer: string): string | null => (answer.startsWith("strip:") ? answer.slice("strip:".length) : null);

/** What is compared of a strip of a set. */
const faceOf = (strip: KeyedStrip, among: readonly KeyedStrip[]) => {
  const output = strip.routing?.output;
  const group =
    output && "strip" in output
      ? (among.find(({ id }) => id === output.strip)?.name ?? null)
      : output && "external" in output && output.kind === "group"
        ? output.name
        : null;
  return { id: strip.id, kind: strip.kind, name: strip.name, group, inserts: strip.inserts, source: strip.source };
};

/** Who goes to whom before anything is answered. All onto new ones, only a main output finds that of the project. */
function firstMatches({ input: { project }, request, content, to }: OfSet): readonly Match[] {
  const here = project.strips.filter(({ id, kind }) =>
    to.onto === NEW ? kind === "main" : to.among === null || to.among.includes(id),
  );
  const itself = request.source.isOfSame
    ? new Set(content.strips.flatMap(({ id, kind }) => here.find((s) => s.id === id && s.kind === kind)?.id ?? []))
    : NOBODY;
  const others = matchStrips(
    content.strips.filter(({ id }) => !itself.has(id)).map((strip) => faceOf(strip, content.strips)),
    here.filter(({ id }) => !itself.has(id)).map((strip) => faceOfStrip(project, strip)),
  );
  const found = new Map(others.map((match) => [match.saved, match]));
  return content.strips.map(
    ({ id }) => found.get(id) ?? { saved: id, strip: id, reason: "the same strip", confidence: 1 },
  );
}

const NOBODY: ReadonlySet<string> = new Set();

/** Which strips are taken already, and which of those here one of a set may go to. */
const freeFor =
  ({ input: { project } }: OfSet, taken: ReadonlySet<string>) =>
  (strip: KeyedStrip, answer: string): boolean => {
    const there = findStrip(project, stripIn(answer) ?? "");
    return there !== null && !taken.has(answer) && mayGoOnto(strip, there);
  };

/** The answer in force: the one that is given, where it can be, else what was found. */
function answerInForce(given: string | undefined, first: string, isFree: (answer: string) => boolean): string {
  if (given !== undefined && (given === NEW || given === OUT || isFree(given))) return given;
  // One that an answer has taken away is one of its own.
  return first === NEW || isFree(first) ? first : NEW;
}

/** The strips of a set, each at its place; those that are left out have none. */
function placesOfSet(of: OfSet): Places {
  const { input, request, at, content, to, makes } = of;
  const { project, answers } = input;
  const taken = new Set<string>();
  const isFree = freeFor(of, taken);
  const questions: Question[] = [];
  const matches = firstMatches(of).map((match, n): PlannedMatch => {
    const strip = content.strips[n]!;
    const id = `match:${at}:${strip.id}`;
    const first = match.strip === null ? NEW : answerFor(match.strip);
    const answer = answerInForce(answers[id], first, (one) => isFree(strip, one));
    if (match.strip === null && to.onto !== NEW) {
      const others = project.strips.filter((s) => isFree(strip, answerFor(s.id)));
      questions.push({
        id,
        strip: "",
        text: `Nothing here is like “${strip.name}”.`,
        choices: [
          { id: NEW, text: "Make a strip for it" },
          { id: OUT, text: "Leave it out" },
          ...others.map((s) => ({ id: answerFor(s.id), text: `Use ${stripName(s)}` })),
        ],
        answer,
      });
    }
    if (stripIn(answer) !== null) taken.add(answer);
    const isChosen = answer !== first;
    return {
      id,
      saved: strip.id,
      name: strip.name,
      kind: strip.kind,
      answer,
      strip: answer === NEW ? makes(id) : stripIn(answer),
      reason: isChosen ? "chosen" : match.reason,
      confidence: isChosen ? 1 : match.confidence,
    };
  });
  // One of which nothing is wanted is not made.
  const wanted = matches.map((match, n) =>
    isWanted(of, match, content.strips[n]!) ? match : { ...match, strip: null },
  );
  const idle = matches.flatMap((match, n): PlanRow[] =>
    match.answer === NEW && match.strip !== null && wanted[n]!.strip === null
      ? [
          {
            strip: match.strip,
            key: match.id,
            isNew: true,
            parts: askedFor(content.strips[n]!, request).map((part) => ({ part, on: false, steps: [] })),
          },
        ]
      : [],
  );
  return { placements: placementsOf(of, wanted), idle, matches: wanted, questions };
}

const isWanted = (
  { input: { except }, request }: OfSet,
  { id, answer, strip }: PlannedMatch,
  saved: KeyedStrip,
): boolean => strip !== null && (answer !== NEW || askedFor(saved, request).some((part) => isOn(except, id, part)));

/** What a set brings to each strip that is found for it. */
function placementsOf({ request, content, to }: OfSet, matches: readonly PlannedMatch[]): readonly Placement[] {
  const targets = new Map(matches.flatMap(({ saved, strip }) => (strip === null ? [] : [[saved, strip]])));
  const names = new Map(content.strips.map(({ id, kind, name }) => [id, { external: true as const, kind, name }]));
  /** Among themselves they lead to where each goes; to one that is left out, by its name. */
  const aim = (ref: StripRef): StripRef | null => {
    if (!("strip" in ref)) return ref;
    const target = targets.get(ref.strip);
    return target === undefined ? (names.get(ref.strip) ?? null) : { strip: target };
  };
  let behind = to.after;
  return content.strips.flatMap((strip): Placement[] => {
    const id = targets.get(strip.id);
    if (id === undefined) return [];
    const { id: _, name: __, ...saved } = withAims(strip, aim);
    const fresh = matches.find((match) => match.saved === strip.id && match.answer === NEW);
    if (!fresh) return [{ request, saved, id, key: id, newName: null, after: null }];
    const placement = { request, saved, id, key: fresh.id, newName: strip.name, after: behind };
    behind = id;
    return [placement];
  });
}
