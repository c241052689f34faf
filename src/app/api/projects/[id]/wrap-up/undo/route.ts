import { WrapUpUndoSchema } from "@/contracts/wrap-up";
import { readJson, route } from "@/server/http/route";
import { undoWrapUp } from "@/server/use-cases/wrap-up/file";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, WrapUpUndoSchema);
    return body.ok ? undoWrapUp(context, (await params).id, body.value) : body;
  });
