import { ProjectHistoryQuerySchema } from "@/contracts/history";
import { readQuery, route } from "@/server/http/route";
import { listHistory } from "@/server/use-cases/projects/history";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, ProjectHistoryQuerySchema);
    return query.ok ? listHistory(context, (await params).id, query.value) : query;
  });
