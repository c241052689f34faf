import { withoutClashes } from "../names/free";
import { type Named, applyPattern } from "./pattern";
import { fold, wordsOf } from "../names/words";

/** What can be wrong with a name, and what a person is told. */
export const NAMING_FAULTS = {
  unnamed: "has no word in it",
  placeholder: "says nothing about the sound",
  numbered: "is told from others by a number only",
  copy: "is called a copy, an old one or a last one",
  clash: "is the name of another, too",
  origin: "does not tell where it is from, nor what it is for",
} as const;

export type NamingFault = keyof typeof NAMING_FAULTS;

export interface Nameable extends Named {
  readonly id: string;
}

export interface NamingFinding {
  readonly id: string;
  readonly faults: readonly NamingFault[];
  /** A name that would tell more; null where nothing more is known of it. */
  readonly proposed: string | null;
}

/** Words that stand where a name was to come. */
const PLACEHOLDERS = new Set(
  "untitled unnamed new sound preset default init temp tmp test testing asdf qwer xxx foo bar name later todo track strip audio channel chain insert plugin effect fx comp compressor eq equaliser equalizer reverb verb delay gate limiter bus aux send return group main master vox vocal misc stuff thing something".split(
    " ",
  ),
);
/** Words that tell of another name, not of the sound. */
const COPIES = new Set(
  "copy old older final newest last latest backup bak dup duplicate version ver rev v2 v3".split(" "),
);
/** "Copy of drums", "Voice, copy 2", "leveller (old)", "vox FINAL"; but not "Old receiver". */
const CALLED_A_COPY =
  /^(copy|duplicate|backup) |[\s,(]+(copy|duplicate|backup|old|older|final|latest|newest)\)?( \d+)?$/i;
/** Words that hold others together and say nothing themselves. */
const EMPTY = new Set("a an and at for from in my no of on or that the this to with".split(" "));

const isNumber = (word: string): boolean => /^\d+$/.test(word);

/** What is wrong with a name by itself. */
export function faultsOfName(name: string): readonly NamingFault[] {
  const words = wordsOf(name).filter((word) => !EMPTY.has(word));
  const letters = words.filter((word) => !isNumber(word));
  if (letters.length === 0) return ["unnamed"];
  const faults: NamingFault[] = [];
  const telling = letters.filter((word) => !PLACEHOLDERS.has(word) && !COPIES.has(word));
  const hasNumber = words.some(isNumber);
  if (telling.length === 0) faults.push(hasNumber ? "numbered" : "placeholder");
  if (CALLED_A_COPY.test(name)) faults.push("copy");
  return faults;
}

const knowsOrigin = ({ card: { origin, purpose } }: Named): boolean =>
  purpose !== "" || [origin.artist, origin.client, origin.song, origin.project, origin.strip].some(Boolean);

/** Patterns by which a better name is looked for; the first that says enough is taken. */
const MENDS = [
  "{purpose}, {character}",
  "{strip} {model}, {song}",
  "{purpose} {model}",
  "{model}, {character}",
  "{model}, {date}",
];

/** A pattern says enough where each of its fields has something, and the name is not faulty itself. */
function mendOf(named: Named): string | null {
  for (const pattern of MENDS) {
    const name = applyPattern(pattern, named, 1);
    const fields = pattern.match(/\{\w+\}/g) ?? [];
    const isWhole = fields.every((field) => applyPattern(field, named, 1) !== "");
    if (isWhole && faultsOfName(name).length === 0) return name;
  }
  return null;
}

/** A name that another has, with what tells the two apart. */
const toldApart = (named: Named): string | null => {
  const more = ["{song}", "{artist}", "{character}", "{date}"].map((field) => applyPattern(field, named, 1));
  const first = more.find((word) => word !== "" && !fold(named.card.name).includes(fold(word)));
  return first === undefined ? null : `${named.card.name}, ${first}`;
};

/** A name that asks to be mended, before what others are called is known. */
interface Wish {
  readonly id: string;
  readonly faults: readonly NamingFault[];
  readonly wished: string | null;
}

/** Judges names one after the other: of several of one name the first stays as it is. */
export function namingJudge(): (preset: Nameable) => Wish | null {
  const seen = new Set<string>();
  return (preset) => {
    const { name } = preset.card;
    const folded = fold(name);
    const faults = [...faultsOfName(name)];
    if (seen.has(folded)) faults.push("clash");
    seen.add(folded);
    if (!knowsOrigin(preset)) faults.push("origin");
    // Where a name tells well, a missing origin alone is no fault of the name, unless it is a single word.
    const isFaulty = faults.some((f) => f !== "origin") || wordsOf(name).length < 2;
    if (faults.length === 0 || !isFaulty) return null;
    const onlyClash = faults.every((f) => f === "clash" || f === "origin");
    const wished = onlyClash && faults.includes("clash") ? toldApart(preset) : mendOf(preset);
    return { id: preset.id, faults, wished };
  };
}

/** The worst first, each with a proposal that no name and no other proposal is. */
export function proposeNames(wishes: readonly Wish[], names: readonly string[]): readonly NamingFinding[] {
  const found = wishes.toSorted((a, b) => b.faults.length - a.faults.length);
  const free = withoutClashes(
    found.flatMap(({ wished }) => wished ?? []),
    names,
  );
  let at = 0;
  return found.map(({ id, faults, wished }) => ({ id, faults, proposed: wished === null ? null : free[at++]! }));
}

/** Names that ask to be mended, the worst first, each with a proposal that no other name and no other proposal is. */
export function findNamingFaults(presets: readonly Nameable[]): readonly NamingFinding[] {
  const judge = namingJudge();
  return proposeNames(
    presets.flatMap((preset) => judge(preset) ?? []),
    presets.map((p) => p.card.name),
  );
}
