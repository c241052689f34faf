import { openApi } from "@/contracts/openapi";
import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { version } from "@/server/version";

export const GET = (): Promise<Response> => route(() => Promise.resolve(ok(openApi(version))));
