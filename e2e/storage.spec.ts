import { execFile } from "node:child_process";
import { existsSync, mkdtempSync, readdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { once } from "node:events";
import { connect } from "node:net";
import { createServer as createListener } from "node:http";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createServer, expect, spawnServer, test } from "./server";

/** The process and its files: how it begins, how it ends, and what it says on the command line. */

const PORT = 4770;

interface Ended {
  readonly code: number | null;
  readonly said: string;
}

/** Runs a program of the build to its end. */
const run = (script: string, args: readonly string[], env: Record<string, string>): Promise<Ended> =>
  new Promise((resolve) => {
    const all = { ...process.env, NODE_ENV: "production" as const, ...env };
    const child = execFile(process.execPath, [script, ...args], { env: all }, (_, out, err) =>
      resolve({ code: child.exitCode, said: out + err }),
    );
  });
const start = (env: Record<string, string>) => run(".build/server.mjs", [], env);

test("what cannot be begun says why in one sentence, and how to go on", async () => {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-begin-"));
  const plain = (said: string) => {
    expect(said).not.toMatch(/\bat .*\.(mjs|js|ts):\d|Error:/);
    return said.trim();
  };
  for (const port of ["abc", "0", "70000", "47.5"]) {
    const { code, said } = await start({ PORT: port, DIATHESIS_DATA: folder });
    expect([code, plain(said)]).toEqual([
      1,
      `PORT is “${port}”. Set it to a whole number from 1 to 65535, or leave it out for 4747.`,
    ]);
  }
  const listener = createListener().listen(PORT, "127.0.0.1");
  await once(listener, "listening");
  const taken = await start({ PORT: String(PORT), DIATHESIS_DATA: folder });
  expect([taken.code, plain(taken.said)]).toEqual([1, expect.stringContaining(`Port ${PORT} is taken.`)]);
  listener.close();

  // It was closed in order: all is in the one file.
  expect(readdirSync(folder).filter((name) => name.endsWith("-wal"))).toEqual([]);
  rmSync(join(folder, "diathesis.db"));
  const gone = await start({ PORT: String(PORT), DIATHESIS_DATA: folder });
  expect([gone.code, plain(gone.said)]).toEqual([1, expect.stringContaining("diathesis.db is missing")]);
  expect(existsSync(join(folder, "diathesis.db"))).toBe(false);
  writeFileSync(join(folder, "diathesis.db"), "no database ".repeat(1000));
  const damaged = await start({ PORT: String(PORT), DIATHESIS_DATA: folder });
  expect([damaged.code, plain(damaged.said)]).toEqual([1, expect.stringContaining("damaged")]);
  const file = join(folder, "a file");
  writeFileSync(file, "x");
  const noFolder = await start({ PORT: String(PORT), DIATHESIS_DATA: file });
  expect([noFolder.code, plain(noFolder.said)]).toEqual([1, expect.stringMatching(/cannot be opened/)]);
  rmSync(folder, { recursive: true });
});

test("it ends within 5 s, whatever is connected, and gives the folder back", async () => {
  const server = await createServer(PORT + 1, true);
  const port = PORT + 1;
  const lines = Array.from({ length: 6 }, () => connect(port, "127.0.0.1").on("error", () => undefined));
  const head = `Host: 127.0.0.1:${port}\r\n`;
  lines[0]!.write(
    `GET / HTTP/1.1\r\n${head}Connection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n`,
  );
  lines[1]!.write(`GET /api/events HTTP/1.1\r\n${head}\r\n`);
  lines[2]!.write(`POST /api/folders HTTP/1.1\r\n${head}Content-Length: 100\r\n\r\n{`);
  lines[3]!.write("GET / HT");
  lines[4]!.write(`GET /library HTTP/1.1\r\n${head}Connection: keep-alive\r\n\r\n`);
  await fetch(`${server.url}/api/near-copies/search`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ within: 0.1 }),
  });
  await new Promise((resolve) => setTimeout(resolve, 300));
  const begun = Date.now();
  const { folder } = server;
  await server.end();
  expect(Date.now() - begun).toBeLessThan(5000);
  // Another takes the folder at once.
  const again = await spawnServer(folder, port);
  again.child.kill("SIGKILL");
  for (const line of lines) line.destroy();
  rmSync(folder, { recursive: true, force: true });
});

