import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { libraryHistory } from "@/server/use-cases/filing/history";

export const GET = (): Promise<Response> => route(async (context) => ok({ history: await libraryHistory(context) }));
