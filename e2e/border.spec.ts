import { request } from "node:http";
import { connect } from "node:net";
import Database from "better-sqlite3";
import { join } from "node:path";
import { writeWav } from "@/core/formats/wav/wav";
import { createServer, expect, spawnServer, test } from "./server";
import type { Server } from "./server";

/** What comes in from outside, and is wrong: a clear error, nothing changed, the application goes on. */

interface Answer {
  readonly status: number;
  readonly body: {
    readonly error?: {
      readonly code: string;
      readonly message: string;
      readonly path?: string;
      readonly detail?: unknown;
    };
  };
}

const JSON_TYPE = "application/json";

async function ask(server: Server, method: string, path: string, body?: unknown): Promise<Answer> {
  return send(server.url + path, {
    method,
    ...(body === undefined ? {} : { body: typeof body === "string" ? body : JSON.stringify(body) }),
  });
}

async function send(url: string, init: RequestInit, type = JSON_TYPE): Promise<Answer> {
  const answer = await fetch(url, { ...init, headers: { "Content-Type": type } });
  return { status: answer.status, body: (await answer.json()) as Answer["body"] };
}

/** Everything that could have changed. */
const state = async (server: Server): Promise<unknown> =>
  Promise.all(
    ["/api/health", "/api/projects", "/api/presets?limit=500", "/api/projects/neap-tide"].map(
      async (path) => (await fetch(server.url + path)).json() as Promise<unknown>,
    ),
  );

const chain = (values: Record<string, unknown>, more: Record<string, unknown> = {}) => ({
  kind: "chain",
  schema: 1,
  chain: {
    nodes: [{ type: "processor", key: "k", model: "vca-compressor", enabled: true, values, ...more }],
    macros: [],
  },
});
const card = { name: "Bad", folder: null, tags: [], purpose: "", rating: 0, notes: "", origin: {} };
const preset = (content: unknown, kind = "chain") => ({ preset: { kind, content, card } });