test("what is in the library is measured in a thread of its own, also what was saved a moment ago", async () => {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-loudness-"));
  const port = PORT + 4;
  const { child } = await spawnServer(folder, port, { DIATHESIS_LOUDNESS: "on" });
  type Page = { readonly total: number; readonly items: readonly { readonly loudness?: number }[] };
  const found = async (q: string) =>
    (await (await fetch(`http://127.0.0.1:${port}/api/presets?q=${encodeURIComponent(q)}`)).json()) as Page;
  await expect.poll(async () => (await found("loudness:*")).total, { timeout: 60_000 }).toBeGreaterThan(0);
  const [quiet] = (await found('pack:included name:"Gain, six down"')).items as unknown as readonly {
    readonly kind: string;
    readonly card: Record<string, unknown>;
    readonly content: unknown;
  }[];
  const saved = await fetch(`http://127.0.0.1:${port}/api/presets`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({
      preset: { kind: quiet?.kind, content: quiet?.content, card: { ...quiet?.card, name: "Low" } },
    }),
  });
  expect(saved.status).toBe(201);
  await expect
    .poll(async () => (await found("name:Low pack:own loudness:-25..-23")).total, { timeout: 60_000 })
    .toBe(1);
  child.kill("SIGTERM");
  await once(child, "exit");
  rmSync(folder, { recursive: true, force: true });
});

test("a backup is made while it serves, is whole, and is a library when it is put in place", async ({ server }) => {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-backup-"));
  const file = join(folder, "kept.db");
  const env = { DIATHESIS_DATA: server.folder };
  const made = await fetch(`${server.url}/api/folders`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ name: "Written a moment ago", parent: null }),
  });
  expect(made.status).toBe(201);
  const done = await run(".build/backup.mjs", [file], env);
  expect([done.code, done.said]).toEqual([0, expect.stringContaining("the copy is sound")]);
  expect((await run(".build/backup.mjs", [file], env)).said).toContain("already; it stays");
  expect((await run(".build/backup.mjs", [file], env)).code).toBe(1);
  expect((await run(".build/backup.mjs", [], env)).code).toBe(2);
  expect((await run(".build/backup.mjs", [join(folder, "no", "such", "folder.db")], env)).code).toBe(1);
  expect((await run(".build/backup.mjs", [join(folder, "x.db")], { DIATHESIS_DATA: folder })).code).toBe(1);
  expect(readdirSync(folder)).toEqual(["kept.db"]);
  renameSync(file, join(folder, "diathesis.db"));
  const restored = await spawnServer(folder, PORT + 2);
  const { folders } = (await (await fetch(`http://127.0.0.1:${PORT + 2}/api/folders`)).json()) as {
    folders: { name: string }[];
  };
  expect(folders.map((f) => f.name)).toContain("Written a moment ago");
  restored.child.kill("SIGKILL");
  rmSync(folder, { recursive: true, force: true });
});

test("a file that is taken away while it serves is told in the browser", async ({ page }) => {
  const server = await createServer(PORT + 3, true);
  await page.goto(`${server.url}/library?q=narrator`);
  await page.getByRole("option", { name: /Narrator, close/ }).click();
  renameSync(join(server.folder, "diathesis.db"), join(server.folder, "elsewhere.db"));
  await page.keyboard.press("Delete");
  await expect(page.getByText("was taken away or replaced")).toBeVisible();
  renameSync(join(server.folder, "elsewhere.db"), join(server.folder, "diathesis.db"));
  await server.stop();
});
