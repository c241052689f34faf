import { route } from "@/server/http/route";
import { getUses } from "@/server/use-cases/uses";

export const GET = (_: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(async (context) => getUses(context, (await params).id));
