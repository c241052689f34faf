import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import { DEMO_PRESETS } from "../../src/demo/library";
import { loadDemo } from "../../src/demo/load";
import { seededRandom } from "../../src/core/random";
import { openContext } from "../../src/server/data/context";
import type { Figure } from "./figure";
import { kill, serve } from "./server";

const ROUNDS = 200;
const PORT = 4991;
const URL = `http://127.0.0.1:${PORT}`;

/** Answers null where the server is gone, or refuses. */
async function ask<T>(method: string, path: string, body?: unknown): Promise<T | null> {
  const init: RequestInit = { method };
  if (body !== undefined)
    Object.assign(init, { body: JSON.stringify(body), headers: { "Content-Type": "application/json" } });
  const answer = await fetch(URL + path, init).catch(() => null);
  return answer?.ok ? ((await answer.json().catch(() => null)) as T | null) : null;
}

interface Card {
  readonly name: string;
  readonly rating: number;
  readonly folder: string | null;
}
interface Detail {
  readonly preset: {
    readonly id: string;
    readonly card: Card;
    readonly cardRevision: number;
    readonly version: number;
  };
}
interface Body {
  readonly project: { readonly strips: readonly { readonly id: string; readonly level: { readonly fader: number } }[] };
  readonly revision: number;
}

/** What was acknowledged, as it must be found again. */
class Kept {
  readonly presets = new Map<string, { version: number; rating: number; pair: string | null }>();
  readonly binned = new Set<string>();
  revision = 0;
  writes = 0;
}

const CONTENT = DEMO_PRESETS[0]!.versions.at(-1)!;
const preset = (name: string) => ({
  kind: CONTENT.kind,
  content: CONTENT,
  card: { name, folder: null, tags: ["kept"], purpose: "", rating: 0, notes: "", origin: {} },
});

/** Writes of every kind, one after the other, until the server is gone. */
function writers(kept: Kept, random: () => number): readonly (() => Promise<void>)[] {
  const own = (n: number) =>
    [...kept.presets.keys()].filter((id) => !kept.binned.has(id)).filter((_, at) => at % 3 === n);
  const save = async () => {
    for (let n = 0; ; n++) {
      const made = await ask<Detail>("POST", "/api/presets", { preset: preset(`One ${n}`) });
      if (!made) return;
      kept.presets.set(made.preset.id, { version: 1, rating: 0, pair: null });
      kept.writes += 1;
    }
  };
  const saveTwo = async () => {
    for (let n = 0; ; n++) {
      const two = { presets: [preset(`Pair ${n} a`), preset(`Pair ${n} b`)] };
      const made = await ask<{ presets: Detail["preset"][] }>("POST", "/api/presets/batch", two);
      if (!made) return;
      const [a, b] = made.presets.map((p) => p.id) as [string, string];
      kept.presets.set(a, { version: 1, rating: 0, pair: b });
      kept.presets.set(b, { version: 1, rating: 0, pair: a });
      kept.writes += 1;
    }
  };
  const change = async () => {
    for (;;) {
      const [id] = own(0).slice(-1);
      const known = id === undefined ? undefined : kept.presets.get(id);
      if (id === undefined || !known) {
        await new Promise((resolve) => setTimeout(resolve, 5));
        if (!(await ask("GET", "/api/health"))) return;
        continue;
      }
      const now = await ask<Detail>("GET", `/api/presets/${id}`);
      if (!now) return;
      const { version, cardRevision } = now.preset;
      if (!(await ask("PUT", `/api/presets/${id}/content`, { baseVersion: version, content: CONTENT }))) return;
      known.version = version + 1;
      const rating = 1 + Math.floor(random() * 5);
      const changes = [{ id, baseCard: cardRevision, card: { rating } }];
      if (!(await ask("PATCH", "/api/presets", { changes }))) return;
      known.rating = rating;
      kept.writes += 2;
      const [gone] = own(1).slice(-1);
      if (gone === undefined) continue;
      if (!(await ask("DELETE", `/api/presets/${gone}`))) return;
      kept.binned.add(gone);
      kept.writes += 1;
    }
  };
  const turn = async () => {
    for (let n = 0; ; n++) {
      const now = await ask<Body>("GET", "/api/projects/neap-tide");
      const fader = now?.project.strips.find((strip) => strip.id === "patch-bass")?.level.fader;
      if (!now || fader === undefined) return;
      const step = {
        id: `s${n}`,
        cell: { strip: "patch-bass", part: "level" },
        needs: [],
        kind: "setLevel",
        from: { fader, mute: false },
        to: { fader: -Math.round(random() * 300) / 10, mute: false },
      };
      const done = await ask<Body>("POST", "/api/projects/neap-tide/changes", {
        baseRevision: now.revision,
        label: "Fader",
        steps: [step],
      });
      if (!done) return;
      kept.revision = done.revision;
      kept.writes += 1;
    }
  };
  return [save, saveTwo, change, turn];
}

