import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { mediaRoom } from "@/server/use-cases/media";

export const GET = (): Promise<Response> => route(async (context) => ok(await mediaRoom(context)));
