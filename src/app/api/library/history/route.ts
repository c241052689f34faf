import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { libraryHistory, listStanding } from "@/server/use-cases/filing/history";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) =>
    ok({ history: await libraryHistory(context), standing: await listStanding(context) }),
  );
