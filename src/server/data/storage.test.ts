import {
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import Database from "better-sqlite3";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { answer } from "@/app/testing/routes";
import { INCLUDED } from "@/core/packs/included";
import { emptyCard } from "@/core/presets/preset";
import { loadDemo } from "@/demo/load";
import { value } from "../testing";
import { savePreset } from "../use-cases/library";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { shareContext } from "../store/shared";
import { CopyFailed, copyLibrary } from "./copy";
import { DatabaseRefused, findStorageFault } from "./faults";
import { DATABASE_FILE } from "./library-file";

let folder: string;
let context: OpenContext | null = null;

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), "diathesis-storage-"));
});

afterEach(async () => {
  await context?.close();
  context = null;
  rmSync(folder, { recursive: true, force: true });
});

const at = (name: string) => join(folder, name);
const CONTENT = INCLUDED.presets[0]!.content;
const preset = (name: string) => ({ preset: { kind: CONTENT.kind, content: CONTENT, card: emptyCard(name) } });

async function open(): Promise<OpenContext> {
  context = await openContext(folder);
  shareContext(context);
  return context;
}

/** A library with one sound, closed. */
async function stood(): Promise<void> {
  const opened = await open();
  value(await savePreset(opened, preset("Rim")));
  await opened.close();
  context = null;
}

const post = async () => {
  const said = vi.spyOn(console, "error").mockImplementation(() => undefined);
  const response = await answer("/api/presets", {
    method: "POST",
    body: JSON.stringify(preset("Another")),
    headers: { "Content-Type": "application/json" },
  });
  said.mockRestore();
  const { error } = (await response.json()) as { error?: { code: string; message: string } };
  return { status: response.status, error };
};

