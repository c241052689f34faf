import { SweepFindsQuerySchema } from "@/contracts/wrap-up";
import { readQuery, route } from "@/server/http/route";
import { listFinds } from "@/server/use-cases/wrap-up/sweep";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, SweepFindsQuerySchema);
    return query.ok ? listFinds(context, (await params).id, query.value.limit) : query;
  });
