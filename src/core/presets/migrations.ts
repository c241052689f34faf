import { type Migration, migrate } from "../documents/migrate";
import type { Content } from "./preset";

/** From each schema of a preset's content to the next. */
export const CONTENT_MIGRATIONS: readonly Migration[] = [];

/** What was stored, in today's form. Throws for what this Diathesis never wrote. */
export function liftContent(document: unknown): Content {
  const lifted = migrate(document, CONTENT_MIGRATIONS);
  if (!lifted.ok) throw new Error(lifted.error);
  // Checked when it was written; a migration that breaks the form fails its own test.
  return lifted.value as unknown as Content;
}
