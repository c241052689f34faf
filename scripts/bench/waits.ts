import { type ClientRequest, get } from "node:http";
import { DEMO_PRESETS } from "../../src/demo/library";
import type { Figure } from "./figure";
import { MANY } from "./library";
import { type Served, serveMany } from "./server";

/** Between the answer to one plain request and the next, in milliseconds: somebody who looks through the library. */
const EVERY = 10;
const PORT = 4990;

interface Answer {
  readonly status: number;
  readonly body: unknown;
}

async function ask({ url }: Served, method: string, path: string, body?: string): Promise<Answer> {
  const init: RequestInit = { method };
  if (body !== undefined) Object.assign(init, { body, headers: { "Content-Type": "application/json" } });
  const answer = await fetch(url + path, init);
  return { status: answer.status, body: await answer.json() };
}

/** One plain request on a line of its own, in milliseconds: a page of the library. */
const plain = ({ url }: Served): Promise<number> =>
  new Promise((resolve, reject) => {
    const begin = performance.now();
    const asked: ClientRequest = get(`${url}/api/presets?limit=20`, { agent: false }, (answer) => {
      answer.resume();
      answer.on("end", () => resolve(performance.now() - begin));
    });
    asked.on("error", reject);
  });

/** The longest that any plain request waits while some work is done. */
async function waitDuring(served: Served, work: () => Promise<unknown>): Promise<number> {
  let isOver = false;
  let longest = 0;
  const poll = async () => {
    while (!isOver) {
      longest = Math.max(longest, await plain(served));
      await new Promise((resolve) => setTimeout(resolve, EVERY));
    }
  };
  const polling = poll();
  try {
    await work();
  } finally {
    isOver = true;
    await polling;
  }
  return longest;
}

async function findNear(served: Served, within: number): Promise<number> {
  const begin = performance.now();
  for (;;) {
    const { body } = await ask(served, "GET", `/api/near-copies?within=${within}`);
    if ((body as { groups: unknown }).groups !== null) return (performance.now() - begin) / 1000;
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

/** Work that takes long, by name. */
const HEAVY: readonly (readonly [name: string, work: (served: Served) => Promise<unknown>])[] = [
  ["near copies", (served) => findNear(served, 0.05)],
  [
    "hostile searches",
    async (served) => {
      for (const query of HOSTILE) await ask(served, "GET", `/api/presets?${query}`);
    },
  ],
  [
    "large bodies",
    async (served) => {
      await ask(
        served,
        "POST",
        "/api/presets/batch",
        filled('{"presets":[', () => "{}", "]}"),
      );
      await ask(
        served,
        "POST",
        "/api/names",
        filled('{"names":[', () => '"a"', "]}"),
      );
      await ask(served, "PATCH", "/api/presets", `{${filled("", (n) => `"k${n}":1`, "}")}`);
      await ask(served, "POST", "/api/presets", "[".repeat(8 * MEGABYTE));
    },
  ],
  ["many saved", (served) => ask(served, "POST", "/api/presets/batch", many())],
  [
    "bulk edit",
    async (served) => {
      const { body } = await ask(served, "GET", "/api/presets?limit=500");
      const changes: unknown[] = [];
      for (let offset = 0; offset < 5000; offset += 500) {
        const page = offset === 0 ? body : (await ask(served, "GET", `/api/presets?limit=500&offset=${offset}`)).body;
        for (const { id, cardRevision } of (page as { items: { id: string; cardRevision: number }[] }).items)
          changes.push({ id, baseCard: cardRevision, card: { rating: 3 } });
      }
      const edited = await ask(served, "PATCH", "/api/presets", JSON.stringify({ changes: changes.slice(0, 5000) }));
      if (edited.status !== 200) throw new Error(JSON.stringify(edited.body).slice(0, 300));
    },
  ],
  // A folder high up: what is in it and below is found by other words, and half of the index is dead by then.
  [
    "index rebuilt",
    async (served) => {
      for (let n = 0; n < 12; n++)
        await ask(served, "PATCH", `/api/folders/f${n}`, JSON.stringify({ name: `Renamed ${n}` }));
    },
  ],
  ["naming", (served) => ask(served, "GET", "/api/naming")],
];

/** As many as may be saved in one go. */
const many = (): string => `{"presets":[${Array.from({ length: 10_000 }, (_, n) => saved(n)).join(",")}]}`;

/** The longest wait beside each heavy request, and near copies of a library of which half is of one model. */
export async function waits(): Promise<readonly Figure[]> {
  const served = await serveMany(MANY, PORT);
  try {
    // A server that has been up for a while has answered before.
    await waitDuring(served, () => new Promise((resolve) => setTimeout(resolve, 1000)));
    const near = await findNear(served, 0.01);
    const longest: [name: string, ms: number][] = [];
    for (const [name, work] of HEAVY) longest.push([name, await waitDuring(served, () => work(served))]);
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
