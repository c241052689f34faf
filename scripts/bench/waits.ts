import { once } from "node:events";
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import { DEMO_PRESETS } from "../../src/demo/library";
import type { Figure } from "./figure";
import { MANY } from "./library";
import { type Served, serveMany } from "./server";

const PORT = 4990;

async function ask({ url }: Served, method: string, path: string, body?: string): Promise<Response> {
  const init: RequestInit = { method };
  if (body !== undefined) Object.assign(init, { body, headers: { "Content-Type": "application/json" } });
  return fetch(url + path, init);
}

/** Asks, and does not look at the answer. */
async function send(served: Served, method: string, path: string, body?: string): Promise<void> {
  await (await ask(served, method, path, body)).arrayBuffer();
}

/**
 * The longest that any plain request waits while some work is done, in milliseconds. They are asked in a thread of their
 * own: what this one does with large texts is not the server's time.
 */
async function waitDuring({ url }: Served, work: () => Promise<unknown>): Promise<number> {
  const asking = new Worker(join(process.cwd(), ".build", "bench-plain.mjs"), { workerData: { url } });
  await once(asking, "online");
  await work();
  asking.postMessage("over");
  const [longest] = (await once(asking, "message")) as [number];
  return longest;
}

/** As often as the screen asks how far it is, in milliseconds. */
const ASK_AGAIN = 250;

async function findNear(served: Served, within: number): Promise<number> {
  const begin = performance.now();
  for (;;) {
    const answer = await ask(served, "POST", "/api/near-copies/search", JSON.stringify({ within }));
    const { groups } = (await answer.json()) as { groups: unknown };
    if (groups !== null) return (performance.now() - begin) / 1000;
    await new Promise((resolve) => setTimeout(resolve, ASK_AGAIN));
  }
}

const MEGABYTE = 1024 * 1024;
/** A body just within the limit, of one thing over and over. */
const filled = (head: string, one: (n: number) => string, tail: string): string => {
  const parts: string[] = [];
  for (let size = head.length + tail.length, n = 0; ; n++) {
    const part = one(n);
    size += part.length + 1;
    if (size > 16 * MEGABYTE) break;
    parts.push(part);
  }
  return head + parts.join(",") + tail;
};

const SAVED = DEMO_PRESETS[0]!.versions.at(-1)!;
const saved = (n: number): string =>
  JSON.stringify({
    kind: SAVED.kind,
    content: SAVED,
    card: { name: `Of a large body ${n}`, folder: null, tags: [], purpose: "", rating: 0, notes: "", origin: {} },
  });

const words = (count: number, one: (n: number) => string) =>
  encodeURIComponent(
    Array.from({ length: count }, (_, n) => one(n))
      .join(" ")
      .slice(0, 4000),
  );
const letters = "abcdefghijklmnopqrstuvwxyz0123456789";

/** Searches made to take long: many beginnings, many slips, many values, signs that unfold to many others. */
const HOSTILE: readonly string[] = [
  `q=${words(36, (n) => letters[n]!)}`,
  `q=${words(2000, (n) => letters[n % 26]!)}`,
  `q=-${words(36, (n) => letters[n]!).replaceAll("%20", "%20-")}`,
  `q=${words(500, (n) => `voixe${n}lantorn`)}`,
  `q=name:${words(300, (n) => `x${n}`).replaceAll("%20", ",")}`,
  `q=${encodeURIComponent("\ufdfa".repeat(400))}`,
  `q=${encodeURIComponent("\u{1f9ec}\u0301\u0308".repeat(300))}`,
  `q=${encodeURIComponent(`${"((((".repeat(300)}${'"'.repeat(300)}${":::".repeat(200)}`)}`,
];

/** As many as may be saved in one go. */
const many = (): string => `{"presets":[${Array.from({ length: 10_000 }, (_, n) => saved(n)).join(",")}]}`;

const LARGE: readonly (readonly [method: string, path: string, body: () => string])[] = [
  ["POST", "/api/presets/batch", () => filled('{"presets":[', () => "{}", "]}")],
  ["POST", "/api/names", () => filled('{"names":[', () => '"a"', "]}")],
  ["PATCH", "/api/presets", () => `{${filled("", (n) => `"k${n}":1`, "}")}`],
  ["POST", "/api/presets", () => "[".repeat(8 * MEGABYTE)],
];

/** Three stars for the first 5,000 of the list. */
async function ratings(served: Served): Promise<string> {
  const changes: unknown[] = [];
  for (let offset = 0; offset < 5000; offset += 500) {
    const answer = await ask(served, "GET", `/api/presets?limit=500&offset=${offset}`);
    const { items } = (await answer.json()) as { items: { id: string; cardRevision: number }[] };
    for (const { id, cardRevision } of items) changes.push({ id, baseCard: cardRevision, card: { rating: 3 } });
  }
  return JSON.stringify({ changes });
}

/** Work that takes long, by name; what it sends is made ready first. */
type Work = () => Promise<unknown>;
type Heavy = readonly [name: string, prepare: (served: Served) => Work | Promise<Work>];

const HEAVY: readonly Heavy[] = [
  ["near copies", (served) => () => findNear(served, 0.05)],
  [
    "hostile searches",
    (served) => async () => {
      for (const query of HOSTILE) await send(served, "GET", `/api/presets?${query}`);
    },
  ],
  [
    "large bodies",
    (served) => {
      const bodies = LARGE.map(([method, path, body]) => [method, path, body()] as const);
      return async () => {
        for (const [method, path, body] of bodies) await send(served, method, path, body);
      };
    },
  ],
  [
    "many saved",
    (served) => {
      const body = many();
      return () => send(served, "POST", "/api/presets/batch", body);
    },
  ],
  [
    "bulk edit",
    async (served) => {
      const body = await ratings(served);
      return async () => {
        const edited = await ask(served, "PATCH", "/api/presets", body);
        const told = await edited.text();
        if (!edited.ok) throw new Error(told.slice(0, 300));
      };
    },
  ],
  // A folder high up: what is in it and below is found by other words, and half of the index is dead by then.
  [
    "index rebuilt",
    (served) => async () => {
      for (let n = 0; n < 12; n++)
        await send(served, "PATCH", `/api/folders/f${n}`, JSON.stringify({ name: `Renamed ${n}` }));
    },
  ],
  ["naming", (served) => () => send(served, "GET", "/api/naming")],
];

/** The longest wait beside each heavy request, and near copies of a library of which half is of one model. */
export async function waits(): Promise<readonly Figure[]> {
  const served = await serveMany(MANY, PORT);
  try {
    // A server that has been up for a while has answered before.
    await waitDuring(served, () => new Promise((resolve) => setTimeout(resolve, 1000)));
    const near = await findNear(served, 0.01);
    const longest: [name: string, ms: number][] = [];
    for (const [name, prepare] of HEAVY) longest.push([name, await waitDuring(served, await prepare(served))]);
    const [worst] = longest.toSorted((a, b) => b[1] - a[1]);
    const note = longest.map(([name, ms]) => `${name} ${ms.toFixed(0)}`).join(", ");
    return [
      { name: "near-100k", value: near, op: "<=", goal: 10, unit: "s", runs: 1 },
      { name: "worst-wait", value: worst![1], op: "<=", goal: 250, unit: "ms", runs: longest.length, note },
    ];
  } finally {
    await served.end();
  }
}
