import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { join } from "node:path";
import { openContext } from "../../src/server/store/open";
import { fill } from "./library";

/** The server as it ships, in a process of its own. */
export interface Served {
  readonly url: string;
  readonly child: ChildProcess;
  /** Ends it, and takes its folder away. */
  readonly end: () => Promise<void>;
}

const exited = (child: ChildProcess): Promise<void> =>
  child.exitCode !== null || child.signalCode !== null
    ? Promise.resolve()
    : new Promise((resolve) => child.once("exit", () => resolve()));

/** Starts the server on a folder; resolves when it answers. */
export async function serve(folder: string, port: number): Promise<ChildProcess> {
  const env = { ...process.env, NODE_ENV: "production" as const, PORT: String(port), DIATHESIS_DATA: folder };
  const child = spawn(process.execPath, [".build/server.mjs"], { env, stdio: ["ignore", "ignore", "inherit"] });
  for (let tries = 0; tries < 1200 && child.exitCode === null; tries++) {
    const health = await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => null);
    if (health?.ok) return child;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  child.kill("SIGKILL");
  throw new Error("The server did not answer.");
}

/** A server with so many presets in its library. */
export async function serveMany(count: number, port: number): Promise<Served> {
  const folder = mkdtempSync(join(process.cwd(), ".bench-"));
  const context = await openContext(folder);
  await fill(context, count);
  await context.close();
  const child = await serve(folder, port);
  return {
    url: `http://127.0.0.1:${port}`,
    child,
    async end() {
      child.kill("SIGTERM");
      await exited(child);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Ends a process at once, as a power cut would. */
export async function kill(child: ChildProcess): Promise<void> {
  child.kill("SIGKILL");
  await exited(child);
}
