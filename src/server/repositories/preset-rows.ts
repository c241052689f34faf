import type { Knex } from "knex";
import type { PresetRow } from "@/contracts/records";
import { EMPTY_CHAIN } from "@/core/chains/chain";
import type { Card, Content, PresetKind } from "@/core/presets/preset";
import { liftContent } from "@/core/presets/migrations";
import { CONTENT_SCHEMA } from "@/core/presets/version";
import { measuredTags } from "@/core/library/measured-tags";
import type { Inside } from "@/core/library/inside";
import type { Executor } from "../data/executor";

export interface StoredPreset {
  readonly row: number;
  readonly id: string;
  readonly kind: PresetKind;
  readonly card: string;
  readonly card_revision: number;
  readonly version: number;
  readonly saved_at: string;
  readonly used_at: string | null;
  readonly pack: string | null;
  readonly inside: string;
  readonly body: string;
}

export const toRow = (stored: StoredPreset): PresetRow => toRowWith(stored, JSON.parse(stored.card) as Card);

/** A content, or why it cannot be read: one bad document is set aside, and the list that it stands in goes on. */
function readContent(body: string): { readonly content: Content; readonly unreadable?: string } {
  try {
    return { content: liftContent(JSON.parse(body)) };
  } catch (error) {
    const why = error instanceof SyntaxError ? "It is no whole document any more." : (error as Error).message;
    return { content: NOTHING, unreadable: why };
  }
}

const NOTHING: Content = { kind: "chain", schema: CONTENT_SCHEMA, chain: EMPTY_CHAIN };

const toRowWith = (stored: StoredPreset, card: Card): PresetRow => ({
  id: stored.id,
  kind: stored.kind,
  card,
  cardRevision: stored.card_revision,
  version: stored.version,
  ...readContent(stored.body),
  savedAt: stored.saved_at,
  usedAt: stored.used_at,
  pack: stored.pack,
  measured: [...measuredTags(card, JSON.parse(stored.inside) as Inside)],
});

/** Presets with the document of their newest version. */
export const newest = (db: Executor): Knex.QueryBuilder =>
  db("presets as p")
    .join("preset_versions as v", (join) => join.on("v.preset", "p.id").andOn("v.version", "p.version"))
    .join("documents as d", "d.id", "v.document");

export const withDocuments = (db: Executor): Knex.QueryBuilder =>
  newest(db).select(
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
  );
