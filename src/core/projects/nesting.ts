import type { Strip } from "../strips/strip";
import { type Project, groupOf, stripsById } from "./project";

/* What stands in what, in the ledger. */

const NONE: ReadonlySet<string> = new Set();

/** The folder in which a strip stands; null where it stands in none. */
export function folderOf(project: Project, { look: { folder } }: Strip): Strip | null {
  return folder && "strip" in folder ? (stripsById(project).get(folder.strip) ?? null) : null;
}

/** What a strip stands in, for the eye: its folder, else the group that it goes to. */
export const parentOf = (project: Project, strip: Strip): Strip | null =>
  folderOf(project, strip) ?? groupOf(project, strip);

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

/** Strips by what they stand in, in their order; under null those that stand in nothing. */
export function stripsWithin(project: Project): ReadonlyMap<string | null, readonly Strip[]> {
  const within = new Map<string | null, Strip[]>();
  for (const strip of project.strips) {
    const above = parentOf(project, strip)?.id ?? null;
    const beside = within.get(above);
    if (beside) beside.push(strip);
    else within.set(above, [strip]);
  }
  return within;
}

/**
 * Strips in the order of the ledger: each group and each folder before what stands in it, the rest as they stand. `folded`: of which
 * nothing is shown that stands in them.
 */
export function ledgerOrder(project: Project, folded: ReadonlySet<string> = NONE): readonly Strip[] {
  const within = stripsWithin(project);
  const order: Strip[] = [];
  const left = (within.get(null) ?? []).toReversed();
  for (let strip = left.pop(); strip; strip = left.pop()) {
    order.push(strip);
    if (isHolder(strip) && !folded.has(strip.id)) left.push(...(within.get(strip.id) ?? []).toReversed());
  }
  return order;
}

/**
 * A strip that stands within itself, by folders and groups; null where none does. Safe for any project; the other functions here are
 * for such in which none does.
 */
export function findNestedInItself(project: Project): Strip | null {
  /** Those of which it is known that they stand in no such. */
  const known = new Set<string>();
  for (const strip of project.strips) {
    const way = new Set<string>();
    for (let at: Strip | null = strip; at && !known.has(at.id); at = parentOf(project, at)) {
      if (way.has(at.id)) return at;
      way.add(at.id);
    }
    for (const id of way) known.add(id);
  }
  return null;
}
