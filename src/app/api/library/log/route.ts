import { LogQuerySchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readQuery, route } from "@/server/http/route";
import { listLog } from "@/server/use-cases/filing/history";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, LogQuerySchema);
    return query.ok ? ok(await listLog(context, query.value)) : query;
  });
