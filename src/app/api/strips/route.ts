import { StripQuerySchema } from "@/contracts/projects";
import { ok } from "@/core/result";
import { readQuery, route } from "@/server/http/route";
import { findStrips } from "@/server/use-cases/find-strips";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, StripQuerySchema);
    return query.ok ? ok(await findStrips(context, query.value)) : query;
  });
