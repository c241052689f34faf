import { randomBytes } from "node:crypto";
import { type IncomingMessage, STATUS_CODES, type Server, type ServerResponse, createServer } from "node:http";
import type { Socket } from "node:net";
import type { Duplex } from "node:stream";
import { type Body, BodyStore, withoutBody } from "./body";
import { type Refusal, bringsBody, checkHead, contentPolicy, refusal, tooLarge, tooMuchAtOnce } from "./gate";
import { HANDED_AS, handOver, takeBack } from "./handed";

/** What a line says when nobody is left at its other end. */
const GONE = ["ECONNRESET", "EPIPE", "HPE_INVALID_EOF_STATE"];

export type Handler = (request: IncomingMessage, response: ServerResponse) => Promise<void>;

/** Ends of what is slow or half open, in milliseconds. */
export interface Patience {
  /** For the head of a request. */
  readonly head: number;
  /** For all of a request. */
  readonly request: number;
  /** For a line on which nothing moves; the stream of events moves more often. */
  readonly quiet: number;
  /** For reading a refusal while still sending. */
  readonly reading: number;
  /** For writes that are under way when the server ends. */
  readonly ending: number;
}

const PATIENCE: Patience = { head: 10_000, request: 30_000, quiet: 60_000, reading: 1000, ending: 2000 };

/** A head that is larger is refused: the longest search that is read, in the longest spelling, is about half of it. */
const MOST_HEAD = 64 * 1024;

/**
 * What stands before the application. Whatever reaches the socket passes here: requests, those that ask to continue, to
 * upgrade or to be let through, and what is no request. What is let in has its whole body, within the limits.
 */
export class Front {
  readonly server: Server;
  private readonly bodies = new BodyStore();
  private readonly sockets = new Set<Socket>();
  /** Answers under way on each line, oldest first: one that is not HTTP must not cut into them. */
  private readonly underWay = new Map<Duplex, Map<ServerResponse, IncomingMessage>>();
  private writes = 0;

  constructor(
    private readonly port: number,
    private readonly handle: Handler,
    private readonly patience: Patience = PATIENCE,
  ) {
    const server = createServer({
      maxHeaderSize: MOST_HEAD,
      headersTimeout: patience.head,
      requestTimeout: patience.request,
      connectionsCheckingInterval: Math.min(1000, patience.head / 4),
      // Missing ones are refused by the gate, in words.
      requireHostHeader: false,
    });
    this.server = server;
    server.timeout = patience.quiet;
    server.on("connection", (socket) => {
      this.sockets.add(socket);
      socket.on("close", () => this.sockets.delete(socket));
    });
    server.on("request", (request, response) => this.take(request, response, false));
    server.on("checkContinue", (request, response) => this.take(request, response, true));
    server.on("checkExpectation", (request, response) =>
      this.refuse(request, response, refusal("notUnderstood", "Of what is expected only “100-continue” is known.")),
    );
    for (const event of ["upgrade", "connect"] as const)
      server.on(event, (request: IncomingMessage, socket: Duplex) => this.refuseRaw(socket, this.whyNoOther(request)));
    server.on("clientError", (error: NodeJS.ErrnoException, socket) => {
      if (GONE.includes(error.code ?? "") || !socket.writable) socket.destroy();
      else this.refuseRaw(socket, whyUnread(error.code));
    });
  }

  /** Lets writes that are under way come to their end, for a while; then closes every line, whatever is on it. */
  async end(): Promise<void> {
    this.server.close();
    this.server.closeIdleConnections();
    const deadline = Date.now() + this.patience.ending;
    while (this.writes > 0 && Date.now() < deadline) await new Promise((resolve) => setTimeout(resolve, 20));
    for (const socket of this.sockets) socket.destroy();
  }

  private take(request: IncomingMessage, response: ServerResponse, asksFirst: boolean): void {
    this.note(request, response);
    this.answer(request, response, asksFirst).catch((error: unknown) => {
      console.error(error);
      const why = refusal("internal", "Something went wrong inside. Nothing was lost.");
      if (response.headersSent) response.destroy();
      else this.refuse(request, response, why);
    });
  }

  private note(request: IncomingMessage, response: ServerResponse): void {
    const { socket } = request;
    const all = this.underWay.get(socket) ?? new Map<ServerResponse, IncomingMessage>();
    this.underWay.set(socket, all.set(response, request));
    response.on("close", () => {
      all.delete(response);
      if (all.size === 0) this.underWay.delete(socket);
    });
  }

