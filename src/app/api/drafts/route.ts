import { NewDraftSchema } from "@/contracts/projects";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { listDrafts, openDraft } from "@/server/use-cases/drafts";

export const POST = (request: Request): Promise<Response> =>
  route(
    request,
    async (context) => {
      const body = await readJson(request, NewDraftSchema);
      return body.ok ? openDraft(context, body.value) : body;
    },
    201,
  );

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok({ drafts: await listDrafts(context) }));
