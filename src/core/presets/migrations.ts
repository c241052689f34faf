import { type Migration, migrate } from "../documents/migrate";
import { type Card, type Content, emptyCard } from "./preset";

/** From each schema of a preset's content to the next. */
export const CONTENT_MIGRATIONS: readonly Migration[] = [];

/** What was stored, in today's form. Throws for what this Diathesis never wrote. */
export function liftContent(document: unknown): Content {
  const lifted = migrate(document, CONTENT_MIGRATIONS);
  if (!lifted.ok) throw new Error(lifted.error);
  // Checked when it was written; a migration that breaks the form fails its own test.
  return lifted.value as unknown as Content;
}

/** A card as it was stored; what an earlier Diathesis did not know is empty. Throws for what is no card. */
export function liftCard(stored: unknown): Card {
  const isCard = typeof stored === "object" && stored !== null && "name" in stored;
  if (!isCard || typeof stored.name !== "string") throw new Error("This is not a card.");
  // Checked when it was written.
  return { ...emptyCard(stored.name), ...(stored as Partial<Card>) };
}
