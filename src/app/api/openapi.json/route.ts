import { openApi } from "@/contracts/openapi";
import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { version } from "@/server/version";

export const GET = (request: Request): Promise<Response> => route(request, () => Promise.resolve(ok(openApi(version))));
