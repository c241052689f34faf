import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { health } from "@/server/use-cases/health";
import { commit, version } from "@/server/version";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok(await health(context, version, commit)));
