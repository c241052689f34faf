import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { test as base, expect } from "@playwright/test";

/** The real server, built as it ships, in a process of its own. */
export interface Server {
  readonly url: string;
  readonly folder: string;
  /** Everything it has printed. */
  readonly printed: () => string;
  /** Ends it at once, as a power cut would. */
  readonly kill9: () => Promise<void>;
  /** Starts it again on the same folder and port. */
  readonly start: () => Promise<void>;
  /** Tells it to end, and waits until it has. */
  readonly end: () => Promise<void>;
  /** Ends it and takes its folder away. */
  readonly stop: () => Promise<void>;
}

const gone = (child: ChildProcess): Promise<void> =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise((resolve) => child.once("exit", () => resolve()));

const PLAIN: readonly [string, ...string[]] = [process.execPath, ".build/server.mjs"];

/** Starts a process of the server; resolves when it answers, rejects with what it said when it ends before. `command`: what starts it. */
export async function spawnServer(
  folder: string,
  port: number,
  more: Readonly<Record<string, string>> = {},
  [program, ...args]: readonly [string, ...string[]] = PLAIN,
): Promise<{ child: ChildProcess; printed: () => string }> {
  const child = spawn(program, args, {
    env: {
      ...process.env,
      NODE_ENV: "production",
      NEXT_TELEMETRY_DISABLED: "1",
      PORT: String(port),
      DIATHESIS_DATA: folder,
      // The machine is left to what is tested.
      DIATHESIS_LOUDNESS: "off",
      DIATHESIS_BACKUPS: "off",
      ...more,
    },
    stdio: ["ignore", "pipe", "pipe"],
  });
  let text = "";
  child.stdout.on("data", (chunk: Buffer) => (text += chunk.toString()));
  child.stderr.on("data", (chunk: Buffer) => (text += chunk.toString()));
  const printed = () => text;
  for (let tries = 0; tries < 300; tries++) {
    if (child.exitCode !== null) throw new Error(text);
    const answered = await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null);
    if (answered?.ok && text.includes("Diathesis is at")) return { child, printed };
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  child.kill("SIGKILL");
  throw new Error(`The server did not answer.\n${text}`);
}

export async function createServer(port: number, withDemo: boolean): Promise<Server> {
  const folder = mkdtempSync(join(tmpdir(), "diathesis-e2e-"));
  if (withDemo) execFileSync(process.execPath, [".build/demo.mjs", folder]);
  let running = await spawnServer(folder, port);
  return {
    url: `http://127.0.0.1:${port}`,
    folder,
    printed: () => running.printed(),
    async kill9() {
      running.child.kill("SIGKILL");
      await gone(running.child);
    },
    async start() {
      running = await spawnServer(folder, port);
    },
    async end() {
      running.child.kill("SIGTERM");
      await gone(running.child);
    },
    async stop() {
      running.child.kill("SIGTERM");
      await gone(running.child);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

interface Fixtures {
  /** With the sample world. */
  readonly server: Server;
  /** With nothing in it. */
  readonly emptyServer: Server;
}

/** The servers of one worker: each file finds them laid anew, the tests of a file share them. */
interface Shelf {
  readonly take: (file: string, withDemo: boolean) => Promise<Server>;
}

const FIRST_PORT = 4800;

async function withShelf(port: number, use: (shelf: Shelf) => Promise<void>): Promise<void> {
  const taken = new Map<boolean, { readonly file: string; readonly server: Server }>();
  await use({
    async take(file, withDemo) {
      const standing = taken.get(withDemo);
      if (standing?.file === file) return standing.server;
      await standing?.server.stop();
      const server = await createServer(withDemo ? port : port + 100, withDemo);
      taken.set(withDemo, { file, server });
      return server;
    },
  });
  for (const { server } of taken.values()) await server.stop();
}

export const test = base.extend<Fixtures, { readonly shelf: Shelf }>({
  shelf: [async ({}, use, info) => withShelf(FIRST_PORT + info.workerIndex, use), { scope: "worker" }],
  server: async ({ shelf }, use, info) => use(await shelf.take(info.file, true)),
  emptyServer: async ({ shelf }, use, info) => use(await shelf.take(info.file, false)),
});

export { expect };