const REFUSED: readonly [
  what: string,
  method: string,
  path: string,
  body: unknown,
  status: number,
  field: string | undefined,
][] = [
  [
    "a value out of range",
    "POST",
    "/api/presets",
    preset(chain({ threshold: 7 })),
    400,
    "preset.content.chain.nodes[0].values.threshold",
  ],
  [
    "a value of the wrong type",
    "POST",
    "/api/presets",
    preset(chain({ threshold: "loud" })),
    400,
    "preset.content.chain.nodes[0].values.threshold",
  ],
  [
    "a note length for what takes none",
    "POST",
    "/api/presets",
    preset(chain({ threshold: { note: "1/8", feel: "straight" } })),
    400,
    "preset.content.chain.nodes[0].values.threshold",
  ],
  [
    "an unknown parameter",
    "POST",
    "/api/presets",
    preset(chain({ warmth: 1 })),
    400,
    "preset.content.chain.nodes[0].values.warmth",
  ],
  [
    "an unknown model",
    "POST",
    "/api/presets",
    preset(chain({}, { model: "hall-of-mirrors" })),
    400,
    "preset.content.chain.nodes[0].model",
  ],
  [
    "an unknown key",
    "POST",
    "/api/presets",
    preset(chain({}, { glow: true })),
    400,
    "preset.content.chain.nodes[0].glow",
  ],
  ["a kind that is not the content's", "POST", "/api/presets", preset(chain({}), "plugin"), 400, "preset.kind"],
  [
    "a schema from the future",
    "POST",
    "/api/presets",
    preset({ ...chain({}), schema: 9 }),
    400,
    "preset.content.schema",
  ],
  [
    "a folder that is not there",
    "POST",
    "/api/presets",
    { preset: { kind: "chain", content: chain({}), card: { ...card, folder: "gone" } } },
    422,
    "preset.card.folder",
  ],
  [
    "a name of 10,000 letters",
    "POST",
    "/api/presets",
    { preset: { kind: "chain", content: chain({}), card: { ...card, name: "x".repeat(10_000) } } },
    400,
    "preset.card.name",
  ],
  [
    "a name with a line break",
    "POST",
    "/api/presets",
    { preset: { kind: "chain", content: chain({}), card: { ...card, name: "Rim\nand air" } } },
    400,
    "preset.card.name",
  ],
  [
    "a name that turns the writing around",
    "POST",
    "/api/presets",
    { preset: { kind: "chain", content: chain({}), card: { ...card, name: "Rim \u202Eria dna" } } },
    400,
    "preset.card.name",
  ],
  ["a folder of spaces", "POST", "/api/folders", { name: "   ", parent: null }, 400, "name"],
  ["a folder with a bell in it", "POST", "/api/folders", { name: "Rim\u0007", parent: null }, 400, "name"],
  [
    "a name of no letters",
    "POST",
    "/api/presets",
    { preset: { kind: "chain", content: chain({}), card: { ...card, name: "" } } },
    400,
    "preset.card.name",
  ],
  [
    "a rating of six",
    "POST",
    "/api/presets",
    { preset: { kind: "chain", content: chain({}), card: { ...card, rating: 6 } } },
    400,
    "preset.card.rating",
  ],
  [
    "an unknown part",
    "POST",
    "/api/projects/neap-tide/plans",
    {
      requests: [
        { source: { preset: "rim-and-air" }, parts: ["smell"], targets: { strips: ["patch-bass"] }, mode: "replace" },
      ],
    },
    400,
    "requests[0].parts[0]",
  ],
  [
    "a plan for an older revision",
    "POST",
    "/api/projects/neap-tide/plans",
    {
      at: 99,
      requests: [
        { source: { preset: "rim-and-air" }, parts: ["inserts"], targets: { strips: ["patch-bass"] }, mode: "replace" },
      ],
    },
    409,
    "at",
  ],
  [
    "a plan onto a strip that is not there",
    "POST",
    "/api/projects/neap-tide/plans",
    {
      requests: [
        { source: { preset: "rim-and-air" }, parts: ["inserts"], targets: { strips: ["harp"] }, mode: "replace" },
      ],
    },
    422,
    "requests[0].targets.strips",
  ],
  [
    "a plan of a preset that is not there",
    "POST",
    "/api/projects/neap-tide/plans",
    {
      requests: [
        { source: { preset: "gone" }, parts: ["inserts"], targets: { strips: ["patch-bass"] }, mode: "replace" },
      ],
    },
    404,
    "requests[0].source.preset",
  ],
  [
    "a step whose from is not there",
    "POST",
    "/api/projects/neap-tide/changes",
    {
      baseRevision: 0,
      label: "x",
      steps: [
        {
          id: "a",
          strip: "patch-bass",
          part: "level",
          kind: "setPart",
          from: { fader: -50, mute: false },
          to: { fader: 0, mute: false },
        },
      ],
    },
    422,
    "steps[0]",
  ],
  [
    "a step to a value out of range",
    "POST",
    "/api/projects/neap-tide/changes",
    {
      baseRevision: 0,
      label: "x",
      steps: [
        {
          id: "a",
          strip: "patch-bass",
          part: "level",
          kind: "setPart",
          from: { fader: -3, mute: false },
          to: { fader: 40, mute: false },
        },
      ],
    },
    400,
    "steps[0].to.fader",
  ],
  [
    "a plugin's value out of its model's range",
    "POST",
    "/api/projects/neap-tide/changes",
    {
      baseRevision: 0,
      label: "x",
      steps: [
        {
          id: "a",
          strip: "patch-bass",
          kind: "setValue",
          node: "comp2",
          param: "ratio",
          from: 6,
          to: 400,
        },
      ],
    },
    422,
    "strips[4].inserts.nodes[1].values.ratio",
  ],
  [
    "a loop in the signal flow",
    "POST",
    "/api/projects/neap-tide/changes",
    {
      baseRevision: 0,
      label: "x",
      steps: [
        {
          id: "a",
          strip: "mallets",
          part: "routing",
          kind: "setPart",
          from: { output: { strip: "main" } },
          to: { output: { strip: "vibes-low" } },
        },
      ],
    },
    422,
    "strips[0].routing.output",
  ],
  [
    "a step of no known kind",
    "POST",
    "/api/projects/neap-tide/changes",
    { baseRevision: 0, label: "x", steps: [{ id: "a", kind: "explode" }] },
    400,
    "steps[0].kind",
  ],
  ["an undo for another revision", "POST", "/api/projects/neap-tide/undo", { baseRevision: 7 }, 409, "baseRevision"],
  ["an undo where nothing was done", "POST", "/api/projects/slate-and-rain/undo", { baseRevision: 0 }, 422, undefined],
  [
    "a new version of an older one",
    "PUT",
    "/api/presets/cello-wood-rosin/content",
    { baseVersion: 1, content: chain({}) },
    409,
    "baseVersion",
  ],
  [
    "a new version of another kind",
    "PUT",
    "/api/presets/brass-peaks/content",
    { baseVersion: 1, content: chain({}) },
    422,
    "content.kind",
  ],
  [
    "a card that was changed meanwhile",
    "PATCH",
    "/api/presets",
    { changes: [{ id: "rim-and-air", baseCard: 5, card: { rating: 1 } }] },
    409,
    "changes[0].baseCard",
  ],
  ["a limit of a thousand pages", "GET", "/api/presets?limit=1000", undefined, 400, "limit"],
  ["a truncated body", "POST", "/api/presets", '{"preset": {"kind": "ch', 400, undefined],
  ["a folder of a folder that is not there", "POST", "/api/folders", { name: "New", parent: "gone" }, 404, undefined],
  ["a version that is not there", "GET", "/api/presets/rim-and-air?version=9", undefined, 404, "version"],
];

