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
  readonly stop: () => Promise<void>;
}

const gone = (child: ChildProcess): Promise<void> =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise((resolve) => child.once("exit", () => resolve()));

/** Starts a process of the server; resolves when it answers, rejects with what it said when it ends before. */
export async function spawnServer(
  folder: string,
  port: number,
): Promise<{ child: ChildProcess; printed: () => string }> {
  const child = spawn(process.execPath, [".build/server.mjs"], {
    env: {
      ...process.env,
      NODE_ENV: "production",
      NEXT_TELEMETRY_DISABLED: "1",
      PORT: String(port),
      DIATHESIS_DATA: folder,
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
    async stop() {
      running.child.kill("SIGTERM");
      await gone(running.child);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

interface Fixtures {
  /** With the sample world, laid anew for each file. */
  readonly server: Server;
  /** With nothing in it. */
  readonly emptyServer: Server;
}

const FIRST_PORT = 4800;

export const test = base.extend<object, Fixtures>({
  server: [
    // Playwright reads the fixtures that are needed from this pattern; none are.
    async ({}, use, info) => {
      const server = await createServer(FIRST_PORT + info.workerIndex, true);
      await use(server);
      await server.stop();
    },
    { scope: "worker" },
  ],
  emptyServer: [
    async ({}, use, info) => {
      const server = await createServer(FIRST_PORT + 100 + info.workerIndex, false);
      await use(server);
      await server.stop();
    },
    { scope: "worker" },
  ],
});

export { expect };
