import { IncomingMessage } from "node:http";
import { BODY_LIMIT } from "./gate";
import { HANDED_AS } from "./handed";

export type Body =
  | { readonly whole: Buffer }
  | { readonly tooLarge: true }
  | { readonly tooMuch: true }
  | { readonly cut: true };

/** What all bodies that are being read or worked on may take together, in bytes. */
export const BODIES_CEILING = 4 * BODY_LIMIT;

/** How much memory bodies take, over all requests. */
export class BodyStore {
  private taken = 0;

  get size(): number {
    return this.taken;
  }

  /**
   * Reads a request's body, no further than its limit and the ceiling of all; `cut` when the sender stopped in the middle. What
   * is whole takes its room until it is let go of.
   */
  read(request: IncomingMessage): Promise<Body> {
    return new Promise((resolve) => {
      const chunks: Buffer[] = [];
      let size = 0;
      let isOver = false;
      const end = (body: Body) => {
        if (isOver) return;
        isOver = true;
        request.removeListener("data", take);
        if (!("whole" in body)) this.taken -= size;
        resolve(body);
      };
      const take = (chunk: Buffer) => {
        size += chunk.length;
        this.taken += chunk.length;
        if (size > BODY_LIMIT) end({ tooLarge: true });
        else if (this.taken > BODIES_CEILING) end({ tooMuch: true });
        else chunks.push(chunk);
      };
      request.on("data", take);
      request.on("end", () => end({ whole: Buffer.concat(chunks) }));
      for (const fault of ["error", "close"]) request.on(fault, () => end({ cut: true }));
    });
  }

  letGo(body: Buffer): void {
    this.taken -= body.length;
  }
}

/** The same request for a handler that asks where its body is, see `bodyOf`: nothing is left to be read from its line. */
export function withoutBody(request: IncomingMessage, handedAs: string): IncomingMessage {
  const again = new IncomingMessage(request.socket);
  again.method = request.method;
  again.url = request.url;
  again.headers = { ...request.headers, "content-length": "0", [HANDED_AS]: handedAs };
  delete again.headers["transfer-encoding"];
  again.httpVersion = request.httpVersion;
  again.complete = true;
  again.push(null);
  return again;
}
