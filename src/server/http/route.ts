import { createReadStream } from "node:fs";
import { stat } from "node:fs/promises";
import { Readable } from "node:stream";
import type { z } from "zod";
import { type ApiError, ERROR_STATUS } from "@/contracts/errors";
import { parseWith } from "@/core/documents/problem";
import { WINDOW_HEADER, isWindowName } from "@/core/documents/window";
import { fail, ok, type Result } from "@/core/result";
import { jsonAnswer } from "./answer";
import { bodyOf, handedTo } from "./handed";
import { parseInTurns, parseJson } from "./json";
import { findStorageFault } from "../data/faults";
import type { Context } from "../store/context";
import { sharedContext } from "../store/shared";
import { forWindow } from "../store/window";
import type { Outcome } from "../failure";

const answerError = (error: ApiError): Response => Response.json({ error }, { status: ERROR_STATUS[error.code] });

/** A fault of the storage in words; anything else that nobody expected with nothing of the inside. */
function answerFault(error: unknown): Response {
  const fault = findStorageFault(error);
  console.error(fault ? fault.message : error);
  return answerError(fault ?? { code: "internal", message: "Something went wrong inside. Nothing was changed." });
}

/** Which window of a browser asks; null where it does not say. */
function windowOf({ headers }: Request): string | null {
  const name = headers.get(WINDOW_HEADER);
  return name !== null && isWindowName(name) ? name : null;
}

/** Runs a route for the window that asks: its outcome as JSON; what nobody expected as an error with nothing of the inside. */
export async function route<T>(
  request: Request,
  work: (context: Context) => Promise<Outcome<T>>,
  status = 200,
): Promise<Response> {
  try {
    const outcome = await forWindow(windowOf(request), () => work(sharedContext()));
    return outcome.ok ? jsonAnswer(outcome.value, status) : answerError(outcome.error);
  } catch (error) {
    return answerFault(error);
  }
}

/** A route that answers with a file, which never changes: its address is made of what is in it. */
export async function bytesRoute(type: string, work: (context: Context) => Promise<Outcome<Uint8Array>>) {
  try {
    const outcome = await work(sharedContext());
    if (!outcome.ok) return answerError(outcome.error);
    const headers = {
      "Content-Type": type,
      "Cache-Control": "private, max-age=31536000, immutable",
    };
    return new Response(Uint8Array.from(outcome.value), { headers });
  } catch (error) {
    return answerFault(error);
  }
}

/** To be kept by the browser under a name. */
const asFile = (name: string) => ({
  "Content-Disposition": `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
  "Cache-Control": "no-store",
});

type MaybeLater<T> = T | Promise<T>;

/** A route that answers with a document, to be kept under its name. */
export async function documentRoute(
  find: (context: Context) => MaybeLater<Outcome<{ readonly name: string; readonly body: string | Uint8Array }>>,
  type = "application/json; charset=utf-8",
): Promise<Response> {
  try {
    const found = await find(sharedContext());
    if (!found.ok) return answerError(found.error);
    const { name, body } = found.value;
    const sent = typeof body === "string" ? body : Uint8Array.from(body);
    return new Response(sent, { headers: { "Content-Type": type, ...asFile(name) } });
  } catch (error) {
    return answerFault(error);
  }
}

/** A route that answers with a file of the data folder, to be kept under its name. */
export async function fileRoute(name: string, find: (context: Context) => string | null): Promise<Response> {
  try {
    const path = find(sharedContext());
    if (path === null) return answerError({ code: "notFound", message: "There is no such file here." });
    const { size } = await stat(path);
    const headers = {
      "Content-Type": "application/octet-stream",
      "Content-Length": String(size),
      ...asFile(name),
    };
    return new Response(Readable.toWeb(createReadStream(path)) as ReadableStream<Uint8Array>, { headers });
  } catch (error) {
    return answerFault(error);
  }
}

/** The bytes of any file, or of a piece of one. */
export async function readBytesBody(request: Request): Promise<Result<Uint8Array, ApiError>> {
  const type = request.headers.get("content-type") ?? "";
  if (!/^application\/octet-stream\b/i.test(type))
    return fail({ code: "wrongType", message: "Send the bytes of a file, as application/octet-stream." });
  return ok(await bodyOf(request));
}

/** The bytes of a WAV file. */
export async function readWavBody(request: Request): Promise<Result<Uint8Array, ApiError>> {
  const type = request.headers.get("content-type") ?? "";
  if (!/^audio\/(x-)?wav\b/i.test(type)) return fail({ code: "wrongType", message: "Send a WAV file, as audio/wav." });
  return ok(await bodyOf(request));
}

/** The body as the schema describes it, or why not: the type, the JSON, or the field. */
export async function readJson<T>(request: Request, schema: z.ZodType<T>): Promise<Result<T, ApiError>> {
  const type = request.headers.get("content-type") ?? "";
  if (!/^application\/json\b/i.test(type))
    return fail({ code: "wrongType", message: "Send JSON, as application/json." });
  const data = await parseJson(await bodyOf(request));
  return data.ok ? understood(await parseInTurns(schema, data.value)) : data;
}

export function readQuery<T>(request: Request, schema: z.ZodType<T>): Result<T, ApiError> {
  return understood(parseWith(schema, Object.fromEntries(new URL(request.url).searchParams)));
}

const understood = <T>(parsed: Result<T, { path: string; message: string }>): Result<T, ApiError> =>
  parsed.ok ? parsed : fail({ code: "notUnderstood", message: parsed.error.message, path: parsed.error.path });

/** Whether anything was sent along. An empty body is none, whether its length is told or not. */
export function hasBody(request: Request): boolean {
  const { headers, body } = request;
  // What is handed over has left the request, which says that it is empty.
  const handed = handedTo(request);
  if (handed) return handed.length > 0;
  return (
    body !== null &&
    (headers.has("transfer-encoding") || headers.get("content-length") !== "0") &&
    headers.has("content-type")
  );
}