  private async answer(request: IncomingMessage, response: ServerResponse, asksFirst: boolean): Promise<void> {
    const { method = "", url = "", headers } = request;
    const refused = checkHead({ method, url, headers }, this.port);
    if (refused) return this.refuse(request, response, refused);
    const policy = contentPolicy(randomBytes(16).toString("base64"));
    headers["content-security-policy"] = policy;
    delete headers[HANDED_AS];
    response.setHeader("Content-Security-Policy", policy);
    response.setHeader("X-Content-Type-Options", "nosniff");
    response.setHeader("Referrer-Policy", "no-referrer");
    if (method === "GET" || method === "HEAD") return this.handle(request, response);
    if (asksFirst) response.writeContinue();
    return this.answerWrite(request, response);
  }

  private async answerWrite(request: IncomingMessage, response: ServerResponse): Promise<void> {
    this.writes += 1;
    try {
      const body = await this.bodies.read(request);
      if ("cut" in body) return;
      if (!("whole" in body)) return this.refuse(request, response, whyNotTaken(body));
      const handedAs = handOver(body.whole);
      try {
        await this.handle(withoutBody(request, handedAs), response);
      } finally {
        takeBack(handedAs);
        this.bodies.letGo(body.whole);
      }
    } finally {
      this.writes -= 1;
    }
  }

  /**
   * Says no, in its turn behind the answers before it. While the sender is still sending, what comes is thrown away and the line
   * stays up for a moment: closing at once would throw the answer away together with what is unread.
   */
  private refuse(request: IncomingMessage, response: ServerResponse, { status, body, headers }: Refusal): void {
    const text = JSON.stringify(body);
    const isSending = bringsBody(request.headers) && !request.complete;
    response.writeHead(status, {
      "Content-Type": "application/json; charset=utf-8",
      "Content-Length": Buffer.byteLength(text),
      ...(isSending ? { Connection: "close" } : {}),
      ...headers,
    });
    if (!isSending) return void response.end(request.method === "HEAD" ? undefined : text);
    response.write(text);
    const end = () => response.end();
    const timer = setTimeout(end, this.patience.reading);
    request.on("close", () => clearTimeout(timer));
    request.on("end", end);
    request.resume();
  }

  /** Says no on a line that speaks something else, behind the answers that are under way on it, and closes it. */
  private refuseRaw(socket: Duplex, { status, body }: Refusal): void {
    const text = JSON.stringify(body);
    const head = [
      `HTTP/1.1 ${status} ${STATUS_CODES[status] ?? ""}`,
      "Content-Type: application/json; charset=utf-8",
      `Content-Length: ${Buffer.byteLength(text)}`,
      "Connection: close",
    ];
    const say = () => {
      if (socket.destroyed) return;
      socket.end(`${head.join("\r\n")}\r\n\r\n${text}`);
      setTimeout(() => socket.destroy(), this.patience.reading).unref();
    };
    socket.on("error", () => socket.destroy());
    // One that has not come whole has no answer to wait for: it is what could not be read.
    const [last] = [...(this.underWay.get(socket) ?? [])].filter(([, request]) => request.complete).at(-1) ?? [];
    if (!last) return say();
    last.on("finish", say);
    setTimeout(() => socket.destroy(), this.patience.request).unref();
  }

  private whyNoOther({ method = "", url = "", headers }: IncomingMessage): Refusal {
    const known = checkHead({ method, url, headers }, this.port);
    return known ?? refusal("notUnderstood", "Diathesis speaks plain HTTP/1.1; nothing else can be switched to.");
  }
}

const whyNotTaken = (body: Exclude<Body, { whole: Buffer }>): Refusal =>
  "tooMuch" in body ? tooMuchAtOnce() : tooLarge();

function whyUnread(code: string | undefined): Refusal {
  switch (code) {
    case "HPE_HEADER_OVERFLOW":
      return refusal("tooLarge", "The address and the other lines of the head are too long.", 431);
    case "ERR_HTTP_REQUEST_TIMEOUT":
      return refusal("notUnderstood", "The request did not come to its end in time.", 408);
    default:
      return refusal("notUnderstood", "This is no request in HTTP/1.1.");
  }
}
