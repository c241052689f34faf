import { ItemsQuerySchema } from "@/contracts/archive";
import { readQuery, route } from "@/server/http/route";
import { letGo, lookAt } from "@/server/use-cases/archive/incoming-files";

type Params = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, ItemsQuerySchema);
    return query.ok ? lookAt(context, (await params).id, query.value) : query;
  });

export const DELETE = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async (context) => letGo(context, (await params).id));
