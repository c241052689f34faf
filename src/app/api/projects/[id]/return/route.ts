import { ReturnRequestSchema } from "@/contracts/history";
import { readJson, route } from "@/server/http/route";
import { returnTo } from "@/server/use-cases/projects/history";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, ReturnRequestSchema);
    return body.ok ? returnTo(context, (await params).id, body.value) : body;
  });
