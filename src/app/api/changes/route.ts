import { TogetherRequestSchema } from "@/contracts/projects";
import { readJson, route } from "@/server/http/route";
import { changeTogether } from "@/server/use-cases/projects/change";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, TogetherRequestSchema);
    return body.ok ? changeTogether(context, body.value) : body;
  });
