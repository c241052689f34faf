import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { mediaRoom } from "@/server/use-cases/media";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok(await mediaRoom(context)));
