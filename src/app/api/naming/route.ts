import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { listNaming } from "@/server/use-cases/naming";

export const GET = (): Promise<Response> => route(async (context) => ok(await listNaming(context)));
