import { randomBytes } from "node:crypto";
import { type IncomingMessage, STATUS_CODES, type ServerResponse, createServer } from "node:http";
import { resolve } from "node:path";
import next from "next";
import { INCLUDED } from "@/core/packs/included";
import { openContext, shareContext } from "../data/context";
import { DatabaseRefused } from "../data/database";
import { FolderInUse } from "../data/lock";
import { installPack } from "../use-cases/packs";
import { readBody, replay } from "./body";
import { type Refusal, checkHeaders, contentPolicy, tooLarge } from "./gate";

const PORT = Number(process.env.PORT ?? 4747);
const HOST = "127.0.0.1";
const FOLDER = resolve(process.env.DIATHESIS_DATA ?? ".data/library");

type Handler = (request: IncomingMessage, response: ServerResponse) => Promise<void>;

/** How long a refused sender is given to read why, in milliseconds. */
const READING_TIME = 1000;

/**
 * Says no while the sender may still be sending. What is under way is not read, and the line stays up for a moment:
 * closing at once would throw the answer away together with what is unread.
 */
function answerRefusal({ socket }: IncomingMessage, { status, body }: Refusal): void {
  const text = JSON.stringify(body);
  const head = [
    `HTTP/1.1 ${status} ${STATUS_CODES[status]}`,
    "Content-Type: application/json; charset=utf-8",
    `Content-Length: ${Buffer.byteLength(text)}`,
    "Connection: close",
  ];
  socket.end(`${head.join("\r\n")}\r\n\r\n${text}`);
  setTimeout(() => socket.destroy(), READING_TIME).unref();
}

async function answer(request: IncomingMessage, response: ServerResponse, handle: Handler): Promise<void> {
  const refusal = checkHeaders(request.headers, PORT);
  if (refusal) return answerRefusal(request, refusal);
  const policy = contentPolicy(randomBytes(16).toString("base64"));
  request.headers["content-security-policy"] = policy;
  response.setHeader("Content-Security-Policy", policy);
  response.setHeader("X-Content-Type-Options", "nosniff");
  response.setHeader("Referrer-Policy", "no-referrer");
  if (request.method === "GET" || request.method === "HEAD") return handle(request, response);
  const body = await readBody(request);
  if ("cut" in body) return;
  if ("tooLarge" in body) return answerRefusal(request, tooLarge());
  return handle(replay(request, body.whole), response);
}

/** A message for the person at the terminal, without a stack. */
function giveUp(message: string): never {
  console.error(message);
  process.exit(1);
}

async function main(): Promise<void> {
  const context = await openContext(FOLDER).catch((error: unknown) => {
    if (error instanceof FolderInUse || error instanceof DatabaseRefused) giveUp(error.message);
    throw error;
  });
  await installPack(context, INCLUDED);
  shareContext(context);
  const app = next({ dev: false, hostname: HOST, port: PORT, dir: process.cwd() });
  await app.prepare();
  const handle: Handler = app.getRequestHandler();
  const server = createServer((request, response) => {
    answer(request, response, handle).catch((error: unknown) => {
      console.error(error);
      if (!response.headersSent) response.writeHead(500, { "Content-Type": "application/json" });
      response.end(
        JSON.stringify({ error: { code: "internal", message: "Something went wrong inside. Nothing was lost." } }),
      );
    });
  });
  server.on("error", (error: NodeJS.ErrnoException) => {
    if (error.code === "EADDRINUSE") giveUp(`Port ${PORT} is taken. Close what uses it, or set PORT to another.`);
    throw error;
  });
  server.listen(PORT, HOST, () => console.log(`Diathesis is at http://${HOST}:${PORT}  (data in ${FOLDER})`));
  for (const signal of ["SIGINT", "SIGTERM"] as const)
    process.once(signal, () => {
      server.closeAllConnections();
      server.close(() => void context.close().then(() => process.exit(0)));
    });
}

main().catch((error: unknown) => {
  console.error(error);
  process.exit(1);
});
