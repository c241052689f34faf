import type { IncomingHttpHeaders } from "node:http";
import { ENDPOINTS } from "@/contracts/endpoints";
import { ERROR_STATUS, type ErrorBody, type ErrorCode } from "@/contracts/errors";

/** The largest body that is taken in, in bytes: some hundred times a large project. */
export const BODY_LIMIT = 16 * 1024 * 1024;

export interface Refusal {
  readonly status: number;
  readonly body: ErrorBody;
  readonly headers?: Readonly<Record<string, string>>;
}

/** What stands at the head of a request, before anything of its body is read. */
export interface RequestHead {
  readonly method: string;
  readonly url: string;
  readonly headers: IncomingHttpHeaders;
}

export const refusal = (code: ErrorCode, message: string, status: number = ERROR_STATUS[code]): Refusal => ({
  status,
  body: { error: { code, message } },
});

const NAMES = ["127.0.0.1", "localhost", "[::1]"];
/** What a browser says of a request that no other site has asked for. */
const OWN_SITES = ["same-origin", "none"];

/** Only this machine may ask, by a name of its own and not in the name of another site; scripts send no Origin. */
function checkSender(headers: IncomingHttpHeaders, port: number): Refusal | null {
  const hosts = NAMES.map((name) => `${name}:${port}`);
  if (!headers.host || !hosts.includes(headers.host.toLowerCase()))
    return refusal("forbidden", "Diathesis answers on this machine's own address only.");
  const { origin } = headers;
  if (origin !== undefined && !hosts.some((host) => origin.toLowerCase() === `http://${host}`))
    return refusal("forbidden", "A page of another site may not use Diathesis.");
  const site = headers["sec-fetch-site"];
  if (site !== undefined && !OWN_SITES.includes(String(site)))
    return refusal("forbidden", "A page of another site may not use Diathesis.");
  return null;
}

/** True where every %xx of an address is a letter in UTF-8. */
function isDecodable(url: string): boolean {
  try {
    decodeURIComponent(url);
    return true;
  } catch {
    return false;
  }
}

interface Address {
  readonly pattern: RegExp;
  readonly methods: readonly string[];
}

/** What is offered at each address of the API; a fixed one stands before one with a name in it. */
const ADDRESSES: readonly Address[] = [...new Set(ENDPOINTS.map((e) => e.path))]
  .toSorted((a, b) => a.split("{").length - b.split("{").length)
  .map((path) => ({
    pattern: new RegExp(`^${path.replaceAll(".", "\\.").replaceAll(/\{\w+\}/g, "[^/]+")}$`),
    methods: ENDPOINTS.filter((e) => e.path === path).flatMap(({ method }) =>
      method === "get" ? ["GET", "HEAD"] : [method.toUpperCase()],
    ),
  }));

const PAGE_METHODS = ["GET", "HEAD"];

function checkAddress({ method, url }: RequestHead): Refusal | null {
  if (!url.startsWith("/")) return refusal("notUnderstood", "Ask by a path that begins with a slash.");
  if (!isDecodable(url)) return refusal("notUnderstood", "The address holds a %xx that is no letter in UTF-8.");
  const path = url.split("?", 1)[0]!;
  const isApi = path === "/api" || path.startsWith("/api/");
  const address = isApi ? ADDRESSES.find(({ pattern }) => pattern.test(path)) : { methods: PAGE_METHODS };
  if (!address) return refusal("notFound", "There is nothing at this address; /api/openapi.json lists what there is.");
  if (address.methods.includes(method)) return null;
  const allow = address.methods.join(", ");
  return {
    ...refusal("wrongMethod", `This address takes ${allow}, not ${method}.`),
    headers: { Allow: allow },
  };
}

/** Whether the head says that a body follows. */
export const bringsBody = (headers: IncomingHttpHeaders): boolean =>
  headers["transfer-encoding"] !== undefined || Number(headers["content-length"] ?? 0) > 0;

function checkBody({ method, headers }: RequestHead): Refusal | null {
  if (PAGE_METHODS.includes(method) && bringsBody(headers))
    return refusal("notUnderstood", `A ${method} request brings no body.`);
  const encoding = headers["content-encoding"];
  if (encoding !== undefined && encoding !== "identity")
    return refusal("wrongType", "Send the body as it is, not compressed.");
  return Number(headers["content-length"] ?? 0) > BODY_LIMIT ? tooLarge() : null;
}

/** Decides by the head alone, before anything is read: who asks, at which address, and what is to follow. */
export const checkHead = (head: RequestHead, port: number): Refusal | null =>
  checkSender(head.headers, port) ?? checkAddress(head) ?? checkBody(head);

export const tooLarge = (): Refusal =>
  refusal("tooLarge", `The body is larger than ${BODY_LIMIT / 1024 / 1024} MB. Nothing was changed.`);

export const tooMuchAtOnce = (): Refusal =>
  refusal("busy", "Too much is being sent at once. Nothing was changed; send it again in a moment.");

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