/** What was acknowledged and is not there, or is there by half. */
async function lostIn(kept: Kept, start: Body): Promise<readonly string[]> {
  const lost: string[] = [];
  const now = await ask<Body>("GET", "/api/projects/neap-tide");
  // One change may have reached the disk without its answer having left.
  const ahead = (now?.revision ?? -1) - kept.revision;
  if (ahead < 0 || ahead > 1) lost.push(`revision ${now?.revision} of ${kept.revision}`);
  kept.revision = now?.revision ?? kept.revision;
  // Taking back every revision gives the project of the beginning: the log and the project agree.
  const first = await ask<Body>("GET", "/api/projects/neap-tide/revisions/0");
  if (JSON.stringify(first?.project) !== JSON.stringify(start.project))
    lost.push("the log and the project do not agree");
  for (const [id, { version, rating, pair }] of kept.presets) {
    if (kept.binned.has(id)) continue;
    const detail = await ask<Detail>("GET", `/api/presets/${id}`);
    if (!detail) {
      // Thrown away without an answer that it was: then it is in the bin.
      const bin = await ask<{ items: { id: string }[] }>("GET", "/api/bin");
      if (bin?.items.some((item) => item.id === id)) kept.binned.add(id);
      else lost.push(`preset ${id}`);
      continue;
    }
    const { preset: found } = detail;
    if (found.version < version || found.version > version + 1) lost.push(`version ${version} of ${id}`);
    if (found.card.rating < rating && found.card.rating === 0) lost.push(`rating of ${id}`);
    if (pair !== null && !kept.binned.has(pair) && !(await ask("GET", `/api/presets/${pair}`)))
      lost.push(`half of ${id}`);
    Object.assign(kept.presets.get(id)!, { version: found.version, rating: found.card.rating });
  }
  // Of pairs both are there or none, answered or not.
  const page = await ask<{ items: { card: Card }[] }>("GET", "/api/presets?q=pair&limit=500");
  if (!page) lost.push("the list");
  return lost;
}

/** Ends the server at random moments under mixed writes: what was acknowledged is there, whole. */
export async function kills(): Promise<Figure> {
  const folder = mkdtempSync(join(process.cwd(), ".bench-"));
  const random = seededRandom(2026);
  const lost: string[] = [];
  const kept = new Kept();
  try {
    const context = await openContext(folder);
    await loadDemo(context);
    await context.close();
    let child = await serve(folder, PORT);
    const start = (await ask<Body>("GET", "/api/projects/neap-tide"))!;
    kept.revision = start.revision;
    for (let round = 0; round < ROUNDS; round++) {
      const before = kept.writes;
      const writing = writers(kept, random).map((write) => write());
      while (kept.writes === before) await new Promise((resolve) => setTimeout(resolve, 2));
      await new Promise((resolve) => setTimeout(resolve, random() * 120));
      await kill(child);
      await Promise.all(writing);
      child = await serve(folder, PORT);
      lost.push(...(await lostIn(kept, start)));
      // What was looked after so often needs not be asked for in every round to come.
      for (const id of [...kept.presets.keys()].slice(0, -60)) kept.presets.delete(id);
    }
    await kill(child);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  const note = `${kept.writes} acknowledged writes${lost.length > 0 ? `; ${lost.slice(0, 5).join(", ")}` : ""}`;
  return { name: "kills", value: lost.length, op: "<=", goal: 0, unit: "lost", runs: ROUNDS, note };
}
