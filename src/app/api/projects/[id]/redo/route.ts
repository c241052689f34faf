import { HistoryRequestSchema } from "@/contracts/projects";
import { readJson, route } from "@/server/http/route";
import { redo } from "@/server/use-cases/projects/walk";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, HistoryRequestSchema);
    return body.ok ? redo(context, (await params).id, body.value.baseRevision) : body;
  });