for (const [what, method, path, body, status, field] of REFUSED)
  test(`${what}: ${status}, and nothing has changed`, async ({ server }) => {
    const before = await state(server);
    const answer = await ask(server, method, path, body);
    expect(answer.status, JSON.stringify(answer.body)).toBe(status);
    expect(answer.body.error?.message).toMatch(/\w/);
    expect(answer.body.error?.message).not.toMatch(/zod|sqlite|undefined|at .*\.(ts|mjs|js):/i);
    expect(answer.body.error?.path).toBe(field);
    expect(await state(server)).toEqual(before);
  });

test("one bad card among good ones changes none", async ({ server }) => {
  const before = await state(server);
  const changes = [
    { id: "rim-and-air", baseCard: 1, card: { rating: 1 } },
    { id: "mallets-low", baseCard: 4, card: { rating: 1 } },
  ];
  expect((await ask(server, "PATCH", "/api/presets", { changes })).status).toBe(409);
  expect(await state(server)).toEqual(before);
});

test("foreign hosts, foreign and null origins, cross-site pages and other types are turned away", async ({
  server,
}) => {
  const port = Number(new URL(server.url).port);
  const raw = (headers: Record<string, string>): Promise<number> =>
    new Promise((resolve, reject) => {
      request({ host: "127.0.0.1", port, path: "/api/health", headers }, (answer) =>
        resolve(answer.resume().statusCode ?? 0),
      )
        .on("error", reject)
        .end();
    });
  expect(await raw({ host: "evil.example" })).toBe(403);
  expect(await raw({ host: `127.0.0.1:${port}`, origin: "null" })).toBe(403);
  expect(await raw({ host: `127.0.0.1:${port}`, origin: "http://evil.example" })).toBe(403);
  expect(await raw({ host: `127.0.0.1:${port}`, "sec-fetch-site": "cross-site" })).toBe(403);
  expect(await raw({ host: `localhost:${port}`, origin: `http://localhost:${port}` })).toBe(200);
  expect((await send(`${server.url}/api/folders`, { method: "POST", body: "name=x" }, "text/plain")).status).toBe(415);
});

