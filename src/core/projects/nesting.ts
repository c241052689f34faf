import type { SavedStrip, Strip } from "../strips/strip";
import { type Project, outputStrip, stripsById } from "./project";

/* What stands in what, in the ledger. */

/** A strip of a project, or one of several that are kept together. */
type Nested = Pick<Strip, "id"> & Pick<SavedStrip, "kind" | "look" | "routing">;

type ById<S> = ReadonlyMap<string, S>;

const NONE: ReadonlySet<string> = new Set();

function folderAmong<S extends Nested>(strips: ById<S>, { look }: Nested): S | null {
  return look?.folder && "strip" in look.folder ? (strips.get(look.folder.strip) ?? null) : null;
}

function groupAmong<S extends Nested>(strips: ById<S>, { routing }: Nested): S | null {
  const to = routing ? strips.get(outputStrip(routing.output) ?? "") : undefined;
  return to?.kind === "group" ? to : null;
}

/** What a strip stands in, for the eye: its folder, else the group that it goes to. */
const parentAmong = <S extends Nested>(strips: ById<S>, strip: Nested): S | null =>
  folderAmong(strips, strip) ?? groupAmong(strips, strip);

/** The group that a strip goes to; null where it goes to none. */
export const groupOf = (project: Project, strip: Strip): Strip | null => groupAmong(stripsById(project), strip);

/** The folder in which a strip stands; null where it stands in none. */
export const folderOf = (project: Project, strip: Strip): Strip | null => folderAmong(stripsById(project), strip);

/** What a strip stands in, for the eye: its folder, else the group that it goes to. */
export const parentOf = (project: Project, strip: Strip): Strip | null => parentAmong(stripsById(project), strip);

/** Strips in which others can stand. */
export const isHolder = ({ kind }: Pick<Strip, "kind">): boolean => kind === "group" || kind === "folder";

/** How many a strip stands in: 0 for one that goes straight to the main output. Deeper than 8 is as 8. */
export function depthOf(project: Project, strip: Strip): number {
  let depth = 0;
  for (let above = parentOf(project, strip); above && depth < 8; above = parentOf(project, above)) depth += 1;
  return depth;
}

/** Whether a strip stands in another, at any depth. */
export function standsWithin(project: Project, strip: Strip, other: string): boolean {
  for (let above = parentOf(project, strip); above; above = parentOf(project, above))
    if (above.id === other) return true;
  return false;
}

/** Some strips, each folder among them with all that stands in it, in the order of the project. */
export function withInsideOfFolders(project: Project, ids: readonly string[]): readonly string[] {
  const folders = project.strips.filter(({ id, kind }) => kind === "folder" && ids.includes(id));
  const isInside = (strip: Strip) => folders.some((folder) => standsWithin(project, strip, folder.id));
  return project.strips.filter((strip) => ids.includes(strip.id) || isInside(strip)).map(({ id }) => id);
}

function within<S extends Nested>(strips: readonly S[], byId: ById<S>): ReadonlyMap<string | null, readonly S[]> {
  const inside = new Map<string | null, S[]>();
  for (const strip of strips) {
    const above = parentAmong(byId, strip)?.id ?? null;
    const beside = inside.get(above);
    if (beside) beside.push(strip);
    else inside.set(above, [strip]);
  }
  return inside;
}

/** Strips by what they stand in, in their order; under null those that stand in nothing. */
export const stripsWithin = (project: Project): ReadonlyMap<string | null, readonly Strip[]> =>
  within(project.strips, stripsById(project));

type Compared<S> = ((a: S, b: S) => number) | null;

function inOrder<S extends Nested>(
  inside: ReadonlyMap<string | null, readonly S[]>,
  folded: ReadonlySet<string>,
  compared: Compared<S> = null,
) {
  const beside = (above: string | null): readonly S[] => {
    const strips = inside.get(above) ?? [];
    return compared ? strips.toSorted(compared) : strips;
  };
  const order: { readonly strip: S; readonly depth: number }[] = [];
  const left = beside(null)
    .map((strip) => ({ strip, depth: 0 }))
    .toReversed();
  for (let next = left.pop(); next; next = left.pop()) {
    order.push(next);
    const { strip, depth } = next;
    if (isHolder(strip) && !folded.has(strip.id))
      left.push(
        ...beside(strip.id)
          .map((one) => ({ strip: one, depth: depth + 1 }))
          .toReversed(),
      );
  }
  return order;
}

/**
 * Strips in the order of the ledger: each group and each folder before what stands in it, the rest as they stand. `folded`: of which
 * nothing is shown that stands in them. `compared`: by what those stand that stand in the same; else as in the project.
 */
export const ledgerOrder = (
  project: Project,
  folded: ReadonlySet<string> = NONE,
  compared: Compared<Strip> = null,
): readonly Strip[] => inOrder(stripsWithin(project), folded, compared).map(({ strip }) => strip);

/** The same of strips that are kept together, each with how many it stands in. */
export const orderOfKept = <S extends Nested>(strips: readonly S[]) => inOrder(within(strips, byIds(strips)), NONE);

const byIds = <S extends Nested>(strips: readonly S[]): ById<S> => new Map(strips.map((strip) => [strip.id, strip]));

/**
 * A strip that stands within itself, by folders and groups; null where none does. Safe for any strips; the other functions here are
 * for such of which none does.
 */
export function findNestedInItself<S extends Nested>(strips: readonly S[]): S | null {
  const byId = byIds(strips);
  /** Those of which it is known that they stand in no such. */
  const known = new Set<string>();
  for (const strip of strips) {
    const way = new Set<string>();
    for (let at: S | null = strip; at && !known.has(at.id); at = parentAmong(byId, at)) {
      if (way.has(at.id)) return at;
      way.add(at.id);
    }
    for (const id of way) known.add(id);
  }
  return null;
}
