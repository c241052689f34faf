import { ok } from "@/core/result";
import { route } from "@/server/http/route";
import { dropDraft } from "@/server/use-cases/drafts";

export const DELETE = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const dropped = await dropDraft(context, (await params).id);
    return dropped.ok ? ok({ ok: true }) : dropped;
  });
