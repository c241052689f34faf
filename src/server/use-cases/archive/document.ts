import { join } from "node:path";
import Database from "better-sqlite3";
import { ok } from "@/core/result";
import { gatherPreset } from "../../archive/gather";
import { DATABASE_FILE } from "../../data/library-file";
import { type Outcome, failure } from "../../failure";
import type { Context } from "../../store/context";

/** A name as files can have it, without its ending. */
export const fileName = (name: string): string =>
  name
    .replaceAll(/[^\p{L}\p{N} ,._-]+/gu, " ")
    .slice(0, 100)
    .trim() || "sound";

/** A preset as a file of its own: with all its versions, its card, and the folders on the way to it. */
export function presetDocument(
  { folder }: Pick<Context, "folder">,
  id: string,
): Outcome<{ name: string; body: string }> {
  const db = new Database(join(folder, DATABASE_FILE), { readonly: true, fileMustExist: true });
  try {
    const text = gatherPreset(db, id);
    if (text === null) return failure("notFound", `There is no preset “${id}” here.`);
    const document = JSON.parse(text) as { readonly card: { readonly name: string } };
    return ok({ name: `${fileName(document.card.name)}.json`, body: `${JSON.stringify(document, null, 2)}\n` });
  } finally {
    db.close();
  }
}
