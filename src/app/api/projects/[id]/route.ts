import { route } from "@/server/http/route";
import { getProject } from "@/server/use-cases/projects";

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(async (context) => getProject(context, (await params).id));
