import type { WrapUp } from "@/contracts/wrap-up";
import { type Processor, processorName } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { insideOf } from "@/core/library/inside";
import { applyPattern } from "@/core/library/pattern";
import { counted } from "@/core/names/count";
import { type Card, type PresetKind, chainOf, emptyCard } from "@/core/presets/preset";
import { type Project, stripsById } from "@/core/projects/project";
import type { Strip } from "@/core/strips/strip";
import { type Find, findsIn } from "@/core/wrap-up/finds";

type Told = WrapUp["finds"][number];

/** A find with how it stands to the library. */
export interface Row extends Omit<Find, "strips">, Pick<Told, "standing" | "nearest" | "work" | "weight"> {
  readonly fingerprint: string;
  readonly strips: number;
  readonly strip: Strip;
  readonly processors: readonly Processor[];
  readonly isProposed: boolean;
  readonly wasLeft: boolean;
  /** How it would be filed, without a name. */
  readonly card: Card;
}

/** A strip with all that was found of it, the dearest first. */
export interface Block {
  readonly strip: Strip;
  readonly rows: readonly Row[];
}

export const isKept = ({ standing: { is } }: Pick<Row, "standing">): boolean => is === "kept";

function rowOf(find: Find, told: Told, strip: Strip, cards: WrapUp["cards"]): Row {
  const { key: _, level: __, strip: ___, ...stands } = told;
  const { from } = find;
  const card = { ...emptyCard(""), ...cards[strip.id] };
  return {
    ...find,
    ...stands,
    strips: find.strips.length,
    strip,
    processors: processorsOf(chainOf(find.content)),
    card: from ? { ...card, origin: { ...card.origin, from } } : card,
  };
}

/** Whether it stands by itself: it is in no chain that stands there too. */
export const isAlone = ({ level, place, strip }: Row): boolean =>
  level !== "plugin" || place.layer !== undefined || processorsOf(strip.inserts).length < 2;

/** Where nothing is proposed there is nothing to do; of the rest the one with the most work in what the library has not is first. */
const weightOf = ({ rows }: Block): number =>
  Math.max(0, ...rows.filter((row) => !isKept(row)).map(({ weight, isProposed }) => weight + (isProposed ? MORE : 0)));

/** More than any weight. */
const MORE = 10;

/** What was found, strip by strip: those with something to file first, by how much work is in it; of each what is proposed first. */
export function blocksOf(project: Project, { finds, cards }: WrapUp): readonly Block[] {
  const strips = stripsById(project);
  const told = new Map(finds.map((find) => [find.key, find]));
  const blocks = new Map<string, Row[]>();
  for (const find of findsIn(project)) {
    const [stands, strip] = [told.get(find.key), strips.get(find.place.strip)];
    if (!stands || !strip) continue;
    const beside = blocks.get(strip.id) ?? [];
    blocks.set(strip.id, beside);
    beside.push(rowOf(find, stands, strip, cards));
  }
  return [...blocks]
    .map(([id, rows]) => ({
      strip: strips.get(id)!,
      rows: rows.toReversed().toSorted((a, b) => Number(b.isProposed) - Number(a.isProposed)),
    }))
    .toSorted((a, b) => weightOf(b) - weightOf(a));
}

/** What a find is, beside the name of its strip. */
export function levelWords({ level, processors, strips, place }: Row): string {
  switch (level) {
    case "plugin":
      return processors[0] ? processorName(processors[0]) : "Plugin";
    case "chain":
      return `${place.layer === undefined ? "Chain" : "Effects inside"} of ${processors.length}`;
    case "sends":
      return "Sends";
    case "strip":
      return "Strip";
    case "set":
      return `Set of ${counted(strips, "strip")}`;
  }
}

/** How far apart, as people say it. */
const percent = (distance: number): string => `${Math.max(1, Math.round(100 * distance))} % away`;

/** How it stands to the library. */
export function standingWords({ standing }: Pick<Row, "standing">): string {
  switch (standing.is) {
    case "kept":
      return `in the library: ${standing.name}`;
    case "changed":
      return `changed since version ${standing.version} of ${standing.name}`;
    case "near":
      return `nearly ${standing.name}, ${percent(standing.distance)}`;
    case "new":
      return "not in the library";
  }
}

/** How much work is in it; nothing where nobody has counted any. */
export function workWords({ work: { changes, minutes } }: Pick<Row, "work">): string {
  if (changes === 0) return "";
  return minutes < 1 ? counted(changes, "change") : `${counted(changes, "change")}, ${Math.round(minutes)} min`;
}

/** Its name by the pattern of its kind. */
export function nameBy(patterns: Readonly<Record<PresetKind, string>>, row: Row, at: number): string {
  const { content, card, name } = row;
  const named = { kind: content.kind, card, inside: insideOf(content) };
  // A plugin beside the chain that it is in would have its name.
  const pattern = row.level === "sends" ? "{strip}, sends, {song}" : patterns[content.kind];
  return applyPattern(pattern, named, at) || name;
}
