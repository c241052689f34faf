import { createServer } from "node:http";
import { resolve } from "node:path";
import next from "next";
import { INCLUDED } from "@/core/packs/included";
import type { OpenContext } from "../store/context";
import { openContext } from "../store/open";
import { shareContext } from "../store/shared";
import { DatabaseRefused, findStorageFault } from "../data/faults";
import { FolderInUse } from "../data/lock";
import { checkInThread } from "../check/run";
import { printInThread } from "../sheets/run";
import { keepLoudness } from "../loudness/keep";
import { runInThread } from "../near-copies/run";
import { keepBackups } from "../use-cases/archive/backups";
import { installPack } from "../use-cases/packs";
import { Front } from "./front";

const HOST = "127.0.0.1";
const FOLDER = resolve(process.env.DIATHESIS_DATA ?? ".data/library");

/** However things stand, the process is gone this long after it was told to end. In milliseconds. */
const LONGEST_END = 4500;

/** A message for the person at the terminal, without a stack. */
function giveUp(message: string): never {
  console.error(message);
  process.exit(1);
}

function readPort(text: string | undefined): number {
  const port = Number(text ?? 4747);
  if (text === "" || !Number.isInteger(port) || port < 1 || port > 65_535)
    giveUp(`PORT is “${text}”. Set it to a whole number from 1 to 65535, or leave it out for 4747.`);
  return port;
}

const LISTENING: Readonly<Record<string, (port: number) => string>> = {
  EADDRINUSE: (port) => `Port ${port} is taken. Close what uses it, or set PORT to another.`,
  EACCES: (port) => `Port ${port} may not be used by you. Set PORT to one above 1023.`,
};

function listen({ server }: Front, port: number, context: OpenContext): void {
  server.on("error", (error: NodeJS.ErrnoException) => {
    const why = LISTENING[error.code ?? ""]?.(port) ?? `It cannot serve on port ${port}: ${error.message}`;
    void context.close().finally(() => giveUp(why));
  });
  server.listen(port, HOST, () => console.log(`Diathesis is at http://${HOST}:${port}  (data in ${FOLDER})`));
}

/** Ends in order where it can, and ends in any case. A second signal ends at once. */
function endBySignal(front: Front, close: () => Promise<void>): void {
  let isEnding = false;
  const end = async () => {
    if (isEnding) process.exit(1);
    isEnding = true;
    setTimeout(() => process.exit(1), LONGEST_END);
    await front.end();
    await close();
    process.exit(0);
  };
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.on(signal, () => void end());
}

/** Whether sounds are measured in the background; tests of other things leave the machine to those. */
const isMeasuring = (): boolean => process.env.DIATHESIS_LOUDNESS !== "off";

/** Whether backups are made by the clock. */
const isBackingUp = (): boolean => process.env.DIATHESIS_BACKUPS !== "off";

async function main(): Promise<void> {
  const port = readPort(process.env.PORT);
  const context = await openContext(FOLDER, {
    runNearCopies: runInThread(new URL("./near-copies.mjs", import.meta.url)),
    runCheck: checkInThread(new URL("./check.mjs", import.meta.url)),
    runSheet: printInThread(new URL("./sheets.mjs", import.meta.url)),
  }).catch((error: unknown) => {
    if (error instanceof FolderInUse || error instanceof DatabaseRefused) giveUp(error.message);
    const fault = findStorageFault(error);
    if (fault) giveUp(`${fault.message} (${FOLDER})`);
    throw error;
  });
  await installPack(context, INCLUDED);
  shareContext(context);
  // It would listen for upgrades on the server that is given: on this one there are none.
  const nobody = createServer();
  const app = next({ dev: false, hostname: HOST, port, dir: process.cwd(), httpServer: nobody });
  await app.prepare();
  const front = new Front(port, app.getRequestHandler());
  let endMeasuring: (() => Promise<void>) | null = null;
  let endBackups: (() => Promise<void>) | null = null;
  endBySignal(front, async () => {
    await Promise.all([endMeasuring?.(), endBackups?.()]);
    await context.close();
  });
  listen(front, port, context);
  // Not before it serves: one that cannot has nothing to end but its context.
  if (isMeasuring())
    front.server.on("listening", () => {
      endMeasuring = keepLoudness(context, new URL("./loudness.mjs", import.meta.url));
    });
  if (isBackingUp())
    front.server.on("listening", () => {
      endBackups = keepBackups(context);
    });
}

main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
