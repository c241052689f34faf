import { TogetherSchema } from "@/contracts/projects";
import { readJson, route } from "@/server/http/route";
import { undoTogether } from "@/server/use-cases/projects/walk";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, TogetherSchema);
    return body.ok ? undoTogether(context, body.value) : body;
  });
