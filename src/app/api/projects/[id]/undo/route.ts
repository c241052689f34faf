import { UndoRequestSchema } from "@/contracts/projects";
import { readJson, route } from "@/server/http/route";
import { undo } from "@/server/use-cases/projects/walk";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, UndoRequestSchema);
    return body.ok ? undo(context, (await params).id, body.value.baseRevision, body.value.revision) : body;
  });
