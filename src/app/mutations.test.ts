import { createHash } from "node:crypto";
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { ENDPOINTS, type Endpoint } from "@/contracts/endpoints";
import { ErrorBodySchema } from "@/contracts/errors";
import { openApi } from "@/contracts/openapi";
import { INCLUDED } from "@/core/packs/included";
import { emptyCard } from "@/core/presets/preset";
import { type Random, seededRandom } from "@/core/random";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "@/server/store/context";
import { openContext } from "@/server/store/open";
import { shareContext } from "@/server/store/shared";
import { DATABASE_FILE } from "@/server/data/library-file";
import { answer } from "./testing/routes";

/*
 * Every body of the API, made from the schemas that describe it and then spoilt in one place: what is refused has changed
 * nothing, to the byte, and nothing that anyone sends breaks anything inside.
 */

type Json = unknown;
interface Schema {
  readonly type?: string;
  readonly enum?: readonly Json[];
  readonly const?: Json;
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly items?: Schema;
  readonly additionalProperties?: Schema | false;
  readonly propertyNames?: Schema;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly minItems?: number;
  readonly pattern?: string;
  readonly $ref?: string;
}

const SEED = Number(process.env.SEED ?? 20_261);
const COUNT = 4200;

let folder: string;
let context: OpenContext;
let raw: Database.Database;
let onlooker: Database.Database;
let ids: Readonly<Record<string, readonly string[]>>;

beforeAll(async () => {
  const memory = "/dev/shm";
  folder = mkdtempSync(join(existsSync(memory) ? memory : tmpdir(), "diathesis-mutations-"));
  context = await openContext(folder);
  await loadDemo(context);
  shareContext(context);
  const client = context.writer.client as {
    acquireConnection(): Promise<unknown>;
    releaseConnection(connection: unknown): Promise<void>;
  };
  raw = (await client.acquireConnection()) as Database.Database;
  await client.releaseConnection(raw);
  onlooker = new Database(join(folder, DATABASE_FILE), { readonly: true });
  const column = (sql: string) => (raw.prepare(sql).pluck().all() as string[]).slice(0, 40);
  ids = {
    preset: column("SELECT id FROM presets ORDER BY row"),
    project: column("SELECT id FROM projects ORDER BY id"),
    folder: column("SELECT id FROM folders ORDER BY id"),
  };
});

