import type { FolderRecord } from "./step";

/*
 * Of a list of folders in which each stands behind the one that it is in: everything in one pass, however deep they nest.
 */

type Folders = readonly FolderRecord[];

/** What each folder is, made of what the one that it is in is. */
function eachFrom<T>(
  folders: Folders,
  make: (folder: FolderRecord, above: T | undefined) => T,
): ReadonlyMap<string, T> {
  const made = new Map<string, T>();
  for (const folder of folders) made.set(folder.id, make(folder, made.get(folder.parent ?? "")));
  return made;
}

/** How deep each folder stands: 0 at the top. */
export const depthsOf = (folders: Folders): ReadonlyMap<string, number> =>
  eachFrom<number>(folders, (_, above) => (above === undefined ? 0 : above + 1));

/** "Voices / Choir" for each folder. */
export const pathsOf = (folders: Folders): ReadonlyMap<string, string> =>
  eachFrom<string>(folders, ({ name }, above) => (above === undefined ? name : `${above} / ${name}`));

/** A folder and all below it. */
export function withBelow(folders: Folders, id: string): ReadonlySet<string> {
  const inside = eachFrom<boolean>(folders, (folder, above) => folder.id === id || above === true);
  return new Set([...inside].filter(([, isIn]) => isIn).map(([folder]) => folder));
}
