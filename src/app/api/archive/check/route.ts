import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { beginCheck } from "@/server/use-cases/archive/check";

export const POST = (request: Request): Promise<Response> =>
  route(request, (context) => Promise.resolve(ok({ job: beginCheck(context) })), 202);
