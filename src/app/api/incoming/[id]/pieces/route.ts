import { PieceQuerySchema } from "@/contracts/archive";
import { readBytesBody, readQuery, route } from "@/server/http/route";
import { takePiece } from "@/server/use-cases/archive/incoming-files";

export const PUT = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, PieceQuerySchema);
    return query.ok ? takePiece(context, (await params).id, query.value.at, () => readBytesBody(request)) : query;
  });
