import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { countModels } from "@/server/use-cases/models";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok(await countModels(context)));
