import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import { DEMO_PRESETS } from "../../src/demo/library";
import { loadDemo } from "../../src/demo/load";
import { seededRandom } from "../../src/core/random";
import { openContext } from "../../src/server/store/open";
import type { Figure } from "./figure";
import { kill, serve } from "./server";

const ROUNDS = 200;
/** Every so many rounds the log is walked to its beginning. */
const WHOLE_LOG = 20;
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

interface KeptPreset {
  version: number;
  rating: number;
}

/** What was acknowledged, as it must be found again. */
class Kept {
  readonly presets = new Map<string, KeptPreset>();
  readonly binned = new Set<string>();
  revision = 0;
  writes = 0;
  /** Pairs that were sent, and a word that only the last of them has. */
  pairs = 0;
  lastPair = "";
}

const CONTENT = DEMO_PRESETS[0]!.versions.at(-1)!;
const preset = (name: string) => ({
  kind: CONTENT.kind,
  content: CONTENT,
  card: { name, folder: null, tags: ["kept"], purpose: "", rating: 0, notes: "", origin: {} },
});

/** One kind of write, over and over until the server is gone. */
type Writer = (kept: Kept, random: () => number) => Promise<void>;

/** A third of what stands in the list, so that two writers do not meet; the newest of it. */
const newestOf = (kept: Kept, third: number): string | undefined =>
  [...kept.presets.keys()].filter((id, at) => !kept.binned.has(id) && at % 3 === third).at(-1);

const save: Writer = async (kept) => {
  for (let n = 0; ; n++) {
    const made = await ask<Detail>("POST", "/api/presets", { preset: preset(`One ${n}`) });
    if (!made) return;
    kept.presets.set(made.preset.id, { version: 1, rating: 0 });
    kept.writes += 1;
  }
};

const saveTwo: Writer = async (kept) => {
  for (;;) {
    kept.lastPair = `pair${++kept.pairs}`;
    const two = { presets: [preset(`${kept.lastPair} left`), preset(`${kept.lastPair} right`)] };
    const made = await ask<{ presets: Detail["preset"][] }>("POST", "/api/presets/batch", two);
    if (!made) return;
    for (const { id } of made.presets) kept.presets.set(id, { version: 1, rating: 0 });
    kept.lastPair = "";
    kept.writes += 1;
  }
};

/** Saves another version and rates it; false where the server is gone. */
async function changeOne(kept: Kept, id: string, random: () => number): Promise<boolean> {
  const known = kept.presets.get(id)!;
  const now = await ask<Detail>("GET", `/api/presets/${id}`);
  if (!now) return false;
  const { version, cardRevision } = now.preset;
  if (!(await ask("PUT", `/api/presets/${id}/content`, { baseVersion: version, content: CONTENT }))) return false;
  known.version = version + 1;
  const rating = 1 + Math.floor(random() * 5);
  const changes = [{ id, baseCard: cardRevision, card: { rating } }];
  if (!(await ask("PATCH", "/api/presets", { changes }))) return false;
  known.rating = rating;
  kept.writes += 2;
  return true;
}

const change: Writer = async (kept, random) => {
  for (;;) {
    const id = newestOf(kept, 0);
    if (id === undefined) {
      await new Promise((resolve) => setTimeout(resolve, 5));
      if (!(await ask("GET", "/api/health"))) return;
    } else if (!(await changeOne(kept, id, random))) return;
  }
};

const throwAway: Writer = async (kept) => {
  for (;;) {
    await new Promise((resolve) => setTimeout(resolve, 15));
    const id = newestOf(kept, 1);
    if (id === undefined) {
      if (!(await ask("GET", "/api/health"))) return;
    } else {
      if (!(await ask("DELETE", `/api/presets/${id}`))) return;
      kept.binned.add(id);
      kept.writes += 1;
    }
  }
};

