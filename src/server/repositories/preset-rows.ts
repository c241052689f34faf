import type { Knex } from "knex";
import type { PresetRow } from "@/contracts/records";
import { EMPTY_CHAIN } from "@/core/chains/chain";
import type { Content } from "@/core/presets/preset";
import { liftContent } from "@/core/presets/migrations";
import { CONTENT_SCHEMA } from "@/core/presets/version";
import { measuredTags } from "@/core/library/measured-tags";
import type { Executor } from "../data/executor";
import { messageOf } from "@/core/result";
import type { DocumentTable, LoudnessTable, PresetTable } from "../data/tables";
import { readCard, readInside } from "../data/stored";

/** A preset with the document of its newest version. */
export type StoredPreset = Pick<
  PresetTable,
  "row" | "id" | "kind" | "card" | "card_revision" | "version" | "saved_at" | "used_at" | "pack" | "inside"
> &
  Pick<DocumentTable, "body"> &
  Pick<LoudnessTable, "lufs">;

/** A content, or why it cannot be read: one bad document is set aside, and the list that it stands in goes on. */
function readContent(body: string): { readonly content: Content; readonly unreadable?: string } {
  try {
    return { content: liftContent(JSON.parse(body)) };
  } catch (error) {
    const why = error instanceof SyntaxError ? "It is no whole document any more." : messageOf(error);
    return { content: NOTHING, unreadable: why };
  }
}

const NOTHING: Content = { kind: "chain", schema: CONTENT_SCHEMA, chain: EMPTY_CHAIN };

export function toRow(stored: StoredPreset): PresetRow {
  const card = readCard(stored.card);
  return {
    id: stored.id,
    kind: stored.kind,
    card,
    cardRevision: stored.card_revision,
    version: stored.version,
    ...readContent(stored.body),
    savedAt: stored.saved_at,
    usedAt: stored.used_at,
    pack: stored.pack,
    measured: [...measuredTags(card, readInside(stored.inside))],
    ...(stored.lufs === null ? {} : { loudness: stored.lufs }),
  };
}

/** Presets with the document of their newest version. */
export const newest = (db: Executor): Knex.QueryBuilder =>
  db("presets as p")
    .join("preset_versions as v", (join) => join.on("v.preset", "p.id").andOn("v.version", "p.version"))
    .join("documents as d", "d.id", "v.document");

export const withDocuments = (db: Executor) =>
  newest(db)
    .leftJoin("loudness as l", "l.fingerprint", "v.fingerprint")
    .select<StoredPreset[]>(
      "p.row",
      "p.id",
      "p.kind",
      "p.card",
      "p.card_revision",
      "p.version",
      "p.saved_at",
      "p.used_at",
      "p.pack",
      "p.inside",
      "d.body",
      "l.lufs",
    );
