import { fold } from "@/core/names/words";
import type { Statements } from "../../data/statements";
import type { FolderTable, PresetTable, ProjectTable } from "../../data/tables";
import { sortName } from "../../repositories/presets";

/* What a person means by a name, on a command line: what has it, or the id itself; null where none has, or several. */

const only = (ids: readonly string[]): string | null => (ids.length === 1 ? ids[0]! : null);

/** A folder by its names from the top, with a slash between them. */
export function namedFolder(statement: Statements, path: string): string | null {
  const folders = statement<Pick<FolderTable, "id" | "name" | "parent">>("SELECT id, name, parent FROM folders").all();
  let at: string | null = null;
  for (const name of path.split("/").map((one) => one.trim())) {
    const next: (typeof folders)[number] | undefined = folders.find(
      (folder) => folder.parent === at && fold(folder.name) === fold(name),
    );
    if (!next) return folders.find(({ id }) => id === path)?.id ?? null;
    at = next.id;
  }
  return at;
}

export function namedPreset(statement: Statements, name: string): string | null {
  const ids = statement<Pick<PresetTable, "id">>(
    "SELECT id FROM presets WHERE binned_at IS NULL AND (id = ? OR sort_name = ?) LIMIT 2",
  ).all(name, sortName(name));
  return only(ids.map(({ id }) => id));
}

export function namedProject(statement: Statements, name: string): string | null {
  const ids = statement<Pick<ProjectTable, "id">>(
    "SELECT id FROM projects WHERE kind = 'project' AND binned_at IS NULL AND (id = ? OR name = ?) LIMIT 2",
  ).all(name, name);
  return only(ids.map(({ id }) => id));
}
