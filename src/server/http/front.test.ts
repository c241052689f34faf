import { once } from "node:events";
import type { IncomingMessage } from "node:http";
import { type AddressInfo, type Socket, connect } from "node:net";
import { afterEach, describe, expect, it } from "vitest";
import { patiently } from "../testing";
import { ErrorBodySchema } from "@/contracts/errors";
import { BODIES_CEILING } from "./body";
import { Front, type Handler } from "./front";
import { BODY_LIMIT } from "./gate";
import { HANDED_AS, bodyOf, handOver, takeBack } from "./handed";

/* Real sockets, with a handler in the place of the application. */

const PATIENCE = { head: 400, request: 1200, quiet: 2500, reading: 150, ending: 300 };

let front: Front;
let port: number;

afterEach(() => front.end());

async function open(handle: Handler): Promise<void> {
  // The port is known only once it listens; the gate asks for it with each request.
  const probe = new Front(0, handle);
  await new Promise<void>((resolve) => probe.server.listen(0, "127.0.0.1", resolve));
  port = (probe.server.address() as AddressInfo).port;
  await probe.end();
  front = new Front(port, handle, PATIENCE);
  await new Promise<void>((resolve) => front.server.listen(port, "127.0.0.1", resolve));
}

/** How large the body is that a handler finds. */
async function sizeOf(request: IncomingMessage): Promise<number> {
  const name = String(request.headers[HANDED_AS]);
  const body = await bodyOf(new Request("http://127.0.0.1", { headers: { [HANDED_AS]: name } }));
  return body.length;
}

const hello: Handler = async (request, response) => {
  const size = request.method === "GET" ? Number(HANDED_AS in request.headers) : await sizeOf(request);
  response.end(`hello ${size}`);
};

interface Line {
  readonly socket: Socket;
  readonly read: () => string;
  readonly closed: Promise<number>;
}

function dial(): Line {
  let text = "";
  const begun = Date.now();
  const socket = connect(port, "127.0.0.1");
  socket.setEncoding("utf8").on("data", (chunk: string) => (text += chunk));
  socket.on("error", () => undefined);
  const closed = new Promise<number>((resolve) => socket.on("close", () => resolve(Date.now() - begun)));
  return { socket, read: () => text, closed };
}

const head = (method: string, url: string, ...lines: string[]) =>
  [`${method} ${url} HTTP/1.1`, `Host: 127.0.0.1:${port}`, ...lines, "", ""].join("\r\n");

/** Sends and reads to the end of the line; each answer's status and what of it is an error. */
async function send(text: string) {
  const line = dial();
  line.socket.write(text);
  const time = await line.closed;
  return { time, answers: answersIn(line.read()) };
}

const answersIn = (text: string) =>
  text.split(/(?=HTTP\/1\.1 )/).map((one) => {
    const body = one.slice(one.indexOf("\r\n\r\n") + 4);
    const error = body.startsWith("{") ? ErrorBodySchema.parse(JSON.parse(body)).error : null;
    return { status: Number(one.slice(9, 12)), code: error?.code, body };
  });

describe("whatever reaches the socket", () => {
  it("and asks to switch to something else passes the gate, is refused in words and closed", async () => {
    await open(hello);
    const upgrade = ["Connection: Upgrade", "Upgrade: websocket", "Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ=="];
    const own = await send(head("GET", "/_next/hmr", ...upgrade, "Sec-WebSocket-Version: 13"));
    expect(own.answers).toMatchObject([{ status: 400, code: "notUnderstood" }]);
    const foreign = await send(head("GET", "/", ...upgrade, "Origin: http://evil.example"));
    expect(foreign.answers).toMatchObject([{ status: 403, code: "forbidden" }]);
    const through = await send(head("CONNECT", "evil.example:443"));
    expect(through.answers[0]!.status).toBe(400);
    for (const { time } of [own, foreign, through]) expect(time).toBeLessThan(2000);
    await patiently(async () => expect(await connections()).toBe(0));
  });

  it("and is no request, or one whose head is too long, is told so in JSON", async () => {
    await open(hello);
    expect((await send("EHLO there\r\n\r\n")).answers).toMatchObject([{ status: 400, code: "notUnderstood" }]);
    const long = await send(head("GET", `/api/presets?q=${"x".repeat(80_000)}`));
    expect(long.answers).toMatchObject([{ status: 431, code: "tooLarge" }]);
  });

  it("without a host, or expecting what is not known, is told so", async () => {
    await open(hello);
    const nameless = await send("GET / HTTP/1.1\r\nConnection: close\r\n\r\n");
    expect(nameless.answers).toMatchObject([{ status: 403, code: "forbidden" }]);
    const expecting = await send(head("POST", "/api/folders", "Expect: a miracle", "Connection: close"));
    expect(expecting.answers).toMatchObject([{ status: 400, code: "notUnderstood" }]);
  });

  it("and asks whether to go on is refused before it sends, or told to go on", async () => {
    await open(hello);
    const more = ["Expect: 100-continue", "Connection: close", "Content-Type: application/json"];
    const refused = await send(head("POST", "/api/folders", ...more, `Content-Length: ${BODY_LIMIT + 1}`));
    expect(refused.answers).toMatchObject([{ status: 413, code: "tooLarge" }]);
    const taken = await send(`${head("POST", "/api/folders", ...more, "Content-Length: 4")}abcd`);
    expect(taken.answers.map((a) => a.status)).toEqual([100, 200]);
    expect(taken.answers[1]!.body).toContain("hello 4");
  });

  it("cannot ask for the body of another", async () => {
    await open(hello);
    const secret = handOver(new Uint8Array(99));
    const asks = [`${HANDED_AS}: ${secret}`, "Connection: close"];
    const read = await send(head("GET", "/api/presets", ...asks));
    expect(read.answers[0]!.body).toContain("hello 0");
    const written = await send(`${head("POST", "/api/folders", ...asks, "Content-Length: 4")}abcd`);
    expect(written.answers[0]!.body).toContain("hello 4");
    expect(takeBack(secret)).toBe(true);
  });
});

