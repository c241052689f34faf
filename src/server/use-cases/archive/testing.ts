import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { inflateRawSync } from "node:zlib";
import { readingAside } from "../../data/statements";
import type { OpenContext } from "../../store/context";
import { openContext } from "../../store/open";
import { writeArchive } from "../../archive/write-archive";

/** A machine with a library of its own, and a clock that goes on by a minute with each look. */
export interface Machine {
  readonly context: OpenContext;
  readonly folder: string;
  /** Writes all of its library into a file, whose path it gives. */
  archive(): Promise<string>;
  close(): Promise<void>;
}

export async function startMachine(begins: string): Promise<Machine> {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-machine-"));
  const opened = await openContext(folder);
  let at = Date.parse(begins);
  const context: OpenContext = { ...opened, now: () => new Date((at += 60_000)) };
  let archives = 0;
  return {
    context,
    folder,
    archive: async () => {
      const file = join(folder, `archive-${++archives}.zip`);
      const chosen = { presets: null, projects: null };
      await writeArchive({ folder, chosen, scope: { kind: "all" }, at: context.now(), madeBy: "Diathesis" }, file);
      return file;
    },
    close: async () => {
      await opened.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Tables of which one machine may have other rows than the next: what it heard of, and its own log, where it was not restored. */
const OWN = ["changes", "loudness", "knex_migrations", "sqlite_sequence"];

/** Columns that number rows, or count how often, and how much, was written: each machine has its own. */
const NUMBERS = /^(row|rowid|document|card_revision|touched_at|kept_size|unkept)$/;

/** A moment of a project; a sound as it is. */
function unpacked(bytes: Uint8Array): unknown {
  try {
    return inflateRawSync(bytes).toString("utf8");
  } catch {
    return `bytes ${Buffer.from(bytes).toString("base64")}`;
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return `broken ${text}`;
  }
}

/** What says the same is the same, in whichever order its fields were written, or packed. */
function inOrder(value: unknown): unknown {
  if (value instanceof Uint8Array) return inOrder(unpacked(value));
  if (typeof value === "string" && /^[[{]/.test(value)) return inOrder(parsed(value));
  if (Array.isArray(value)) return value.map(inOrder);
  if (typeof value !== "object" || value === null) return value;
  const fields = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
  return Object.fromEntries(fields.map(([name, field]) => [name, inOrder(field)]));
}

/** In what two libraries differ, a few rows of each; nothing where they hold the same. */
export function differences(
  a: Record<string, readonly string[]>,
  b: Record<string, readonly string[]>,
): readonly string[] {
  return Object.keys({ ...a, ...b }).flatMap((table) => {
    const [here, there] = [new Set(a[table]), new Set(b[table])];
    const only = (rows: Set<string>, others: Set<string>, mark: string) =>
      [...rows].filter((row) => !others.has(row)).map((row) => `${mark} ${table} ${row.slice(0, 300)}`);
    return [...only(here, there, "-"), ...only(there, here, "+")].slice(0, 6);
  });
}

/** All that a library holds, table by table; what stands in a document in place of its number. */
export function everythingIn(folder: string, without: readonly string[] = []): Record<string, readonly string[]> {
  const { statement, close } = readingAside(folder);
  try {
    const tables = statement<{ name: string }>(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'preset_search%' AND name NOT LIKE 'sqlite_%'",
    ).all();
    const bodies = new Map(
      statement<{ id: number; body: string }>("SELECT id, body FROM documents")
        .all()
        .map(({ id, body }) => [id, body]),
    );
    const presets = new Map(
      statement<{ row: number; id: string }>("SELECT row, id FROM presets")
        .all()
        .map(({ row, id }) => [row, id]),
    );
    const plain = (table: string, row: Record<string, unknown>): string => {
      const fields = Object.entries(row).flatMap(([name, value]) => {
        if (name === "document") return [[name, bodies.get(value as number)]];
        // In some tables a preset goes by its row.
        if (name === "preset" && typeof value === "number") return [[name, presets.get(value)]];
        if (NUMBERS.test(name) || (name === "id" && typeof value === "number")) return [];
        return [[name, value]];
      });
      return JSON.stringify(inOrder(Object.fromEntries(fields as [string, unknown][])));
    };
    return Object.fromEntries(
      tables
        .filter(({ name }) => name !== "documents" && ![...OWN, ...without].includes(name))
        .map(({ name }) => [
          name,
          statement<Record<string, unknown>>(`SELECT * FROM ${name}`)
            .all()
            .map((row) => plain(name, row))
            .sort(),
        ]),
    );
  } finally {
    close();
  }
}
