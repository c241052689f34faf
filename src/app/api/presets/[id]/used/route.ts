import { route } from "@/server/http/route";
import { keepUse } from "@/server/use-cases/library";

export const POST = (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(async (context) => keepUse(context, (await params).id));
