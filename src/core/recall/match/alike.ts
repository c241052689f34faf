import { processorsOf } from "../../chains/tree";
import type { Chain } from "../../chains/chain";
import { type StripKind, isBus } from "../../documents/strip-kinds";
import { fold } from "../../names/words";
import { type StripWords, stripWords } from "../../names/instrument-words";
import { groupOf } from "../../projects/nesting";
import type { Project } from "../../projects/project";
import type { Source } from "../../strips/parts/source";
import { type Strip, stripName } from "../../strips/strip";

/** What of a strip is compared when strips of a set are to find theirs. */
export interface Face {
  readonly id: string;
  readonly kind: StripKind;
  readonly name: string;
  /** How its group is called; null where it stands in none. */
  readonly group: string | null;
  readonly inserts: Chain | undefined;
  readonly source: Source | undefined;
}

/** A strip of a project, as it is compared. */
export const faceOfStrip = (project: Project, strip: Strip): Face => ({
  id: strip.id,
  kind: strip.kind,
  name: stripName(strip),
  group: groupOf(project, strip)?.look.name ?? null,
  inserts: strip.inserts,
  source: strip.source,
});

/** How much two strips are alike: 0 to 1, and what speaks for it most, in words. `null` where they cannot be one. */
export interface Likeness {
  readonly score: number;
  readonly reason: string;
}

/** What there is to know of a face, found once. */
export interface Known extends Face {
  readonly words: StripWords;
  readonly groupWords: StripWords | null;
  readonly models: readonly string[];
}

export const known = (face: Face): Known => ({
  ...face,
  words: stripWords(face.name),
  groupWords: face.group === null ? null : stripWords(face.group),
  models: face.inserts ? processorsOf(face.inserts).map(({ model }) => model) : [],
});

/** Letters that two words share two by two (L. R. Dice, 1945): 0 to 1. */
function dice(a: string, b: string): number {
  if (a === b) return 1;
  if (a.length < 2 || b.length < 2) return 0;
  const pairs = new Map<string, number>();
  for (let at = 0; at < a.length - 1; at++) {
    const pair = a.slice(at, at + 2);
    pairs.set(pair, (pairs.get(pair) ?? 0) + 1);
  }
  let both = 0;
  for (let at = 0; at < b.length - 1; at++) {
    const pair = b.slice(at, at + 2);
    const left = pairs.get(pair) ?? 0;
    if (left > 0) {
      both++;
      pairs.set(pair, left - 1);
    }
  }
  return (2 * both) / (a.length + b.length - 2);
}

/** What of some words is met by others, 0 to 1; null where there are none on either side. A known thing weighs more than another word. */
function overlap(a: StripWords, b: StripWords): number | null {
  const weight = 2;
  const shared = a.things.filter((thing) => b.things.includes(thing)).length;
  const near = a.others.reduce((sum, word) => {
    const best = Math.max(0, ...b.others.map((other) => dice(word, other)));
    // Less than that is chance.
    return sum + (best >= 0.6 ? best : 0);
  }, 0);
  const all = weight * Math.max(a.things.length, b.things.length, shared) + Math.max(a.others.length, b.others.length);
  return all === 0 ? null : (weight * shared + near) / all;
}

/** Whether two names cannot be of one thing: two numbers, two sides. */
const conflicts = (a: StripWords, b: StripWords): boolean =>
  (a.side !== null && b.side !== null && a.side !== b.side) ||
  (a.numbers.length > 0 && b.numbers.length > 0 && a.numbers.join() !== b.numbers.join());

/** How much two names say the same, 0 to 1. */
export function nameLikeness(a: StripWords, b: StripWords): number {
  const words = overlap(a, b);
  const sides = a.side !== null || b.side !== null ? (a.side === b.side ? 1 : 0.5) : null;
  const numbers = a.numbers.length + b.numbers.length > 0 ? (a.numbers.join() === b.numbers.join() ? 1 : 0.5) : null;
  const base = words ?? 0;
  if (conflicts(a, b)) return base * 0.45;
  // What only one of them says is no great matter, where the rest is the same.
  return base * (sides ?? 1) ** 0.35 * (numbers ?? 1) ** 0.35;
}

function modelLikeness(a: readonly string[], b: readonly string[]): number | null {
  if (a.length === 0 || b.length === 0) return null;
  const left = [...b];
  let both = 0;
  for (const model of a) {
    const at = left.indexOf(model);
    if (at < 0) continue;
    both++;
    left.splice(at, 1);
  }
  return both / Math.max(a.length, b.length);
}

/** Shares of the whole that each has to say. */
const SHARE = { name: 0.68, kind: 0.12, group: 0.1, models: 0.1 } as const;

/** Whether a strip of a set may go onto one here: a bus onto a bus, a folder onto a folder. */
export const mayGoOnto = (a: Pick<Face, "kind">, b: Pick<Face, "kind">): boolean =>
  isBus(a.kind) === isBus(b.kind) && (a.kind === "folder") === (b.kind === "folder");

/** Strips that carry sound of others and such that bring their own are never one; nor is the main output any other. */
const canBe = (a: Pick<Face, "kind">, b: Pick<Face, "kind">): boolean =>
  mayGoOnto(a, b) && (a.kind === "main") === (b.kind === "main");

/** How much a strip of a set is like one of a project; null where it cannot be the same. */
export function likeness(a: Known, b: Known): Likeness | null {
  if (!canBe(a, b)) return null;
  // There is one main output, whatever it is called.
  if (a.kind === "main") return { score: 1, reason: "the main output" };
  // Of a folder there is nothing but how it is called.
  if (a.kind === "folder") return fold(a.name) === fold(b.name) ? { score: 1, reason: "the same folder" } : null;
  const name = nameLikeness(a.words, b.words);
  const kind = a.kind === b.kind ? 1 : 0.4;
  const group = a.groupWords && b.groupWords ? nameLikeness(a.groupWords, b.groupWords) : null;
  const models = modelLikeness(a.models, b.models);
  const parts = [
    [SHARE.name, name],
    [SHARE.kind, kind],
    [SHARE.group, group],
    [SHARE.models, models],
  ] as const;
  const told = parts.flatMap(([share, value]) => (value === null ? [] : [[share, value] as const]));
  const score = told.reduce((sum, [share, value]) => sum + share * value, 0) / told.reduce((sum, [s]) => sum + s, 0);
  return { score, reason: reasonFor(a, b, { name, group, models }) };
}

interface Parts {
  readonly name: number;
  readonly group: number | null;
  readonly models: number | null;
}

/** What else two names have in common: "left", "number 2". */
const alsoIn = ({ words: a }: Known, { words: b }: Known): readonly string[] => [
  ...(a.side !== null && a.side === b.side ? [a.side] : []),
  ...(a.numbers.length > 0 && a.numbers.join() === b.numbers.join() ? [`number ${a.numbers.join()}`] : []),
];

function reasonFor(a: Known, b: Known, { name, group, models }: Parts): string {
  if (a.name === b.name) return "the same name";
  const thing = a.words.things.find((one) => b.words.things.includes(one));
  if (name >= 0.4) return [thing === undefined ? "names alike" : `both ${thing}`, ...alsoIn(a, b)].join(", ");
  if ((group ?? 0) >= 0.6) return `both in ${b.group}`;
  return (models ?? 0) >= 0.5 ? "the same plugins" : "the same kind";
}
