import { ItemsQuerySchema, PieceQuerySchema } from "@/contracts/archive";
import { readBytesBody, readQuery, route } from "@/server/http/route";
import { letGo, lookAt, takePiece } from "@/server/use-cases/archive/incoming-files";

type Params = { params: Promise<{ id: string }> };

export const GET = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, ItemsQuerySchema);
    return query.ok ? lookAt(context, (await params).id, query.value) : query;
  });

export const PUT = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, PieceQuerySchema);
    if (!query.ok) return query;
    const body = await readBytesBody(request);
    return body.ok ? takePiece(context, (await params).id, query.value.at, body.value) : body;
  });

export const DELETE = (request: Request, { params }: Params): Promise<Response> =>
  route(request, async (context) => letGo(context, (await params).id));