const connections = (): Promise<number> =>
  new Promise((resolve, reject) =>
    front.server.getConnections((error, count) => (error ? reject(error) : resolve(count))),
  );

describe("a refusal", () => {
  it("stands behind the answer to the request before it on the same line", async () => {
    const slow: Handler = async (_, response) => {
      await new Promise((resolve) => setTimeout(resolve, 200));
      response.end("slow but first");
    };
    await open(slow);
    const second = "GET / HTTP/1.1\r\nHost: evil.example\r\nConnection: close\r\n\r\n";
    const refused = await send(head("GET", "/library") + second);
    expect(refused.answers.map((a) => a.status)).toEqual([200, 403]);
    expect(refused.answers[0]!.body).toContain("slow but first");
    const none = await send(`${head("GET", "/library")}no request at all\r\n\r\n`);
    expect(none.answers.map((a) => a.status)).toEqual([200, 400]);
  });

  it("of a body is read by whoever is still sending it, and the line closes", async () => {
    await open(hello);
    const line = dial();
    line.socket.write(head("POST", "/api/folders", "Transfer-Encoding: chunked"));
    const chunk = Buffer.alloc(1024 * 1024, 120);
    const framed = Buffer.concat([Buffer.from(`${chunk.length.toString(16)}\r\n`), chunk, Buffer.from("\r\n")]);
    const isUp = () => !line.socket.destroyed && line.read() === "";
    for (let sent = 0; sent < 40 && isUp(); sent++)
      if (!line.socket.write(framed)) await Promise.race([once(line.socket, "drain"), line.closed]);
    await line.closed;
    expect(answersIn(line.read())).toMatchObject([{ status: 413, code: "tooLarge" }]);
  });

  it("comes when all bodies together would take too much memory; others are taken again once they are through", async () => {
    await open(hello);
    const held: Line[] = [];
    const size = BODY_LIMIT - 1024;
    for (let n = 0; n < BODIES_CEILING / BODY_LIMIT; n++) {
      const line = dial();
      held.push(line);
      line.socket.write(head("POST", "/api/folders", `Content-Length: ${BODY_LIMIT}`, "Connection: close"));
      await new Promise<void>((resolve) => line.socket.write(Buffer.alloc(size), () => resolve()));
    }
    await patiently(async () => expect(await connections()).toBe(held.length));
    const one = `${head("POST", "/api/folders", "Content-Length: 8192", "Connection: close")}${"x".repeat(8192)}`;
    // What was sent is on its way for a moment.
    await patiently(async () => expect((await send(one)).answers).toMatchObject([{ status: 503, code: "busy" }]));
    for (const { socket } of held) socket.destroy();
    await patiently(async () => expect((await send(one)).answers[0]!.status).toBe(200));
  });
});

describe("what is slow or half open", () => {
  it("comes to an end: a head, a body, a line on which nothing moves", async () => {
    await open(async (request, response) => {
      if (request.url === "/library") response.write("the beginning");
      else await hello(request, response);
    });
    const slowHead = dial();
    slowHead.socket.write("GET / HTTP/1.1\r\nHost: 127.");
    const slowBody = dial();
    slowBody.socket.write(head("POST", "/api/folders", "Content-Length: 10") + "abc");
    const silent = dial();
    const stuck = dial();
    stuck.socket.write(head("GET", "/library"));
    for (const line of [slowHead, slowBody, silent, stuck]) expect(await line.closed).toBeLessThan(6000);
    expect(answersIn(slowHead.read())).toMatchObject([{ status: 408 }]);
  });

  it("does not hold up the end, and a write that is under way is answered before it", async () => {
    await open(async (request, response) => {
      if (request.method === "GET") return void response.write("for ever");
      await new Promise((resolve) => setTimeout(resolve, 150));
      response.end("written");
    });
    const [forEver, halfOpen, writing] = [dial(), dial(), dial()];
    forEver.socket.write(head("GET", "/library"));
    halfOpen.socket.write("POST /api/folders HTTP/1.1\r\n");
    writing.socket.write(`${head("POST", "/api/folders", "Content-Length: 2")}{}`);
    await patiently(() => expect(forEver.read()).toContain("for ever"));
    const begun = Date.now();
    await front.end();
    await Promise.all([forEver, halfOpen, writing].map((line) => line.closed));
    expect(Date.now() - begun).toBeLessThan(1500);
    expect(writing.read()).toContain("written");
  });
});
