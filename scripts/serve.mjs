import { spawn } from "node:child_process";
import { ROOT } from "./install.mjs";

/** Starts the built server and ends with it. */
export function serve(folder) {
  const server = spawn(process.execPath, [".build/server.mjs"], {
    cwd: ROOT,
    stdio: "inherit",
    env: { ...process.env, NODE_ENV: "production", NEXT_TELEMETRY_DISABLED: "1", DIATHESIS_DATA: folder },
  });
  for (const signal of ["SIGINT", "SIGTERM"]) process.on(signal, () => server.kill(signal));
  server.on("exit", (code) => process.exit(code ?? 1));
}