test("a body of 2 GB is refused as it comes in, announced or not, and never read to its end", async ({ server }) => {
  const port = Number(new URL(server.url).port);
  const pour = (headers: Record<string, string>): Promise<{ status: number; sent: number }> =>
    new Promise((resolve) => {
      let sent = 0;
      let status = 0;
      const asked = request(
        {
          host: "127.0.0.1",
          port,
          path: "/api/presets",
          method: "POST",
          headers: { "Content-Type": "application/json", ...headers },
        },
        (answer) => {
          status = answer.statusCode ?? 0;
          answer.resume();
        },
      );
      const chunk = Buffer.alloc(1 << 20, "x");
      const more = () => {
        while (status === 0 && sent < 2 ** 31) {
          sent += chunk.length;
          if (!asked.write(chunk)) return;
        }
        asked.end();
      };
      asked.on("drain", more);
      asked.on("error", () => undefined);
      asked.on("close", () => resolve({ status, sent }));
      more();
    });
  for (const headers of [{ "Content-Length": String(2 ** 31) }, { "Transfer-Encoding": "chunked" }] as Record<
    string,
    string
  >[]) {
    const { status, sent } = await pour(headers);
    expect(status).toBe(413);
    expect(sent).toBeLessThan(64 * 2 ** 20);
  }
  expect((await fetch(`${server.url}/api/health`)).status).toBe(200);
});

test("a sender that stops in the middle changes nothing", async ({ server }) => {
  const before = await state(server);
  const port = Number(new URL(server.url).port);
  await new Promise<void>((resolve) => {
    const socket = connect(port, "127.0.0.1", () => {
      socket.write(
        `POST /api/folders HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Type: application/json\r\nContent-Length: 500\r\n\r\n{"name": "Half"`,
      );
      setTimeout(() => socket.destroy(), 200);
    });
    socket.on("close", () => resolve());
  });
  expect(await state(server)).toEqual(before);
});

test("a second server on the same folder says who has it, and touches nothing", async ({ server }) => {
  const before = await state(server);
  const port = Number(new URL(server.url).port) + 50;
  await expect(spawnServer(server.folder, port)).rejects.toThrow(/is in use by process \d+/);
  expect(await state(server)).toEqual(before);
});

test("a database from a newer Diathesis is left alone, in words", async () => {
  const server = await createServer(4789, true);
  await server.kill9();
  const db = new Database(join(server.folder, "diathesis.db"));
  const before = db.prepare("SELECT count(*) AS n FROM presets").get();
  db.prepare("INSERT INTO knex_migrations (name, batch, migration_time) VALUES ('999-from-the-future', 9, 0)").run();
  db.close();
  await expect(server.start()).rejects.toThrow(/newer Diathesis \(999-from-the-future\)/);
  const again = new Database(join(server.folder, "diathesis.db"), { readonly: true });
  expect(again.prepare("SELECT count(*) AS n FROM presets").get()).toEqual(before);
  again.close();
  await server.stop();
});

test("every address answers as the OpenAPI document says", async ({ server }) => {
  const document = (await (await fetch(`${server.url}/api/openapi.json`)).json()) as {
    openapi: string;
    paths: Record<string, Record<string, unknown>>;
  };
  expect(document.openapi).toBe("3.1.0");
  const kept = await fetch(`${server.url}/api/media?name=Click`, {
    method: "POST",
    headers: { "Content-Type": "audio/wav" },
    body: Uint8Array.from(writeWav({ left: new Float32Array(99), right: new Float32Array(99), sampleRate: 48_000 })),
  });
  const { media } = (await kept.json()) as { media: { hash: string } };
  for (const [path, methods] of Object.entries(document.paths)) {
    if (!("get" in methods) || path === "/api/events") continue;
    // What is there only for a while.
    if (/^\/api\/(jobs|incoming|sweeps|archive\/files)\/\{/.test(path)) continue;
    const real = path
      .replace("{n}", "0")
      .replace("{hash}", media.hash)
      .replace(
        "{id}",
        path.includes("models") ? "vca-compressor" : path.includes("presets") ? "rim-and-air" : "neap-tide",
      );
    const needed: Readonly<Record<string, string>> = {
      "/api/values": "?field=tag",
      "/api/places": "?id=narrator-close",
      "/api/projects/{id}/note": "?from=0&to=0",
      "/api/figures": "?of=neap-tide",
    };
    const query = needed[path] ?? "";
    expect((await fetch(server.url + real + query)).status, real).toBe(200);
  }
});