const turn: Writer = async (kept, random) => {
  for (let n = 0; ; n++) {
    const now = await ask<Body>("GET", "/api/projects/neap-tide");
    const fader = now?.project.strips.find((strip) => strip.id === "patch-bass")?.level.fader;
    if (!now || fader === undefined) return;
    const to = { fader: -Math.round(random() * 300) / 10, mute: false };
    const cell = { strip: "patch-bass", part: "level" };
    const steps = [{ id: `s${n}`, cell, kind: "setPart", from: { fader, mute: false }, to }];
    const request = { baseRevision: now.revision, label: "Fader", steps };
    const done = await ask<Body>("POST", "/api/projects/neap-tide/changes", request);
    if (!done) return;
    kept.revision = done.revision;
    kept.writes += 1;
  }
};

const WRITERS = [save, saveTwo, change, throwAway, turn];

async function lostOfProject(kept: Kept, start: Body, round: number): Promise<readonly string[]> {
  const lost: string[] = [];
  const now = await ask<Body>("GET", "/api/projects/neap-tide");
  // One change may have reached the disk without its answer having left.
  const ahead = (now?.revision ?? -1) - kept.revision;
  if (ahead < 0 || ahead > 1) lost.push(`revision ${kept.revision}`);
  kept.revision = now?.revision ?? kept.revision;
  if (round % WHOLE_LOG !== 0) return lost;
  // Taking back every revision gives the project of the beginning: the log and the project agree.
  const first = await ask<Body>("GET", "/api/projects/neap-tide/revisions/0");
  if (JSON.stringify(first?.project) !== JSON.stringify(start.project))
    lost.push("the log and the project do not agree");
  return lost;
}

/** What was thrown away is in the bin, answered or not. */
async function lostOfBin(kept: Kept): Promise<readonly string[]> {
  const bin = new Set((await ask<{ items: { id: string }[] }>("GET", "/api/bin"))?.items.map((item) => item.id));
  for (const id of kept.presets.keys()) if (bin.has(id)) kept.binned.add(id);
  return [...kept.binned].filter((id) => kept.presets.has(id) && !bin.has(id)).map((id) => `${id} out of the bin`);
}

async function lostOfPresets(kept: Kept): Promise<readonly string[]> {
  const lost: string[] = [];
  for (const [id, known] of kept.presets) {
    if (kept.binned.has(id)) continue;
    const found = (await ask<Detail>("GET", `/api/presets/${id}`))?.preset ?? null;
    const fault = faultOf(known, found);
    if (fault !== null) lost.push(`${fault} of ${id}`);
    if (found) Object.assign(known, { version: found.version, rating: found.card.rating });
  }
  return lost;
}

/** The pair that was on its way when the power went is there whole, or not at all. */
async function lostOfPair({ lastPair }: Kept): Promise<readonly string[]> {
  if (lastPair === "") return [];
  const found = await ask<{ total: number }>("GET", `/api/presets?q=${encodeURIComponent(`"${lastPair}"`)}`);
  return found?.total === 0 || found?.total === 2 ? [] : [`half of ${lastPair}`];
}

/** What of a preset is not as it was acknowledged; one change may have come in without its answer. */
function faultOf(known: KeptPreset, found: Detail["preset"] | null): string | null {
  if (!found) return "all";
  if (found.version < known.version || found.version > known.version + 1) return "a version";
  return found.card.rating === 0 && known.rating > 0 ? "the rating" : null;
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
      const writing = WRITERS.map((write) => write(kept, random));
      while (kept.writes === before) await new Promise((resolve) => setTimeout(resolve, 2));
      await new Promise((resolve) => setTimeout(resolve, random() * 120));
      await kill(child);
      await Promise.all(writing);
      child = await serve(folder, PORT);
      lost.push(
        ...(await lostOfProject(kept, start, round)),
        ...(await lostOfPair(kept)),
        ...(await lostOfBin(kept)),
        ...(await lostOfPresets(kept)),
      );
      // What was looked after so often needs not be asked for in every round to come.
      for (const id of [...kept.presets.keys()].slice(0, -30)) kept.presets.delete(id);
    }
    await kill(child);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  const note = `${kept.writes} acknowledged writes${lost.length > 0 ? `; ${lost.slice(0, 5).join(", ")}` : ""}`;
  return { name: "kills", value: lost.length, op: "<=", goal: 0, unit: "lost", runs: ROUNDS, note };
}
