import { mkdirSync, readdirSync, rmSync } from "node:fs";
import { join } from "node:path";
import knex, { type Knex } from "knex";
import { copyLibrary } from "./copy";
import { DatabaseRefused } from "./faults";
import { DATABASE_FILE, markFolder, refuseHollow, refuseWhereOneStood } from "./library-file";
import { type RawConnection, setPragmas } from "./pragmas";
import { MIGRATIONS, type NamedMigration } from "./migrations";

/**
 * SQLite has one writer, so one connection writes, and a transaction then sees only itself. Others read beside it, what was
 * committed last, however long a transaction takes.
 */
function connect(file: string, does: "write" | "read"): Knex {
  const readonly = does === "read";
  return knex({
    client: "better-sqlite3",
    connection: { filename: file, options: { readonly } },
    useNullAsDefault: true,
    // What goes wrong is told where it is caught, in words.
    log: { warn: () => undefined, error: () => undefined, deprecate: () => undefined, debug: () => undefined },
    pool: {
      min: 1,
      max: readonly ? 2 : 1,
      afterCreate: (connection: RawConnection, done: (error: Error | null, connection: RawConnection) => void) => {
        try {
          setPragmas(connection);
          done(null, connection);
        } catch (error) {
          done(error as Error, connection);
        }
      },
    },
  });
}

const sourceOf = (migrations: readonly NamedMigration[]) => ({
  getMigrations: () => Promise.resolve([...migrations]),
  getMigrationName: (m: NamedMigration) => m.name,
  getMigration: (m: NamedMigration) => Promise.resolve(m),
});

async function appliedMigrations(db: Knex): Promise<readonly string[]> {
  if (!(await db.schema.hasTable("knex_migrations"))) return [];
  return (await db("knex_migrations").select("name")).map((row) => row.name);
}

/**
 * Opens the database of a data folder and brings it up to date; beforehand a copy of it is laid beside it. Throws
 * `DatabaseRefused`, with nothing changed, when it comes from a newer Diathesis, or when a library has stood here and is gone;
 * `anew`: it was taken away on purpose.
 */
export async function openDatabase(
  folder: string,
  now: Date,
  { migrations = MIGRATIONS, anew = false }: { migrations?: typeof MIGRATIONS; anew?: boolean } = {},
): Promise<Knex> {
  mkdirSync(folder, { recursive: true });
  if (!anew) refuseWhereOneStood(folder);
  const db = connect(join(folder, DATABASE_FILE), "write");
  try {
    const applied = await appliedMigrations(db);
    const known = migrations.map((m) => m.name);
    const newer = applied.filter((name) => !known.includes(name));
    if (newer.length > 0)
      throw new DatabaseRefused(
        `The library in ${folder} was written by a newer Diathesis (${newer.join(", ")}). Start that one; nothing was changed.`,
      );
    if (applied.length === 0 && !anew) refuseHollow(folder);
    if (applied.length > 0 && applied.length < known.length) keepCopy(folder, now);
    const migrationSource = sourceOf(migrations);
    // One process at a time has the folder: a lock that stands here is of one that was killed while it migrated.
    await db.migrate.forceFreeMigrationsLock({ migrationSource });
    await db.migrate.latest({ migrationSource });
    markFolder(folder);
    return db;
  } catch (error) {
    await db.destroy();
    throw error;
  }
}

/** Connections that only read, beside the one that writes, which has opened the database before. */
export const openReader = (folder: string): Knex => connect(join(folder, DATABASE_FILE), "read");

function keepCopy(folder: string, now: Date): void {
  const copies = join(folder, "copies");
  mkdirSync(copies, { recursive: true });
  // What was being copied when the power went stands here under a name of its own.
  for (const name of readdirSync(copies)) if (name.includes(".part-")) rmSync(join(copies, name));
  const to = join(copies, `before-migration-${now.toISOString().replaceAll(":", "-")}.db`);
  copyLibrary(join(folder, DATABASE_FILE), to);
}
