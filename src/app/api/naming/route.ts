import { NamingQuerySchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readQuery, route } from "@/server/http/route";
import { listNaming } from "@/server/use-cases/naming";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, NamingQuerySchema);
    return query.ok ? ok(await listNaming(context, query.value)) : query;
  });
