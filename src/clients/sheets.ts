import { type NamedFile, askForFile, queryOf } from "./api";

const at = (id: string): string => encodeURIComponent(id);

/** What a recall sheet is wanted of: a version of a sound, heard at a tempo; or a project, or some of its strips. */
export type SheetWanted =
  | { readonly preset: string; readonly version?: number; readonly tempo?: number }
  | { readonly project: string; readonly strips?: readonly string[] };

const addressOf = (wanted: SheetWanted): string =>
  "preset" in wanted
    ? `/api/presets/${at(wanted.preset)}/sheet${queryOf({ version: wanted.version, tempo: wanted.tempo })}`
    : `/api/projects/${at(wanted.project)}/sheet${queryOf({ strips: wanted.strips?.join(",") })}`;

/** A recall sheet as PDF. Printing ends with `signal`. */
export const recallSheet = (wanted: SheetWanted, signal: AbortSignal): Promise<NamedFile> =>
  askForFile(addressOf(wanted), signal);
