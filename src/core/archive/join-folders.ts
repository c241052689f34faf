import type { FolderRecord } from "../library/step";
import { fold } from "../names/words";

/** A folder, and when it was named or moved last. */
export interface DatedFolder extends FolderRecord {
  readonly changedAt: string;
}

export interface JoinedFolders {
  /** Parents before their children. */
  readonly folders: readonly DatedFolder[];
  /** Folders that are one with another of their name and place, by its id. */
  readonly instead: ReadonlyMap<string, string>;
}

const text = ({ id, name, parent }: FolderRecord): string => JSON.stringify([id, name, parent]);

/** What was changed later stands; in the same instant, either, but the same from both sides. */
const isLater = (a: DatedFolder, b: DatedFolder): boolean =>
  a.changedAt > b.changedAt || (a.changedAt === b.changedAt && text(a) > text(b));

function latest(own: readonly DatedFolder[], theirs: readonly DatedFolder[]): Map<string, DatedFolder> {
  const all = new Map(own.map((folder) => [folder.id, folder]));
  for (const folder of theirs) {
    const here = all.get(folder.id);
    if (!here || isLater(folder, here)) all.set(folder.id, folder);
  }
  return all;
}

/** Where two sides moved folders into each other, or a parent is nowhere, the one that was moved last comes to the top. */
function rooted(all: ReadonlyMap<string, DatedFolder>): Map<string, DatedFolder> {
  const folders = new Map(all);
  for (const { id, parent } of all.values())
    if (parent !== null && !all.has(parent)) folders.set(id, { ...folders.get(id)!, parent: null });
  for (const id of [...folders.keys()].sort()) {
    const way: DatedFolder[] = [];
    for (let at = folders.get(id); at && !way.includes(at); at = folders.get(at.parent ?? "")) way.push(at);
    const end = way.at(-1);
    if (end?.parent == null) continue;
    const circle = way.slice(way.findIndex((folder) => folder.id === end.parent));
    const last = circle.reduce((a, b) => (isLater(b, a) ? b : a));
    folders.set(last.id, { ...last, parent: null });
  }
  return folders;
}

/** Parents before their children. */
function fromTheTop(folders: Iterable<DatedFolder>): readonly DatedFolder[] {
  const below = new Map<string | null, DatedFolder[]>();
  for (const folder of folders) {
    const beside = below.get(folder.parent);
    if (beside) beside.push(folder);
    else below.set(folder.parent, [folder]);
  }
  const order = [...(below.get(null) ?? [])];
  for (let at = 0; at < order.length; at++) order.push(...(below.get(order[at]!.id) ?? []));
  return order;
}

/**
 * All folders of two sides, each as it was changed last; those that nobody could tell apart where they stand are one. Laws: it is the
 * same from both sides; with what it gave before it gives that again; each stands in one that is there, none within itself, and no two
 * of a name are beside each other.
 */
export function joinFolders(own: readonly DatedFolder[], theirs: readonly DatedFolder[]): JoinedFolders {
  const folders = rooted(latest(own, theirs));
  const instead = new Map<string, string>();
  const taken = new Map<string, DatedFolder>();
  const kept: DatedFolder[] = [];
  const byId = (a: DatedFolder, b: DatedFolder) => (a.id < b.id ? -1 : 1);
  // Level by level: where two are one, what stands in either meets on the next.
  for (let level = inThe(null, folders).toSorted(byId); level.length > 0; ) {
    const next: DatedFolder[] = [];
    for (const folder of level) {
      const place = JSON.stringify([folder.parent, fold(folder.name)]);
      const first = taken.get(place);
      if (first) instead.set(folder.id, first.id);
      else {
        taken.set(place, folder);
        kept.push(folder);
      }
      const parent = first?.id ?? folder.id;
      next.push(...inThe(folder.id, folders).map((child) => (child.parent === parent ? child : { ...child, parent })));
    }
    level = next.toSorted(byId);
  }
  return { folders: fromTheTop(kept), instead };
}

function inThe(parent: string | null, folders: ReadonlyMap<string, DatedFolder>): readonly DatedFolder[] {
  return [...folders.values()].filter((folder) => folder.parent === parent);
}
