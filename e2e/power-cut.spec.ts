import { expect, test } from "@playwright/test";
import { seededRandom } from "@/core/random";
import { createServer } from "./server";

/** The real server is killed in the middle of writes, at random moments: all that it answered is there, nothing half. */

const ROUNDS = 6;
const PORT = 4790;

interface Body {
  readonly project: {
    readonly strips: readonly {
      readonly id: string;
      readonly level: { readonly fader: number; readonly mute: boolean };
    }[];
  };
  readonly revision: number;
}

const json = (method: string, body: unknown): RequestInit => ({
  method,
  body: JSON.stringify(body),
  headers: { "Content-Type": "application/json" },
});

test("kill -9 at random moments loses nothing that was answered", async () => {
  test.setTimeout(240_000);
  const random = seededRandom(4747);
  const server = await createServer(PORT, true);
  const ask = async <T>(path: string, init?: RequestInit): Promise<T | null> => {
    const answer = await fetch(server.url + path, init).catch(() => null);
    return answer?.ok ? ((await answer.json().catch(() => null)) as T | null) : null;
  };
  const start = (await ask<Body>("/api/projects/neap-tide"))!;
  const saved = new Map<string, string>();
  let answered = start.revision;
  let fader = start.project.strips.find((s) => s.id === "patch-bass")!.level.fader;
  let serial = 0;

  const writeFaders = async (): Promise<void> => {
    for (;;) {
      const now = await ask<Body>("/api/projects/neap-tide");
      const level = now?.project.strips.find((s) => s.id === "patch-bass")?.level;
      if (!now || !level) return;
      const to = { fader: Math.round(-300 * random()) / 10, mute: false };
      const step = {
        id: `s${serial++}`,
        strip: "patch-bass",
        part: "level",
        kind: "setPart",
        from: level,
        to,
      };
      const done = await ask<Body>(
        "/api/projects/neap-tide/changes",
        json("POST", { baseRevision: now.revision, steps: [step], label: "Fader" }),
      );
      if (!done) return;
      answered = done.revision;
      fader = to.fader;
    }
  };
  const writePresets = async (): Promise<void> => {
    for (;;) {
      const name = `Kept ${serial++}`;
      const content = {
        kind: "chain",
        schema: 1,
        chain: {
          nodes: [{ type: "processor", key: "c", model: "vca-compressor", enabled: true, values: { threshold: -20 } }],
          macros: [],
        },
      };
      const card = { name, folder: null, tags: ["kept"], purpose: "", rating: 0, notes: "", origin: {} };
      const made = await ask<{ preset: { id: string } }>(
        "/api/presets",
        json("POST", { preset: { kind: "chain", content, card } }),
      );
      if (!made) return;
      saved.set(made.preset.id, name);
    }
  };

  for (let round = 0; round < ROUNDS; round++) {
    const writers = [writeFaders(), writePresets(), writePresets()];
    // The moment is random, but not before a server that has just started has answered its first write.
    const before = saved.size;
    await expect.poll(() => saved.size, { timeout: 20_000, intervals: [5] }).toBeGreaterThan(before);
    await new Promise((resolve) => setTimeout(resolve, random() * 700));
    await server.kill9();
    await Promise.all(writers);
    await server.start();

    const now = (await ask<Body>("/api/projects/neap-tide"))!;
    // One change may have reached the disk without its answer having left.
    expect(now.revision - answered).toBeGreaterThanOrEqual(0);
    expect(now.revision - answered).toBeLessThanOrEqual(1);
    if (now.revision === answered)
      expect(now.project.strips.find((s) => s.id === "patch-bass")!.level.fader).toBe(fader);
    answered = now.revision;
    fader = now.project.strips.find((s) => s.id === "patch-bass")!.level.fader;
    const { revisions } = (await ask<{ revisions: { n: number }[] }>("/api/projects/neap-tide/revisions"))!;
    expect(revisions.map((r) => r.n)).toEqual(Array.from({ length: now.revision }, (_, i) => now.revision - i));
    // Taking back every revision gives the project of the beginning: the log and the project agree to the last value.
    const first = (await ask<Body>("/api/projects/neap-tide/revisions/0"))!;
    expect(first.project).toEqual(start.project);
    for (const [id, name] of saved) {
      const detail = await ask<{ preset: { card: { name: string } }; versions: unknown[] }>(`/api/presets/${id}`);
      expect(detail?.preset.card.name).toBe(name);
      expect(detail?.versions).toHaveLength(1);
    }
    const page = (await ask<{ total: number; items: unknown[] }>("/api/presets?tag=kept&limit=500"))!;
    expect(page.total).toBeGreaterThanOrEqual(saved.size);
    expect(page.items).toHaveLength(Math.min(500, page.total));
  }
  expect(saved.size).toBeGreaterThanOrEqual(ROUNDS);
  await server.stop();
});