describe("a folder in which a library has stood", () => {
  const refusal = async () => {
    const before = readdirSync(folder).map((name) => [name, statSync(at(name)).size]);
    const error = await openContext(folder).then(
      () => null,
      (why: unknown) => why,
    );
    expect(error).toBeInstanceOf(DatabaseRefused);
    const after = readdirSync(folder).map((name) => [name, statSync(at(name)).size]);
    expect(after.filter(([name]) => !String(name).startsWith("lock"))).toEqual(
      before.filter(([name]) => !String(name).startsWith("lock")),
    );
    return (error as Error).message;
  };

  it("is not begun anew when its file is missing, empty or hollow: it says what is there and what to do", async () => {
    await stood();
    renameSync(at(DATABASE_FILE), at("kept"));
    expect(await refusal()).toMatch(
      /diathesis\.db is missing.*READ ME\.txt.*Put diathesis\.db back.*Nothing was changed/s,
    );
    writeFileSync(at(DATABASE_FILE), "");
    expect(await refusal()).toContain("is empty");
    const hollow = new Database(at(DATABASE_FILE));
    hollow.exec("CREATE TABLE x (y)");
    hollow.close();
    expect(await refusal()).toContain("holds nothing of it");
    renameSync(at("kept"), at(DATABASE_FILE));
    expect(value(await savePreset(await open(), preset("Again"))).card.name).toBe("Again");
  });

  it("is not begun anew beside a log of writes or a copy, either", async () => {
    writeFileSync(at(`${DATABASE_FILE}-wal`), "what was written last");
    expect(await refusal()).toMatch(/diathesis\.db-wal \(0\.00 MB of changes/);
    expect(readFileSync(at(`${DATABASE_FILE}-wal`), "utf8")).toBe("what was written last");
    rmSync(at(`${DATABASE_FILE}-wal`));
    mkdirSync(at("copies"));
    writeFileSync(at("copies/before-migration-2026.db"), "x");
    expect(await refusal()).toContain("copies/before-migration-2026.db");
  });

  it("is begun where there was none", async () => {
    expect((await open()).db).toBeDefined();
    expect(readFileSync(at("READ ME.txt"), "utf8")).toContain("To put a backup in its place");
  });
});

describe("a library whose file goes while it serves", () => {
  it.each([[DATABASE_FILE], [`${DATABASE_FILE}-wal`]])(
    "(%s) acknowledges nothing any more, and says why",
    async (name) => {
      const opened = await open();
      value(await savePreset(opened, preset("Rim")));
      renameSync(at(name), at("elsewhere"));
      const gone = await post();
      expect(gone).toMatchObject({ status: 503, error: { code: "storage" } });
      expect(gone.error!.message).toContain("taken away or replaced");
      writeFileSync(at(name), "another");
      expect((await post()).error!.code).toBe("storage");
      // What was acknowledged is still read.
      expect((await answer("/api/presets")).status).toBe(200);
      rmSync(at(name));
      renameSync(at("elsewhere"), at(name));
      expect((await post()).status).toBe(201);
    },
  );

  it("notices a folder that was deleted", async () => {
    await open();
    rmSync(folder, { recursive: true });
    expect((await post()).error!.code).toBe("storage");
  });
});

describe("a fault of the disk", () => {
  it("that is full is told in words, changes nothing, and is over when there is room", async () => {
    const opened = await open();
    const [{ page_count: pages }] = (await opened.writer.raw("PRAGMA page_count")) as [{ page_count: number }];
    await opened.writer.raw(`PRAGMA max_page_count = ${pages}`);
    const count = async () => (await opened.db("presets").count({ n: "*" }))[0]!.n;
    const before = await count();
    const full: Awaited<ReturnType<typeof post>>[] = [];
    for (let n = 0; n < 30 && full.length === 0; n++) {
      const done = await post();
      if (done.error) full.push(done);
    }
    expect(full[0]).toMatchObject({ status: 507, error: { code: "diskFull" } });
    const stands = await count();
    expect((await post()).status).toBe(507);
    expect(await count()).toBe(stands);
    expect(Number(stands)).toBeGreaterThanOrEqual(Number(before));
    await opened.writer.raw("PRAGMA max_page_count = 1000000");
    expect((await post()).status).toBe(201);
  });

  it("or another program that holds the write lock is told in words", async () => {
    const opened = await open();
    await opened.writer.raw("PRAGMA busy_timeout = 50");
    const other = new Database(at(DATABASE_FILE));
    other.exec("BEGIN IMMEDIATE");
    expect(await post()).toMatchObject({ status: 503, error: { code: "busy" } });
    other.exec("ROLLBACK");
    other.close();
    expect((await post()).status).toBe(201);
  });

  it("or what is read-only is told in words", async () => {
    const opened = await open();
    await opened.writer.raw("PRAGMA query_only = ON");
    expect(await post()).toMatchObject({ status: 503, error: { code: "storage" } });
    await opened.writer.raw("PRAGMA query_only = OFF");
  });

  it("has words for whatever the system says, and none for what is no fault of it", () => {
    const coded = (code: string) => findStorageFault(Object.assign(new Error("x"), { code }));
    for (const code of [
      "SQLITE_IOERR_WRITE",
      "SQLITE_CORRUPT_VTAB",
      "SQLITE_NOTADB",
      "SQLITE_CANTOPEN",
      "EROFS",
      "SQLITE_BUSY_SNAPSHOT",
    ])
      expect(coded(code)?.message).toMatch(/\.$/);
    expect(findStorageFault(new TypeError("x"))).toBeNull();
    expect(coded("SQLITE_CONSTRAINT")).toBeNull();
  });

  it("in a damaged file is told when it is opened", async () => {
    await stood();
    writeFileSync(at(DATABASE_FILE), "this is no database, but a text that is long enough to be one".repeat(100));
    const error: unknown = await openContext(folder).catch((why: unknown) => why);
    expect(findStorageFault(error)?.message).toContain("damaged");
  });
});

describe("a copy of the library", () => {
  it("has everything, is made while it is written to, and is never left half", async () => {
    const opened = await open();
    value(await savePreset(opened, preset("Rim")));
    copyLibrary(at(DATABASE_FILE), at("backup.db"));
    const copy = new Database(at("backup.db"), { readonly: true });
    expect((copy.prepare("SELECT count(*) AS n FROM presets").get() as { n: number }).n).toBe(1);
    copy.close();
    expect(() => copyLibrary(at(DATABASE_FILE), at("backup.db"))).toThrow(CopyFailed);
    expect(() => copyLibrary(at(DATABASE_FILE), join(folder, "nowhere", "backup.db"))).toThrow();
    expect(() => copyLibrary(at("missing.db"), at("other.db"))).toThrow();
    expect(readdirSync(folder).filter((name) => name.includes("part") || name === "other.db")).toEqual([]);
  });

  it("of the one file has what was written a moment before, once all is quiet", async () => {
    const opened = await open();
    value(await savePreset(opened, preset("Rim")));
    // The file alone, as a hand copies it, without what stands beside it.
    const inCopy = (): number => {
      writeFileSync(at("by-hand.db"), readFileSync(at(DATABASE_FILE)));
      const copy = new Database(at("by-hand.db"), { readonly: true });
      try {
        return (copy.prepare("SELECT count(*) AS n FROM presets").get() as { n: number }).n;
      } catch {
        // Not even its tables are in it.
        return 0;
      } finally {
        copy.close();
      }
    };
    expect(inCopy()).toBe(0);
    // Somebody who reads meanwhile does not hold it up for good.
    const reader = new Database(at(DATABASE_FILE), { readonly: true });
    const rows = reader.prepare("SELECT id FROM presets").iterate();
    rows.next();
    value(await savePreset(opened, preset("Edge")));
    await new Promise((resolve) => setTimeout(resolve, 1500));
    expect(inCopy()).not.toBe(2);
    rows.return?.();
    reader.close();
    await vi.waitFor(() => expect(inCopy()).toBe(2), { timeout: 10_000, interval: 50 });
  });
});

describe("a document that cannot be read", () => {
  it("is set aside and shown as such; lists, other sounds and other projects go on", async () => {
    const opened = await open();
    const bad = value(await savePreset(opened, preset("Bad"))).id;
    value(await savePreset(opened, preset("Good")));
    await loadDemo(opened);
    const spoil = (id: number) => opened.writer("documents").where({ id }).update({ body: '{"schema":99' });
    const { document } = (await opened.db("preset_versions").where({ preset: bad }).first("document"))!;
    await spoil(document);
    const project = (await opened.db("projects").where({ id: "neap-tide" }).first("document"))!;
    await spoil(project.document);
    await opened.writer("documents").where({ id: document }).update({ body: '{"schema":99}' });

    const get = async (path: string, init: RequestInit = {}) => {
      const said = vi.spyOn(console, "error").mockImplementation(() => undefined);
      const response = await answer(path, init);
      said.mockRestore();
      return { status: response.status, body: (await response.json()) as Record<string, unknown> };
    };
    const page = (await get("/api/presets?limit=500")).body as {
      total: number;
      items: { id: string; unreadable?: string }[];
    };
    expect(page.items).toHaveLength(page.total);
    expect(page.items.filter((item) => item.unreadable !== undefined)).toMatchObject([
      { id: bad, unreadable: "This document has schema 99; this Diathesis reads up to 1. Use a newer one." },
    ]);
    expect((await get(`/api/presets/${bad}`)).status).toBe(200);
    const detail = await get(`/api/presets/${bad}?version=1`);
    expect(detail).toMatchObject({ status: 503, body: { error: { code: "storage" } } });
    expect((await get("/api/projects")).status).toBe(200);
    expect(await get("/api/projects/neap-tide")).toMatchObject({
      status: 503,
      body: { error: { message: expect.stringContaining("The project “Neap Tide” cannot be read") as string } },
    });
    for (const path of ["/api/models/counts", "/api/naming", "/api/presets/rim-and-air", "/api/media/room"])
      expect((await get(path)).status, path).toBe(200);
    const search = { method: "POST", body: "{}", headers: { "Content-Type": "application/json" } };
    expect((await get("/api/near-copies/search", search)).status).toBe(200);
    await opened.close();
    expect((await open()).search).toBeDefined();
  });
});
