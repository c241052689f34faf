import equal from "fast-deep-equal";
import { type Chain, processorName } from "../chains/chain";
import { differenceWords } from "../chains/difference-words";
import { differencesOf } from "../chains/differences";
import type { StripKind } from "../documents/strip-kinds";
import { DETAILS, sayDetail } from "../projects/details";
import { type Project, nameIn, stripsById } from "../projects/project";
import { PART, PARTS, type PartName } from "../strips/parts";
import type { Part, Surroundings } from "../strips/parts/part";
import { describeSettings, nameOfTarget } from "../strips/parts/sends";
import { layersOf } from "../strips/layers";
import { type Strip, stripName } from "../strips/strip";
import { formatPan } from "../units/format";
import { inPlace } from "./between";

/** One thing in which two moments differ, as each has it. */
export interface Line {
  readonly what: string;
  readonly from: string;
  readonly to: string;
}

/** What differs of one part; at least one line. */
export interface CellBeside {
  readonly part: PartName;
  readonly lines: readonly Line[];
}

export interface StripBeside {
  /** As it is called on the right, else on the left. */
  readonly name: string;
  readonly kind: StripKind;
  /** The strip on either side; null where it is not there. */
  readonly left: Strip | null;
  readonly right: Strip | null;
  /** Whether it stands elsewhere among the others. */
  readonly moved: boolean;
  readonly cells: readonly CellBeside[];
}

export interface ProjectsBeside {
  /** What is said of them as wholes. */
  readonly details: readonly Line[];
  /** Those strips that are not as they were, in the order of the right; those that are only on the left behind them. */
  readonly strips: readonly StripBeside[];
}

/** The strip on the left that one on the right stands for, by their ids; a strip without one is new. */
export type Partners = ReadonlyMap<string, string>;

/** Two moments of a project: a strip is the same under its id. */
const byId = (left: Project, right: Project): Partners => {
  const lefts = stripsById(left);
  return new Map(right.strips.flatMap(({ id, kind }) => (lefts.get(id)?.kind === kind ? [[id, id] as const] : [])));
};

/**
 * Two moments of a project, or two projects, value by value. Laws: a cell is told where its part is not the same, and only there;
 * two that are the same have nothing to tell.
 */
export function compareProjects(left: Project, right: Project, partners = byId(left, right)): ProjectsBeside {
  const lefts = stripsById(left);
  const pairs = right.strips.map((strip) => ({ right: strip, left: lefts.get(partners.get(strip.id) ?? "") ?? null }));
  const paired = new Set(pairs.map((pair) => pair.left?.id));
  const still = inPlace(
    left.strips.filter(({ id }) => paired.has(id)).map(({ id }) => id),
    pairs.flatMap((pair) => pair.left?.id ?? []),
  );
  const both = pairs.map((pair): StripBeside => {
    const { kind } = pair.right;
    const moved = pair.left !== null && !still.has(pair.left.id);
    const cells = pair.left ? cellsBeside({ ...pair, left: pair.left }, { left, right, partners }) : [];
    return { ...pair, name: stripName(pair.right), kind, moved, cells };
  });
  const gone = left.strips.filter(({ id }) => !paired.has(id));
  return {
    details: DETAILS.flatMap((detail) =>
      equal(left[detail], right[detail])
        ? []
        : [{ what: detail, from: sayDetail(detail, left[detail]), to: sayDetail(detail, right[detail]) }],
    ),
    strips: [
      ...both.filter((strip) => !strip.left || strip.moved || strip.cells.length > 0),
      ...gone.map(
        (strip): StripBeside => ({
          name: stripName(strip),
          kind: strip.kind,
          left: strip,
          right: null,
          moved: false,
          cells: [],
        }),
      ),
    ],
  };
}

interface Projects {
  readonly left: Project;
  readonly right: Project;
  readonly partners: Partners;
}

interface Pair {
  readonly left: Strip;
  readonly right: Strip;
}

function cellsBeside(pair: Pair, { left, right }: Projects): readonly CellBeside[] {
  const around = {
    left: { kind: pair.left.kind, nameOf: nameIn(left) },
    right: { kind: pair.right.kind, nameOf: nameIn(right) },
  };
  return PARTS.filter((part) => !equal(pair.left[part], pair.right[part])).map((part) => {
    const lines = LINES[part]?.(pair, around) ?? [];
    return { part, lines: (lines.length > 0 ? lines : [wholePart(part, pair, around)]).map(apart) };
  });
}

/** What reads the same on both sides, and is not. */
const apart = (line: Line): Line => (line.from === line.to ? { ...line, to: "changed" } : line);

interface Around {
  readonly left: Surroundings;
  readonly right: Surroundings;
}

/** What a part says on either side, where nothing finer can be told of it. */
function wholePart(part: PartName, { left, right }: Pair, around: Around): Line {
  // The compiler cannot see that the value of a strip's part is of that part.
  const { title, words } = PART[part] as Part<unknown>;
  return { what: title, from: words(left[part], around.left), to: words(right[part], around.right) };
}

const chainLines = (left: Chain, right: Chain): readonly Line[] =>
  differencesOf(left, right).map((difference) => {
    const { what, from, to } = differenceWords(difference, right);
    return { what, from, to };
  });

/** Sends by their keys: where one goes and how it is set. */
function sendLines({ left, right }: Pair, around: Around): readonly Line[] {
  const keys = new Set([...left.sends, ...right.sends].map(({ key }) => key));
  return [...keys].flatMap((key): Line[] => {
    const [was, is] = [left, right].map(({ sends }) => sends.find((send) => send.key === key));
    if (equal(was, is)) return [];
    const to = nameOfTarget((is ?? was)!.to, is ? around.right : around.left);
    const told = (send: typeof was, within: Surroundings) => {
      if (!send) return "not there";
      const name = nameOfTarget(send.to, within);
      const pan = was && is && was.pan !== is.pan ? `, ${formatPan(send.pan)}` : "";
      return `${name === to ? "" : `${name} `}${describeSettings(send)}${pan}`;
    };
    return [{ what: `Send to ${to}`, from: told(was, around.left), to: told(is, around.right) }];
  });
}

/** Layers by their keys: the instrument of each, and the effects behind it. */
function layerLines({ left, right }: Pair): readonly Line[] {
  const [before, after] = [layersOf(left), layersOf(right)];
  return [
    ...after.flatMap((layer): readonly Line[] => {
      const was = before.find(({ key }) => key === layer.key);
      if (!was) return [{ what: layer.name, from: "not there", to: processorName(layer.instrument) }];
      const lines = [
        ...chainLines({ nodes: [was.instrument], macros: [] }, { nodes: [layer.instrument], macros: [] }),
        ...chainLines(was.effects, layer.effects),
      ];
      return after.length > 1 ? lines.map((line) => ({ ...line, what: `${layer.name}: ${line.what}` })) : lines;
    }),
    ...before
      .filter(({ key }) => !after.some((layer) => layer.key === key))
      .map((layer) => ({ what: layer.name, from: processorName(layer.instrument), to: "not there" })),
  ];
}

/** Parts that are told value by value. */
const LINES: { readonly [N in PartName]?: (pair: Pair, around: Around) => readonly Line[] } = {
  source: layerLines,
  inserts: ({ left, right }) => chainLines(left.inserts, right.inserts),
  sends: sendLines,
};
