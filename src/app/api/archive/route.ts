import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { archiveState } from "@/server/use-cases/archive/state";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok(await archiveState(context)));
