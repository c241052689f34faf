import { IncomingMessage } from "node:http";
import { BODY_LIMIT } from "./gate";

export type Body = { readonly whole: Buffer } | { readonly tooLarge: true } | { readonly cut: true };

/** Reads a request's body, no further than the limit; `cut` when the sender stopped in the middle. */
export function readBody(request: IncomingMessage): Promise<Body> {
  return new Promise((resolve) => {
    const chunks: Buffer[] = [];
    let size = 0;
    request.on("data", (chunk: Buffer) => {
      size += chunk.length;
      if (size > BODY_LIMIT) {
        request.pause();
        resolve({ tooLarge: true });
      } else chunks.push(chunk);
    });
    request.on("end", () => resolve({ whole: Buffer.concat(chunks) }));
    request.on("aborted", () => resolve({ cut: true }));
    request.on("error", () => resolve({ cut: true }));
  });
}

/** The same request with its body already here, for a handler that reads streams. */
export function replay(request: IncomingMessage, body: Buffer): IncomingMessage {
  const again = new IncomingMessage(request.socket);
  again.method = request.method;
  again.url = request.url;
  again.headers = request.headers;
  again.rawHeaders = request.rawHeaders;
  again.httpVersion = request.httpVersion;
  again.complete = true;
  again.push(body);
  again.push(null);
  return again;
}
