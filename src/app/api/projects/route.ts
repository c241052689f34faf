import { NewProjectSchema, ProjectListQuerySchema } from "@/contracts/projects";
import { ok } from "@/core/result";
import { readJson, readQuery, route } from "@/server/http/route";
import { listProjects, makeProject } from "@/server/use-cases/projects/read";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, ProjectListQuerySchema);
    return query.ok ? ok({ projects: await listProjects(context, query.value.binned === "true") }) : query;
  });

export const POST = (request: Request): Promise<Response> =>
  route(
    request,
    async (context) => {
      const body = await readJson(request, NewProjectSchema);
      return body.ok ? makeProject(context, body.value) : body;
    },
    201,
  );
