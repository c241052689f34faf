import { route } from "@/server/http/route";
import { beginComparison } from "@/server/use-cases/archive/incoming-files";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => beginComparison(context, (await params).id), 202);
