import { presetSheet } from "@/core/sheets/preset-sheet";
import { projectSheet } from "@/core/sheets/project-sheet";
import type { RecallSheet } from "@/core/sheets/sheet";
import { ok } from "@/core/result";
import { readingAside } from "../data/statements";
import { type Outcome, failure } from "../failure";
import { findProject } from "../repositories/projects";
import type { Context } from "../store/context";
import { ownFolders, pathsIn } from "./archive/compare";
import { fileName } from "./archive/document";
import { getPreset } from "./library";
import { noProject } from "./projects/body";

/** A file for the browser to keep. */
export interface PrintedSheet {
  readonly name: string;
  readonly body: Uint8Array;
}

async function print(context: Context, sheet: RecallSheet, signal: AbortSignal): Promise<Outcome<PrintedSheet>> {
  const job = { sheet, printedAt: context.now().toISOString() };
  return ok({ name: `${fileName(sheet.title)}.pdf`, body: await context.runSheet(job, signal) });
}

const folderPath = ({ folder: data }: Context, folder: string | null): string => {
  if (folder === null) return "";
  const { statement, close } = readingAside(data);
  try {
    return pathsIn(ownFolders(statement))(folder);
  } finally {
    close();
  }
};

/** The recall sheet of a sound, of its newest version where none is said. `tempo`: at which note lengths are heard. */
export async function printPreset(
  context: Context,
  id: string,
  { version, tempo }: { readonly version?: number | undefined; readonly tempo?: number | undefined },
  signal: AbortSignal,
): Promise<Outcome<PrintedSheet>> {
  const found = await getPreset(context, id, version);
  if (!found.ok) return found;
  const { card, content, version: shown } = found.value.preset;
  const folder = folderPath(context, card.folder);
  return print(context, presetSheet({ card, content, version: shown, folder }, tempo), signal);
}

/** The recall sheet of a project, or of some of its strips. */
export async function printProject(
  context: Context,
  id: string,
  strips: readonly string[] | undefined,
  signal: AbortSignal,
): Promise<Outcome<PrintedSheet>> {
  const record = await findProject(context.db, id);
  if (!record) return noProject(id);
  const { project } = record;
  const missing = strips?.find((strip) => !project.strips.some((one) => one.id === strip));
  if (missing !== undefined)
    return failure("notFound", `There is no strip “${missing}” in ${project.name}.`, { path: "strips" });
  return print(context, projectSheet(project, strips && new Set(strips)), signal);
}
