import equal from "fast-deep-equal";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { CataloguePreviewSchema, type Job } from "@/contracts/archive";
import type { NearCopies } from "@/contracts/library";
import { ENDPOINTS, type Endpoint } from "@/contracts/endpoints";
import type { SweepBody, SweepFinds, WrapUp, WrappedUp } from "@/contracts/wrap-up";
import { ErrorBodySchema } from "@/contracts/errors";
import { writeWav } from "@/core/formats/wav/wav";
import { emptyCard } from "@/core/presets/preset";
import { loadDemo } from "@/demo/load";
import type { OpenContext } from "@/server/store/context";
import { openContext } from "@/server/store/open";
import { settledJob } from "@/server/store/jobs";
import { shareContext } from "@/server/store/shared";
import { patiently } from "@/server/testing";
import { answer, routeFiles } from "./testing/routes";

let folder: string;
let context: OpenContext;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-api-"));
  context = await openContext(folder);
  await loadDemo(context);
  shareContext(context);
});

afterAll(async () => {
  await context.close();
  rmSync(folder, { recursive: true, force: true });
});

const json = (method: string, body: unknown): RequestInit => ({
  method: method.toUpperCase(),
  body: JSON.stringify(body),
  headers: { "Content-Type": "application/json" },
});

/** "/api/presets/{id}" with an id in its place. */
const at = (path: string, ids: Readonly<Record<string, string>> = {}): string =>
  path.replaceAll(/\{(\w+)\}/g, (_, name: string) => ids[name] ?? (name === "n" ? "99" : "nowhere"));

const changesSoFar = async (): Promise<number> =>
  Number((await context.db("changes").count({ n: "*" }))[0]?.n) +
  Number((await context.db("presets").count({ n: "*" }))[0]?.n);

const STREAMS = new Set(["/api/events", "/api/media/{hash}"]);
const WITH_BODY = ENDPOINTS.filter((e) => e.body !== undefined);
const titled = (list: readonly Endpoint[]) => list.map((e) => [`${e.method} ${e.path}`, e] as const);

describe("the list of addresses", () => {
  it("is what the routes answer to, no more and no less", async () => {
    const answered: string[] = [];
    for (const { path, load } of routeFiles()) {
      const methods = Object.keys(await load()).filter((name) => /^(GET|POST|PUT|PATCH|DELETE)$/.test(name));
      for (const method of methods) answered.push(`${method.toLowerCase()} ${path.replaceAll(/\[(\w+)\]/g, "{$1}")}`);
    }
    expect(answered.toSorted()).toEqual(ENDPOINTS.map((e) => `${e.method} ${e.path}`).toSorted());
  });
});

/** What has to be asked for at an address. */
const NEEDED: Readonly<Record<string, string>> = {
  "/api/values": "field=tag&",
  "/api/places": "id=narrator-close&",
  "/api/projects/{id}/note": "from=0&to=0&",
  "/api/figures": "of=neap-tide&",
  "/api/incoming/{id}/pieces": "at=0&",
};

describe("a request that is none", () => {
  it.each(titled(WITH_BODY))("%s: refused in words, and nothing has changed", async (_, { method, path }) => {
    const before = await changesSoFar();
    const where = at(path);
    const bad: readonly (readonly [init: RequestInit, status: number])[] = [
      [{ ...json(method, {}), body: "{" }, 400],
      [json(method, null), 400],
      [json(method, []), 400],
      [json(method, { mood: "dark" }), 400],
      [{ ...json(method, {}), headers: { "Content-Type": "text/plain" } }, 415],
    ];
    for (const [init, status] of bad) {
      const response = await answer(where, init);
      const { error } = ErrorBodySchema.parse(await response.json());
      expect([response.status, error.message.length > 10], error.message).toEqual([status, true]);
    }
    expect(await changesSoFar()).toBe(before);
  });

  it.each(titled(ENDPOINTS.filter((e) => e.query !== undefined && e.method === "get")))(
    "%s: a parameter that is not known is refused",
    async (_, { path }) => {
      const response = await answer(`${at(path, { id: "narrator-close" })}?${NEEDED[path] ?? ""}mood=dark`, {});
      expect([response.status, ErrorBodySchema.parse(await response.json()).error.path]).toEqual([400, "mood"]);
    },
  );

  it.each(titled(ENDPOINTS.filter((e) => e.path.includes("{") && e.body === undefined && !STREAMS.has(e.path))))(
    "%s: what is not there is not found",
    async (_, { method, path }) => {
      const before = await changesSoFar();
      const response = await answer(`${at(path)}?${NEEDED[path] ?? ""}`, { method: method.toUpperCase() });
      expect([response.status, ErrorBodySchema.parse(await response.json()).error.code]).toEqual([404, "notFound"]);
      expect(await changesSoFar()).toBe(before);
    },
  );

  it("tells nothing of the inside when something breaks there", async () => {
    const silenced = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const broken = vi.spyOn(context.search, "find").mockImplementation(() => {
      throw new Error("/home/someone/secret.db is on fire");
    });
    const response = await answer("/api/presets");
    broken.mockRestore();
    expect(silenced).toHaveBeenCalledOnce();
    silenced.mockRestore();
    expect(response.status).toBe(500);
    expect(await response.text()).not.toContain("secret");
  });
});

