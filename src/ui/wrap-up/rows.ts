import type { SweepFinds, WrapUp } from "@/contracts/wrap-up";
import { type Processor, processorName } from "@/core/chains/chain";
import { processorsOf } from "@/core/chains/tree";
import { insideOf } from "@/core/library/inside";
import { applyPattern } from "@/core/library/pattern";
import { counted } from "@/core/names/count";
import { type Card, type PresetKind, chainOf, emptyCard } from "@/core/presets/preset";
import { type Project, stripsById } from "@/core/projects/project";
import type { Strip } from "@/core/strips/strip";
import { type Find, findsIn, isAloneIn } from "@/core/wrap-up/finds";

type Told = WrapUp["finds"][number];
type Swept = SweepFinds["finds"][number];

/** A find with how it stands to the library. */
export interface Row
  extends Omit<Find, "strips">,
    Pick<Told, "fingerprint" | "standing" | "nearest" | "work" | "weight"> {
  readonly strips: number;
  readonly strip: Pick<Strip, "id" | "kind" | "look">;
  readonly tempo: number;
  readonly processors: readonly Processor[];
  /** It is in no chain that stands there too. */
  readonly isAlone: boolean;
  readonly isProposed: boolean;
  readonly wasLeft: boolean;
  /** How it would be filed, without a name. */
  readonly card: Card;
  /** Where else it was found, in other projects or strips: "Lead in Neap Tide". */
  readonly alsoAt: readonly string[];
}

/** What was found of a strip, or of a project among several. */
export interface Block {
  readonly id: string;
  readonly title: string;
  /** Null for a project. */
  readonly strip: Row["strip"] | null;
  readonly rows: readonly Row[];
}

export const isKept = ({ standing: { is } }: Pick<Row, "standing">): boolean => is === "kept";

const cardOf = (told: Partial<Card> | undefined, from: Find["from"]): Card => {
  const card = { ...emptyCard(""), ...told };
  return from ? { ...card, origin: { ...card.origin, from } } : card;
};

function rowOf(project: Project, find: Find, told: Told, { cards }: WrapUp): Row | null {
  const { key: _, level: __, strip: id, ...stands } = told;
  const strip = stripsById(project).get(id);
  return (
    (strip && {
      ...find,
      ...stands,
      strips: find.strips.length,
      strip,
      tempo: project.tempo,
      processors: processorsOf(chainOf(find.content)),
      isAlone: isAloneIn(project, find),
      card: cardOf(cards[id], find.from),
      alsoAt: [],
    }) ??
    null
  );
}

const sweptRow = ({ id, card, project, others, place: { strip, layer, node }, ...swept }: Swept): Row => ({
  ...swept,
  key: id,
  place: { strip, ...(layer === undefined ? {} : { layer }), ...(node === undefined ? {} : { node }) },
  tempo: project.tempo,
  processors: processorsOf(chainOf(swept.content)),
  card: cardOf(card, swept.from),
  alsoAt: others.map((other) => `${other.strip} in ${other.project}`),
});

/** Where nothing is proposed there is nothing to do; of the rest the one with the most work in what the library has not is first. */
const weightOf = ({ rows }: Block): number =>
  Math.max(0, ...rows.filter((row) => !isKept(row)).map(({ weight, isProposed }) => weight + (isProposed ? MORE : 0)));

/** More than any weight. */
const MORE = 10;

/** Rows in blocks, those with something to file first, by how much work is in it; of each what is proposed first. */
function inBlocks(rows: readonly Row[], headOf: (row: Row) => Omit<Block, "rows">): readonly Block[] {
  const blocks = new Map<string, Omit<Block, "rows"> & { readonly rows: Row[] }>();
  for (const row of rows) {
    const head = headOf(row);
    const block = blocks.get(head.id) ?? { ...head, rows: [] };
    block.rows.push(row);
    blocks.set(head.id, block);
  }
  return [...blocks.values()]
    .map((block) => ({ ...block, rows: block.rows.toSorted((a, b) => Number(b.isProposed) - Number(a.isProposed)) }))
    .toSorted((a, b) => weightOf(b) - weightOf(a));
}

/** What was found in a project, strip by strip; of each the largest first. */
export function blocksOf(project: Project, told: WrapUp): readonly Block[] {
  const byKey = new Map(told.finds.map((find) => [find.key, find]));
  const rows = findsIn(project).flatMap((find) => {
    const stands = byKey.get(find.key);
    return (stands && rowOf(project, find, stands, told)) ?? [];
  });
  return inBlocks(rows.toReversed(), ({ strip }) => ({ id: strip.id, title: strip.look.name, strip }));
}

/** What was found in several projects, by the project that each goes by. */
export function sweptBlocks({ finds }: SweepFinds): readonly Block[] {
  const projectOf = new Map(finds.map(({ id, project }) => [id, project]));
  return inBlocks(finds.map(sweptRow), ({ key }) => {
    const { id, name } = projectOf.get(key)!;
    return { id, title: name, strip: null };
  });
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

/** "also Lead in Neap Tide and 3 more"; nothing where it stands in one place. */
export function alsoWords({ alsoAt: [first, ...others] }: Pick<Row, "alsoAt">): string {
  if (first === undefined) return "";
  return others.length === 0 ? `also ${first}` : `also ${first} and ${others.length} more`;
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
