import { STRIP_KINDS, type StripKind } from "../documents/strip-kinds";
import { counted } from "../names/count";
import { inNameOrder } from "../names/order";
import { type Strip, stripName } from "../strips/strip";
import { ledgerOrder, parentOf } from "./nesting";
import { type Project, stripsById } from "./project";
import type { ROW_ORDERS } from "./schema";
import type { View } from "./views";

/** Which strips are shown, and by what they stand. */
export type ShownRows = Pick<View, "only" | "hidden" | "also" | "kinds" | "order">;
export type RowOrder = (typeof ROW_ORDERS)[number];

/** All of them, as they stand in the project. */
export const ALL_ROWS: ShownRows = { only: null, hidden: [], also: [], kinds: [], order: "project" };

/** Whether some of a list name a strip: itself, or what it stands in. */
function isNamed(project: Project, strip: Strip, ids: ReadonlySet<string>): boolean {
  for (let at: Strip | null = strip; at && ids.size > 0; at = parentOf(project, at)) if (ids.has(at.id)) return true;
  return false;
}

/** What is asked for as sets, once for all strips. */
function askedOf({ only, hidden, also, kinds }: ShownRows) {
  return {
    only: only && new Set(only),
    hidden: new Set(hidden),
    also: new Set(also),
    kinds: new Set<StripKind>(kinds),
  };
}

/**
 * Which strips of a project are shown: of those that are asked for alone, with all that stands in them, those that are hidden neither by
 * themselves, nor with what they stand in, nor by their kind; and those that are shown all the same. A strip that is not there any more
 * counts as one that was never named.
 */
export function shownStrips(project: Project, rows: ShownRows): ReadonlySet<string> {
  const { only, hidden, also, kinds } = askedOf(rows);
  const known = only && [...only].some((id) => stripsById(project).has(id)) ? only : null;
  return new Set(
    project.strips
      .filter(
        (strip) =>
          also.has(strip.id) ||
          ((!known || isNamed(project, strip, known)) && !isNamed(project, strip, hidden) && !kinds.has(strip.kind)),
      )
      .map(({ id }) => id),
  );
}

const level = ({ kind, level }: Strip): number => (kind === "folder" ? Number.NEGATIVE_INFINITY : level.fader);

const byName = (a: Strip, b: Strip): number => inNameOrder(stripName(a), stripName(b));

const COMPARED: { readonly [O in RowOrder]: ((a: Strip, b: Strip) => number) | null } = {
  project: null,
  name: byName,
  kind: (a, b) => STRIP_KINDS.indexOf(a.kind) - STRIP_KINDS.indexOf(b.kind),
  level: (a, b) => level(b) - level(a),
};

/** How each order is told. */
export const ORDER_WORDS: { readonly [O in RowOrder]: string } = {
  project: "as in the project",
  name: "by name",
  kind: "by kind",
  level: "by level",
};

/**
 * The rows of the ledger as a view shows them. What stands in a group or a folder stays below it whatever the order. `folded`: of which
 * nothing is shown that stands in them; one that is not shown itself folds nothing.
 */
export function rowsOf(project: Project, rows: ShownRows, folded: ReadonlySet<string>): readonly Strip[] {
  const shown = shownStrips(project, rows);
  const folding = new Set([...folded].filter((id) => shown.has(id)));
  return ledgerOrder(project, folding, COMPARED[rows.order]).filter(({ id }) => shown.has(id));
}

/** Whether two ask for the same rows, whatever the order in which they name them. */
export const isSameRows = (a: ShownRows, b: ShownRows): boolean => rowsText(a) === rowsText(b);

const sorted = (ids: readonly string[]): readonly string[] => ids.toSorted();

const rowsText = ({ only, hidden, also, kinds, order }: ShownRows): string =>
  JSON.stringify([only && sorted(only), sorted(hidden), sorted(also), sorted(kinds), order]);

const KIND_WORDS: { readonly [K in StripKind]: string } = {
  audio: "audio strips",
  instrument: "instruments",
  return: "returns",
  group: "group buses",
  main: "the main output",
  folder: "folders",
};

/** How strips of a kind are called together: "returns". */
export const kindsWords = (kind: StripKind): string => KIND_WORDS[kind];

/** Some strips in a few words: "Cello", "2 strips". */
const fewWords = (strips: readonly Strip[]): string =>
  strips.length === 1 ? stripName(strips[0]!) : counted(strips.length, "strip");

/** What is shown, and what is not, each in a few words: "only Drum", "without returns", "without 5 strips". Nothing where all are shown. */
export function hiddenWords(project: Project, { only, hidden, kinds }: ShownRows): readonly string[] {
  const known = (ids: readonly string[]) => ids.flatMap((id) => stripsById(project).get(id) ?? []);
  const [alone, named] = [known(only ?? []), known(hidden)];
  return [
    ...(alone.length > 0 ? [`only ${fewWords(alone)}`] : []),
    ...[...kinds.map(kindsWords), ...(named.length > 3 ? [fewWords(named)] : named.map(stripName))].map(
      (what) => `without ${what}`,
    ),
  ];
}

/** Some strips hidden, with all that stands in them: they are not shown all the same any longer. */
export const hiding = (rows: ShownRows, ids: readonly string[]): ShownRows => ({
  ...rows,
  hidden: [...rows.hidden.filter((id) => !ids.includes(id)), ...ids],
  also: rows.also.filter((id) => !ids.includes(id)),
});

/** These strips and what stands in them, and nothing else; in the order that they had. */
export const showingOnly = ({ order }: ShownRows, ids: readonly string[]): ShownRows => ({
  ...ALL_ROWS,
  only: [...ids],
  order,
});

/** Some strips shown, whatever hides them. */
export function showingAlso(project: Project, rows: ShownRows, ids: readonly string[]): ShownRows {
  const shown = shownStrips(project, rows);
  const more = ids.filter((id) => !shown.has(id) && stripsById(project).has(id));
  if (more.length === 0) return rows;
  const hidden = rows.hidden.filter((id) => !more.includes(id));
  return { ...rows, hidden, also: [...rows.also, ...more] };
}

/** Strips of a kind hidden, or shown again. */
export const turningKind = (rows: ShownRows, kind: StripKind): ShownRows => ({
  ...rows,
  kinds: rows.kinds.includes(kind) ? rows.kinds.filter((one) => one !== kind) : [...rows.kinds, kind],
});
