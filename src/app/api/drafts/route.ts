import { NewDraftSchema } from "@/contracts/projects";
import { readJson, route } from "@/server/http/route";
import { openDraft } from "@/server/use-cases/drafts";

export const POST = (request: Request): Promise<Response> =>
  route(async (context) => {
    const body = await readJson(request, NewDraftSchema);
    return body.ok ? openDraft(context, body.value) : body;
  }, 201);
