import { spawnSync } from "node:child_process";
import { existsSync, statSync } from "node:fs";
import { fileURLToPath } from "node:url";

/** The project's folder. */
export const ROOT = fileURLToPath(new URL("..", import.meta.url));

/** Runs a command of the project and ends this one with it when it fails. `quiet` shows its output only then. */
export function run(command, args, { env = {}, quiet = false } = {}) {
  const result = spawnSync(command, args, {
    cwd: ROOT,
    stdio: quiet ? "pipe" : "inherit",
    encoding: "utf8",
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: "1", ...env },
  });
  if (result.status === 0) return result.stdout ?? "";
  if (quiet) process.stderr.write(`${result.stdout ?? ""}${result.stderr ?? ""}`);
  process.exit(result.status ?? 1);
}

export const bin = (name) => `node_modules/.bin/${name}`;

/** Installs what the lock file names, when something is missing or older than it. */
export function install() {
  const installed = `${ROOT}node_modules/.package-lock.json`;
  const lock = `${ROOT}package-lock.json`;
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs) return;
  console.error("Installing packages; this takes a few minutes the first time.");
  const env = { ...process.env };
  delete env.NODE_ENV;
  const result = spawnSync("npm", ["ci", "--include=dev", "--no-fund", "--no-audit"], {
    cwd: ROOT,
    stdio: ["ignore", 2, 2],
    env,
  });
  if (result.status !== 0) process.exit(result.status ?? 1);
  // npm may leave the stamp older than a lock file that was checked out a moment ago.
  spawnSync("touch", [installed]);
}
