import { PlanRequestSchema } from "@/contracts/projects";
import { readJson, route } from "@/server/http/route";
import { planFor } from "@/server/use-cases/plans";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, PlanRequestSchema);
    return body.ok ? planFor(context, (await params).id, body.value) : body;
  });