const RENAMED = { id: "n", kind: "setDetail", detail: "name", from: "Neap Tide", to: "Spring Tide" };

describe("an answer", () => {
  it("is as its address says, all along a session's work", async () => {
    const seen = new Set<string>();
    /** Asks, and holds the answer against what the list promises. */
    const ask = async <T = unknown>(
      method: Endpoint["method"],
      path: string,
      more: { ids?: Record<string, string>; body?: unknown; query?: string } = {},
    ) => {
      const endpoint = ENDPOINTS.find((e) => e.method === method && e.path === path)!;
      seen.add(`${method} ${path}`);
      const init = more.body === undefined ? { method: method.toUpperCase() } : json(method, more.body);
      const response = await answer(at(path, more.ids) + (more.query ?? ""), init);
      const body: unknown = await response.json();
      expect(body, `${method} ${path}`).not.toHaveProperty("error");
      expect(response.status, `${method} ${path}`).toBe(endpoint.status ?? 200);
      expect(endpoint.answer.parse(body), `${method} ${path}`).toEqual(body);
      return body as T;
    };
    await ask("get", "/api/health");
    await ask("get", "/api/models");
    await ask("get", "/api/models/counts");
    await ask("get", "/api/models/{id}", { ids: { id: "parametric-eq" } });

    const page = await ask<{ items: { id: string; content: unknown; kind: string; cardRevision: number }[] }>(
      "get",
      "/api/presets",
      { query: "?q=cello&sort=used&limit=5" },
    );
    const [{ id, content, kind, cardRevision }] = page.items as [(typeof page.items)[number]];
    await ask("get", "/api/presets/{id}", { ids: { id }, query: "?version=1" });
    await ask("get", "/api/presets/{id}/uses", { ids: { id } });
    await ask("get", "/api/places", { query: `?id=${id}&q=cello&sort=used` });
    await ask("get", "/api/values", { query: "?field=tag&order=name&begun=w" });
    await ask("post", "/api/words", { body: { list: "tags", from: ["warm"], to: "Warmth" } });
    const versions = [
      { preset: id, version: 1 },
      { preset: "nothing-such", version: 1 },
    ];
    const saved = await ask<{ versions: object[] }>("post", "/api/versions", { body: { versions } });
    expect(saved.versions).toHaveLength(1);
    const preset = { kind, content, card: emptyCard("Copied by hand") };
    const made = await ask<{ preset: { id: string } }>("post", "/api/presets", { body: { preset } });
    const copy = made.preset.id;
    await ask("post", "/api/presets/batch", { body: { presets: [preset, preset], newFolder: "Copies" } });
    const alike = await ask<typeof page>("get", "/api/presets", { query: `?kind=${kind}&limit=50` });
    const other = alike.items.find((p) => !equal(p.content, content))!.content;
    await ask("put", "/api/presets/{id}/content", { ids: { id: copy }, body: { baseVersion: 1, content: other } });
    await ask("post", "/api/presets/{id}/used", { ids: { id: copy } });
    await ask("patch", "/api/presets/{id}/versions", { ids: { id: copy }, body: { version: 2, name: "second" } });
    await ask("patch", "/api/presets", { body: { changes: [{ id, baseCard: cardRevision, card: { rating: 5 } }] } });
    await ask("post", "/api/presets/{id}/versions", { ids: { id: copy }, body: { version: 1 } });
    const search = { name: "Warm voices", q: "warm", only: "", folder: null };
    await ask("put", "/api/searches", { body: { id: "warm-voices", search, at: 0 } });
    await ask("get", "/api/library/history");
    await ask("get", "/api/library/log", { query: "?q=search&limit=5" });
    await ask("post", "/api/library/undo", { body: {} });
    await ask("post", "/api/library/redo", { body: {} });

    const folderMade = await ask<{ folder: { id: string } }>("post", "/api/folders", {
      body: { name: "Nave", parent: null },
    });
    await ask("get", "/api/folders");
    await ask("patch", "/api/folders/{id}", { ids: { id: folderMade.folder.id }, body: { name: "Naves" } });
    await ask("delete", "/api/folders/{id}", { ids: { id: folderMade.folder.id } });
    await ask("post", "/api/folders/by", { body: { by: "artist", ids: [id] } });
    const near = await ask<NearCopies>("post", "/api/near-copies/search", { body: { within: 0.01 } });
    const [keep, ...others] = near.groups![0]!.copies.map(({ preset }) => preset.id);
    await ask("post", "/api/near-copies", { body: { keep, others } });
    await ask("get", "/api/naming");
    await ask("post", "/api/cards", { body: { ids: [id] } });
    await ask("get", "/api/library/work");
    await ask("delete", "/api/library/work");
    await ask("post", "/api/names", { body: { names: ["Rim and air", "Nothing is called so"] } });
    const gone = copy === keep || others.includes(copy) ? keep! : copy;
    await ask("delete", "/api/presets/{id}", { ids: { id: gone } });
    await ask("get", "/api/bin");
    await ask("delete", "/api/bin", { body: { ids: null } });

    await ask("get", "/api/projects");
    const project = await ask<{ project: Record<string, unknown> }>("get", "/api/projects/{id}", {
      ids: { id: "neap-tide" },
    });
    const { schema: _, id: __, ...likeIt } = project.project;
    const another = await ask<{ project: { id: string }; revision: number }>("post", "/api/projects", {
      body: { project: likeIt },
    });
    const ids = { id: another.project.id };
    const request = {
      source: { preset: "narrator-close", version: 1 },
      parts: ["inserts"],
      targets: { newStrip: { after: null } },
      mode: "replace",
    };
    const planned = await ask<{ plan: { steps: unknown[] } }>("post", "/api/projects/{id}/plans", {
      ids,
      body: { requests: [request] },
    });
    await ask("post", "/api/projects/{id}/changes", {
      ids,
      body: { baseRevision: another.revision, steps: planned.plan.steps, label: "Apply" },
    });
    await ask("post", "/api/projects/{id}/undo", { ids, body: { baseRevision: another.revision + 1 } });
    await ask("post", "/api/projects/{id}/redo", { ids, body: { baseRevision: another.revision + 2 } });
    await ask("get", "/api/projects/{id}/revisions", { ids });
    await ask("get", "/api/projects/{id}/history", { ids, query: "?q=level&limit=5" });
    await ask("get", "/api/projects/{id}/note", { ids, query: "?from=0&to=1" });
    await ask("get", "/api/projects/{id}/revisions/{n}", { ids: { ...ids, n: "1" } });

    await ask("get", "/api/strips", { query: "?q=cello&limit=3" });
    const more = { project: ids.id, baseRevision: another.revision + 3, steps: [RENAMED] };
    const together = await ask<{ revisions: unknown }>("post", "/api/changes", {
      body: { label: "x", changes: [more] },
    });
    await ask("post", "/api/changes/undo", { body: together });
    await ask("post", "/api/projects/{id}/return", { ids, body: { baseRevision: another.revision + 5, revision: 0 } });

    await ask("post", "/api/projects/{id}/mixes", {
      ids,
      body: { baseRevision: another.revision + 6, name: "Chorus up", take: "2", note: "" },
    });
    await ask("post", "/api/projects/{id}/bin", { ids, body: { binned: true } });
    await ask("get", "/api/projects", { query: "?binned=true" });
    await ask("post", "/api/projects/{id}/bin", { ids, body: { binned: false } });
    await ask("get", "/api/figures", { query: `?of=${ids.id},neap-tide` });

    const { revision, finds } = await ask<WrapUp>("get", "/api/projects/{id}/wrap-up", { ids });
    const file = finds.slice(0, 1).map(({ key }) => ({ key, as: { card: emptyCard("Wrapped up") } }));
    const wrapped = await ask<WrappedUp>("post", "/api/projects/{id}/wrap-up", {
      ids,
      body: { baseRevision: revision, file, left: [] },
    });
    await ask("post", "/api/projects/{id}/wrap-up/undo", { ids, body: wrapped.undo });
    const begun = await ask<SweepBody>("post", "/api/sweeps", { body: { projects: [ids.id], called: "One" } });
    const sweep = { ids: { id: begun.sweep!.id } };
    await patiently(async () => expect((await ask<SweepBody>("get", "/api/sweeps")).sweep?.done).toBe(1));
    await ask("patch", "/api/sweeps/{id}", { ...sweep, body: { isRunning: false } });
    const swept = await ask<SweepFinds>("get", "/api/sweeps/{id}/finds", { ...sweep, query: "?limit=5" });
    await ask("post", "/api/sweeps/{id}/wrap-up", { ...sweep, body: { file: [], left: [swept.finds[0]!.id] } });

    const draft = await ask<{ project: { id: string } }>("post", "/api/drafts", { body: { preset: "narrator-close" } });
    await ask("get", "/api/drafts");
    await ask("delete", "/api/drafts/{id}", { ids: { id: draft.project.id } });
    const settings = await ask<{ settings: object; revision: number }>("get", "/api/settings");
    await ask("put", "/api/settings", {
      body: { baseRevision: settings.revision, settings: settings.settings },
    });
    await ask("get", "/api/media");
    await ask("get", "/api/media/room");

    const { job } = await ask<{ job: Job }>("post", "/api/archive/files", {
      body: { wish: { kind: "project", ...ids } },
    });
    const wrote = (await settledJob(job.id)).result as Extract<Job["result"], { kind: "wrote" }>;
    await ask("get", "/api/jobs");
    await ask("get", "/api/jobs/{id}", { ids: { id: job.id } });
    await ask("delete", "/api/jobs/{id}", { ids: { id: job.id } });
    const backup = await ask<{ job: Job }>("post", "/api/archive/backups");
    expect((await settledJob(backup.job.id)).state).toBe("done");
    await ask("get", "/api/archive");
    const check = await ask<{ job: Job }>("post", "/api/archive/check");
    expect((await settledJob(check.job.id)).result).toMatchObject({ kind: "checked", checked: { faults: [] } });
    const fault = { of: "sound", id: "narrator-close", name: "x", what: "x", mend: "derive" };
    await ask("post", "/api/archive/check/mend", { body: { faults: [fault] } });
    await ask("get", "/api/archive/backups");
    const { incoming } = await ask<{ incoming: { id: string } }>("post", "/api/incoming", {
      body: { file: wrote.file },
    });
    const coming = { ids: { id: incoming.id } };
    const compared = await ask<{ job: Job }>("post", "/api/incoming/{id}/comparison", coming);
    expect((await settledJob(compared.job.id)).state).toBe("done");
    await ask("get", "/api/incoming/{id}", { ...coming, query: "?standing=same&q=spring&limit=5" });
    const bring = await ask<{ job: Job }>("post", "/api/incoming/{id}/bring", {
      ...coming,
      body: { items: {}, groups: {} },
    });
    expect((await settledJob(bring.job.id)).result).toMatchObject({ kind: "brought" });
    const sent = await ask<{ incoming: { id: string } }>("post", "/api/incoming", {
      body: { name: "a.json", bytes: 3 },
    });
    await ask("delete", "/api/incoming/{id}", { ids: { id: sent.incoming.id } });
    await ask("delete", "/api/archive/files/{name}", { ids: { name: wrote.file } });

    const left = ENDPOINTS.filter((e) => !seen.has(`${e.method} ${e.path}`)).map((e) => `${e.method} ${e.path}`);
    expect(left.toSorted()).toEqual([
      "delete /api/media",
      "get /api/archive/files/{name}",
      "get /api/catalogue",
      "get /api/events",
      "get /api/media/{hash}",
      "get /api/openapi.json",
      "get /api/presets/{id}/document",
      "get /api/presets/{id}/sheet",
      "get /api/projects/{id}/sheet",
      "post /api/catalogue",
      "post /api/media",
      "put /api/incoming/{id}/pieces",
    ]);
  });

  it("to a document is a file, which comes in again by pieces as it went out", async () => {
    const document = await answer("/api/presets/narrator-close/document");
    const text = await document.text();
    expect(JSON.parse(text)).toMatchObject({ diathesis: "preset", id: "narrator-close" });
    const bytes = new TextEncoder().encode(text.replace("narrator-close", "narrator-closer"));
    const begun = await answer("/api/incoming", json("post", { name: "one.json", bytes: bytes.length }));
    const { incoming } = (await begun.json()) as { incoming: { id: string } };
    const half = Math.floor(bytes.length / 2);
    const send = (at: number, piece: Uint8Array<ArrayBuffer>) =>
      answer(`/api/incoming/${incoming.id}/pieces?at=${at}`, {
        method: "PUT",
        body: piece,
        headers: { "Content-Type": "application/octet-stream" },
      });
    expect((await send(half, bytes.slice(half))).status).toBe(422);
    expect((await send(0, bytes.slice(0, half))).status).toBe(200);
    const early = await answer(`/api/incoming/${incoming.id}/comparison`, { method: "POST" });
    expect(early.status).toBe(422);
    const last = (await (await send(half, bytes.slice(half))).json()) as { incoming: { received: number } };
    expect(last.incoming.received).toBe(bytes.length);
    const { job } = (await (await answer(`/api/incoming/${incoming.id}/comparison`, { method: "POST" })).json()) as {
      job: Job;
    };
    expect((await settledJob(job.id)).state).toBe("done");
    const looked = (await (await answer(`/api/incoming/${incoming.id}`)).json()) as { items: unknown[] };
    expect(looked.items).toMatchObject([{ id: "narrator-closer", standing: "namesake" }]);
    const again = (await (await answer("/api/archive/files", json("post", { wish: { kind: "all" } }))).json()) as {
      job: Job;
    };
    const { result } = await settledJob(again.job.id);
    const file = await answer(`/api/archive/files/${encodeURIComponent((result as { file: string }).file)}`);
    const zip = new Uint8Array(await file.arrayBuffer());
    expect([zip[0], zip[1], zip.length]).toEqual([0x50, 0x4b, (result as { bytes: number }).bytes]);
  });

  it("to a catalogue is a table, which is read back with what was changed in it", async () => {
    const table = await (await answer("/api/catalogue")).text();
    const send = (text: string, query = "") =>
      answer(`/api/catalogue${query}`, {
        method: "POST",
        body: new TextEncoder().encode(text),
        headers: { "Content-Type": "application/octet-stream" },
      });
    const changed = table.replace(/^air-only-just,"[^"]*"/m, "air-only-just,Air by table");
    const preview = CataloguePreviewSchema.parse(await (await send(changed, "?preview=true")).json());
    expect(preview).toMatchObject({ total: 1, undo: null, problems: [] });
    const done = CataloguePreviewSchema.parse(await (await send(changed)).json());
    expect(done.undo).not.toBeNull();
    expect(await (await send(changed)).json()).toMatchObject({ total: 0, undo: null });
    expect((await send("name\nx\n")).status).toBe(422);
  });

  it("to a sound is the sound", async () => {
    const samples = Float32Array.from({ length: 4800 }, (_, n) => 0.25 * Math.sin(n / 10));
    const sent = writeWav({ left: samples, right: samples, sampleRate: 48_000 });
    const kept = await answer("/api/media?name=Bell", {
      method: "POST",
      body: Uint8Array.from(sent),
      headers: { "Content-Type": "audio/wav" },
    });
    const { media } = (await kept.json()) as { media: { hash: string; name: string } };
    expect([kept.status, media.name]).toEqual([201, "Bell"]);
    const back = await answer(`/api/media/${media.hash}`);
    expect(back.headers.get("content-type")).toBe("audio/wav");
    expect((await back.arrayBuffer()).byteLength).toBeGreaterThan(4800);
    const missing = await answer(`/api/media/${"0".repeat(64)}`);
    expect(missing.status).toBe(404);
    const room = (await (await answer("/api/media/room")).json()) as { items: unknown[] };
    expect(room.items).toMatchObject([{ hash: media.hash, used: false, bytes: sent.length }]);
    const remove = (hashes: readonly string[]) => answer("/api/media", json("delete", { hashes }));
    // A draft that plays it uses it, and so does a change that could be undone.
    const draft = (await (
      await answer("/api/drafts", json("post", { preset: null, instrument: "sampler", sample: media.hash }))
    ).json()) as { project: { id: string } };
    const used = await remove([media.hash]);
    expect([used.status, ErrorBodySchema.parse(await used.json()).error.path]).toEqual([422, "hashes[0]"]);
    await answer(`/api/drafts/${draft.project.id}`, { method: "DELETE" });
    expect((await remove([media.hash, "0".repeat(64)])).status).toBe(404);
    expect((await answer(`/api/media/${media.hash}`)).status).toBe(200);
    expect(await (await remove([media.hash])).json()).toEqual({ gone: 1 });
    expect((await answer(`/api/media/${media.hash}`)).status).toBe(404);
    const text = await answer("/api/media?name=Letter", {
      method: "POST",
      body: "x",
      headers: { "Content-Type": "text/plain" },
    });
    expect(text.status).toBe(415);
  });
});
