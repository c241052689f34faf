import { FiguresQuerySchema } from "@/contracts/projects";
import { ok } from "@/core/result";
import { readQuery, route } from "@/server/http/route";
import { listFigures } from "@/server/use-cases/projects/figures";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, FiguresQuerySchema);
    return query.ok ? ok(await listFigures(context, query.value.of)) : query;
  });
