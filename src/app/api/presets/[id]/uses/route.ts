import { route } from "@/server/http/route";
import { getUses } from "@/server/use-cases/uses";

export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => getUses(context, (await params).id));
