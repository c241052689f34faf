import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { countModels } from "@/server/use-cases/models";

export const GET = (): Promise<Response> => route(async (context) => ok(await countModels(context)));
