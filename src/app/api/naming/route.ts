import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { listNaming } from "@/server/use-cases/naming";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok(await listNaming(context)));
