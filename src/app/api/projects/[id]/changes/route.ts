import { ChangeRequestSchema } from "@/contracts/projects";
import { readJson, route } from "@/server/http/route";
import { changeProject } from "@/server/use-cases/projects/change";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, ChangeRequestSchema);
    return body.ok ? changeProject(context, (await params).id, body.value) : body;
  });
