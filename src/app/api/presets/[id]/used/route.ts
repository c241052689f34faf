import { route } from "@/server/http/route";
import { keepUse } from "@/server/use-cases/library";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => keepUse(context, (await params).id));
