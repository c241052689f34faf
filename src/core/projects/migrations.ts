import { type Migration, migrate } from "../documents/migrate";
import type { Project } from "./project";

/** From each schema of a project to the next. */
export const PROJECT_MIGRATIONS: readonly Migration[] = [];

/** What was stored, in today's form. Throws for what this Diathesis never wrote. */
export function liftProject(document: unknown): Project {
  const lifted = migrate(document, PROJECT_MIGRATIONS);
  if (!lifted.ok) throw new Error(lifted.error);
  return lifted.value as unknown as Project;
}
