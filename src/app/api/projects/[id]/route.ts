import { route } from "@/server/http/route";
import { getProject } from "@/server/use-cases/projects/read";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => getProject(context, (await params).id));
