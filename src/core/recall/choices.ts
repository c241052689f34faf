import { asStrip } from "../presets/as-strip";
import { type Content, isStrips } from "../presets/preset";
import { PART, PARTS, type PartName } from "../strips/parts";
import { partsOf } from "../strips/strip";

/* Parts that are chosen together, under a name. */

export interface Choice {
  readonly name: string;
  readonly parts: readonly PartName[];
}

const EVERYTHING: Choice = { name: "Everything", parts: PARTS };

/** Those that everybody has. */
const COMMON_CHOICES: readonly Choice[] = [
  EVERYTHING,
  { name: "Processing only", parts: ["inserts"] },
  { name: "Sound without level", parts: ["source", "inserts", "sends", "pan"] },
  { name: "Sends only", parts: ["sends"] },
  { name: "Level and pan", parts: ["level", "pan"] },
  { name: "Routing only", parts: ["routing"] },
];

/** Taken only where somebody asks for them. */
const ONLY_ASKED: readonly PartName[] = ["media"];

/** Those parts that are taken where nothing else is asked for: all, but clips; those too where there is nothing else. */
export function usualOf(held: readonly PartName[]): readonly PartName[] {
  const usual = held.filter((part) => !ONLY_ASKED.includes(part));
  return usual.length > 0 ? usual : held;
}

/** What sounds: a version is taken for that, and faders stay where they are. */
export const SOUND: readonly PartName[] = ["source", "inserts"];

/** The parts that there are of something saved, of several strips those of any. */
export function heldBy(content: Content): readonly PartName[] {
  const strips = isStrips(content) ? content.strips : [asStrip(content)].filter((strip) => strip !== null);
  return PARTS.filter((part) => strips.some((strip) => partsOf(strip).includes(part)));
}

/** What a choice takes of what there is, in the order of the columns. */
export const takenBy = ({ parts }: Pick<Choice, "parts">, held: readonly PartName[]): readonly PartName[] =>
  PARTS.filter((part) => held.includes(part) && parts.includes(part));

const isSame = (a: readonly PartName[], b: readonly PartName[]): boolean => a.join() === b.join();

/** Choices that take something of what there is, each other than those before it. */
export function choicesFor(own: readonly Choice[], held: readonly PartName[]): readonly Choice[] {
  const offered: Choice[] = [];
  for (const choice of [...COMMON_CHOICES, ...own]) {
    const taken = takenBy(choice, held);
    if (taken.length > 0 && !offered.some((other) => isSame(takenBy(other, held), taken))) offered.push(choice);
  }
  return offered;
}

/** What some parts of what there is are called together; null where no choice is just these. */
export const choiceOf = (
  choices: readonly Choice[],
  held: readonly PartName[],
  parts: readonly PartName[],
): Choice | null => choices.find((choice) => isSame(takenBy(choice, held), parts)) ?? null;

/** What is remembered of the parts that were taken: the usual ones stay the usual ones, whatever else has. */
export const rememberedAs = (held: readonly PartName[], parts: readonly PartName[]): readonly PartName[] | null =>
  isSame(usualOf(held), parts) || parts.length === 0 ? null : parts;

/** The parts with which one begins: those that were taken last, where there is something of them, else the usual ones. */
export function beginWith(held: readonly PartName[], last: readonly PartName[] | undefined): readonly PartName[] {
  const taken = last ? takenBy({ parts: last }, held) : [];
  return taken.length > 0 ? taken : usualOf(held);
}

/** "only the sends", "only the level and the pan", "with the clips"; null for what is usual. */
export function onlyWords(held: readonly PartName[], parts: readonly PartName[]): string | null {
  if (isSame(usualOf(held), parts)) return null;
  if (isSame(held, parts)) return "with the clips";
  const [last, ...before] = parts.map((part) => PART[part].phrase).toReversed();
  return before.length === 0 ? `only ${last}` : `only ${before.toReversed().join(", ")} and ${last}`;
}
