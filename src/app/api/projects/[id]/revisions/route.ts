import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { listRevisions } from "@/server/use-cases/projects/history";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const revisions = await listRevisions(context, (await params).id);
    return revisions.ok ? ok({ revisions: revisions.value }) : revisions;
  });