afterAll(async () => {
  onlooker.close();
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

/** All that is in the store. */
function state(): string {
  const tables = raw
    .prepare(
      "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'preset_search%' AND name NOT LIKE 'sqlite_%' ORDER BY name",
    )
    .pluck()
    .all() as string[];
  const hash = createHash("sha256");
  for (const table of tables) hash.update(JSON.stringify(raw.prepare(`SELECT * FROM ${table}`).raw().all()));
  return hash.digest("hex");
}

/** Another number whenever anything was committed by another connection than the one that asks. */
const commits = (): unknown => onlooker.pragma("data_version", { simple: true });

const pick = <T>(list: readonly T[], random: Random): T => list[Math.floor(random() * list.length)]!;

/** Something that a schema describes. Depth is bounded: what may nest is left out further down. */
function make(schema: Schema, random: Random, depth = 0): Json {
  const choices = schema.anyOf ?? schema.oneOf;
  if (choices) return make(pick(choices, random), random, depth + 1);
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return pick(schema.enum, random);
  return MAKERS[schema.type ?? ""]?.(schema, random, depth) ?? null;
}

type Maker = (schema: Schema, random: Random, depth: number) => Json;

const makeNumber: Maker = ({ type, minimum = -3, maximum = 3 }, random) => {
  const [low, high] = [Math.max(minimum, -1e6), Math.min(maximum, 1e6)];
  const number = low + random() * (high - low);
  return type === "integer" ? Math.round(number) : number;
};

const MAKERS: Readonly<Record<string, Maker>> = {
  object: (schema, random, depth) => makeRecord(schema, random, depth),
  array: ({ minItems = 0, items = {} }, random, depth) => {
    const count = Math.max(minItems, depth > 6 ? 0 : Math.floor(random() * 3));
    return Array.from({ length: count }, () => make(items, random, depth + 1));
  },
  string: (_, random) =>
    pick([pick(ids.preset!, random), pick(ids.project!, random), pick(ids.folder!, random), "main", "x", ""], random),
  number: makeNumber,
  integer: makeNumber,
  boolean: (_, random) => random() < 0.5,
};

function makeRecord(
  { properties = {}, required = [], additionalProperties }: Schema,
  random: Random,
  depth: number,
): Json {
  const record: Record<string, Json> = {};
  for (const [name, schema] of Object.entries(properties))
    if (required.includes(name) || random() < 0.5) record[name] = make(schema, random, depth + 1);
  if (additionalProperties)
    record[pick(["threshold", "band1.gain", "plugin", "q"], random)] = make(additionalProperties, random, depth + 1);
  return record;
}

/** A string that JSON cannot write down is written by hand: half a letter, a number without end, a field that is none. */
const RAW: readonly string[] = [
  '"\\ud83e"',
  '"\\udd81x"',
  "1e999",
  "-1e999",
  '{"__proto__":{"a":1}}',
  "00",
  "NaN",
  "undefined",
  "[",
  "}",
  '"\u0000"',
];
const SPOILT: readonly Json[] = [
  null,
  true,
  0,
  -1,
  1.5,
  1e308,
  9_007_199_254_740_993,
  "",
  " ",
  "\u200b",
  "\u202e",
  "x".repeat(30_000),
  "🦁".repeat(50),
  "../../etc",
  "'; DROP TABLE presets; --",
  "%ff",
  [],
  {},
  [[]],
  { constructor: 1 },
  { toString: null },
  Array.from({ length: 300 }, (_, n) => n),
];
const MARK = "\u0001spoil\u0001";

/** One value of a document replaced, taken out, doubled or joined by another; the document is left as it is. */
function spoil(document: Json, random: Random): Json {
  if (typeof document !== "object" || document === null || random() < 0.12)
    return random() < 0.4 ? MARK : pick(SPOILT, random);
  if (Array.isArray(document)) {
    if (document.length === 0 || random() < 0.1) return [...(document as Json[]), pick(SPOILT, random)];
    const at = Math.floor(random() * document.length);
    return (document as Json[]).map((one, n) => (n === at ? spoil(one, random) : one));
  }
  const keys = Object.keys(document);
  const key = keys.length === 0 ? "" : pick(keys, random);
  const record = document as Readonly<Record<string, Json>>;
  const chance = random();
  if (keys.length === 0 || chance < 0.08)
    return { ...record, [pick(["mood", "id", "__proto__x", "length"], random)]: pick(SPOILT, random) };
  if (chance < 0.18) return Object.fromEntries(Object.entries(record).filter(([name]) => name !== key));
  return { ...record, [key]: spoil(record[key], random) };
}

const write = (document: Json, random: Random): string =>
  (JSON.stringify(document) ?? "null").replaceAll(JSON.stringify(MARK), () => pick(RAW, random));

/** Bodies that are understood as they stand, so that what is spoilt in them is deep inside. */
function whole(path: string, random: Random): Json {
  const { content } = pick(INCLUDED.presets, random);
  const preset = { kind: content.kind, content, card: emptyCard("Spoilt") };
  const id = pick(ids.preset!, random);
  const known: Readonly<Record<string, Json>> = {
    "/api/presets": random() < 0.5 ? { preset } : { changes: [{ id, baseCard: 1, card: { rating: 3 } }] },
    "/api/presets/batch": { presets: [preset, preset] },
    "/api/presets/{id}/content": { baseVersion: 1, content },
    "/api/projects/{id}/plans": {
      requests: [
        { source: { preset: id }, parts: ["inserts"], targets: { newStrip: { after: null } }, mode: "replace" },
      ],
    },
    "/api/drafts": { preset: id },
  };
  return known[path];
}

const WITH_BODY = ENDPOINTS.filter((e) => e.body !== undefined);

async function send({ method, path }: Endpoint, body: string, random: Random): Promise<number> {
  const kind =
    path.includes("projects") || path.includes("drafts") ? "project" : path.includes("folders") ? "folder" : "preset";
  const where = path
    .replaceAll(/\{n\}/g, "0")
    .replaceAll(/\{\w+\}/g, () => encodeURIComponent(pick(ids[kind]!, random)));
  const init = { method: method.toUpperCase(), body, headers: { "Content-Type": "application/json" } };
  const response = await answer(where, init);
  const told: unknown = await response.json();
  if (response.status >= 400) ErrorBodySchema.parse(told);
  return response.status;
}

describe("bodies spoilt in one place", () => {
  it(`break nothing inside, and change nothing where they are refused (SEED=${SEED})`, async () => {
    const silenced = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const random = seededRandom(SEED);
    const { paths } = openApi("0") as unknown as {
      paths: Record<string, Record<string, { requestBody?: { content: Record<string, { schema: Schema }> } }>>;
    };
    const seen = { refused: 0, taken: 0 };
    let now = state();
    for (let n = 0; n < COUNT; n++) {
      const endpoint = WITH_BODY[n % WITH_BODY.length]!;
      const schema = paths[endpoint.path]![endpoint.method]!.requestBody!.content["application/json"]!.schema;
      const good = (random() < 0.5 ? whole(endpoint.path, random) : undefined) ?? make(schema, random);
      const body = write(random() < 0.95 ? spoil(good, random) : good, random);
      const before = commits();
      const status = await send(endpoint, body, random);
      const what = `${n}: ${endpoint.method} ${endpoint.path} ${body.slice(0, 400)}`;
      expect(status, what).toBeLessThan(500);
      seen[status >= 400 ? "refused" : "taken"] += 1;
      // Bringing over what was written counts as a commit, too: then all is looked at.
      if (status < 400) now = state();
      else if (commits() !== before || n % 50 === 0) expect(state(), what).toBe(now);
    }
    expect(state()).toBe(now);
    silenced.mockRestore();
    expect(seen.refused + seen.taken).toBe(COUNT);
    expect(seen.refused).toBeGreaterThan(COUNT / 2);
    expect(seen.taken).toBeGreaterThan(50);
  }, 240_000);
});

describe("what was acknowledged", () => {
  it("is read back to the code point, or was refused with its field", async () => {
    const { content } = INCLUDED.presets[0]!;
    const random = seededRandom(SEED + 1);
    const signs = [
      "a",
      "é",
      "e\u0301",
      "🦁",
      "👩‍👩‍👧‍👦",
      "\ufeff",
      "\u0000",
      "\u00ad",
      "ﷺ",
      "\u2028",
      "語",
      "ß",
      "\\",
      '"',
      "\u{10ffff}",
      " ",
    ];
    /** Half a letter, in one of ten. */
    const half = () => (random() < 0.1 ? pick(["\ud83e", "\udd81"], random) : "");
    const text = () => Array.from({ length: Math.floor(random() * 12) }, () => pick(signs, random)).join("") + half();
    let kept = 0;
    for (let n = 0; n < 300; n++) {
      const [notes, purpose, tag] = [text(), text(), text()];
      const card = { ...emptyCard(`Kept ${n}`), notes, purpose, tags: [tag], origin: { song: text() } };
      const sent = { preset: { kind: content.kind, content, card } };
      const body = JSON.stringify(sent);
      const saved = await answer("/api/presets", {
        method: "POST",
        body,
        headers: { "Content-Type": "application/json" },
      });
      const told = (await saved.json()) as { preset: { id: string; card: typeof card }; error?: { path?: string } };
      if (saved.status !== 201) {
        expect([saved.status, typeof told.error?.path], body).toEqual([400, "string"]);
        continue;
      }
      kept += 1;
      const { preset } = (await (await answer(`/api/presets/${told.preset.id}`)).json()) as {
        preset: { card: typeof card };
      };
      expect(preset.card).toEqual(told.preset.card);
      expect({ ...preset.card, tags: [] }).toEqual({ ...card, tags: [] });
      expect(preset.card.tags).toEqual([tag.trim()]);
    }
    expect(kept).toBeGreaterThan(100);
    expect(kept).toBeLessThan(300);
  });
});
