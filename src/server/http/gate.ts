import type { IncomingHttpHeaders } from "node:http";
import type { ErrorBody } from "@/contracts/errors";

/** The largest body that is taken in, in bytes: some hundred times a large project. */
export const BODY_LIMIT = 16 * 1024 * 1024;

export interface Refusal {
  readonly status: number;
  readonly body: ErrorBody;
}

const refuse = (status: number, code: ErrorBody["error"]["code"], message: string): Refusal => ({
  status,
  body: { error: { code, message } },
});

const NAMES = ["127.0.0.1", "localhost", "[::1]"];

/**
 * Decides by the headers alone, before anything is read. Only this machine may ask, by a name of its own and not in the
 * name of another site; scripts send no Origin and are let in.
 */
export function checkHeaders(headers: IncomingHttpHeaders, port: number): Refusal | null {
  const hosts = NAMES.map((name) => `${name}:${port}`);
  if (!headers.host || !hosts.includes(headers.host.toLowerCase()))
    return refuse(403, "forbidden", "Diathesis answers on this machine's own address only.");
  const { origin } = headers;
  if (origin !== undefined && !hosts.some((host) => origin.toLowerCase() === `http://${host}`))
    return refuse(403, "forbidden", "A page of another site may not use Diathesis.");
  const site = headers["sec-fetch-site"];
  if (site === "cross-site" || site === "same-site")
    return refuse(403, "forbidden", "A page of another site may not use Diathesis.");
  if (Number(headers["content-length"] ?? 0) > BODY_LIMIT) return tooLarge();
  return null;
}

export const tooLarge = (): Refusal =>
  refuse(413, "tooLarge", `The body is larger than ${BODY_LIMIT / 1024 / 1024} MB. Nothing was changed.`);

/**
 * Scripts only those of this page, by nonce; no plugins, no framing, no other origin. Styles may stand inline: the
 * primitives that place menus and dialogs set them that way.
 */
export const contentPolicy = (nonce: string): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
