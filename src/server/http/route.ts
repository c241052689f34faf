import type { z } from "zod";
import { type ApiError, ERROR_STATUS } from "@/contracts/errors";
import { parseWith } from "@/core/documents/problem";
import { fail, type Result } from "@/core/result";
import { type Context, sharedContext } from "../data/context";
import type { Outcome } from "../failure";

const answerError = (error: ApiError): Response => Response.json({ error }, { status: ERROR_STATUS[error.code] });

/** Runs a route: its outcome as JSON; what nobody expected as an error with nothing of the inside. */
export async function route<T>(work: (context: Context) => Promise<Outcome<T>>, status = 200): Promise<Response> {
  try {
    const outcome = await work(sharedContext());
    return outcome.ok ? Response.json(outcome.value, { status }) : answerError(outcome.error);
  } catch (error) {
    console.error(error);
    return answerError({ code: "internal", message: "Something went wrong inside. Nothing was changed." });
  }
}

/** The body as the schema describes it, or why not: the type, the JSON, or the field. */
export async function readJson<T>(request: Request, schema: z.ZodType<T>): Promise<Result<T, ApiError>> {
  const type = request.headers.get("content-type") ?? "";
  if (!/^application\/json\b/i.test(type))
    return fail({ code: "wrongType", message: "Send JSON, as application/json." });
  let data: unknown;
  try {
    data = await request.json();
  } catch {
    return fail({ code: "notUnderstood", message: "The body is not whole JSON." });
  }
  return understood(parseWith(schema, data));
}

export function readQuery<T>(request: Request, schema: z.ZodType<T>): Result<T, ApiError> {
  return understood(parseWith(schema, Object.fromEntries(new URL(request.url).searchParams)));
}

const understood = <T>(parsed: Result<T, { path: string; message: string }>): Result<T, ApiError> =>
  parsed.ok ? parsed : fail({ code: "notUnderstood", message: parsed.error.message, path: parsed.error.path });
