import { WrapUpRequestSchema } from "@/contracts/wrap-up";
import { readJson, route } from "@/server/http/route";
import { wrapUp } from "@/server/use-cases/wrap-up/file";
import { lookThrough } from "@/server/use-cases/wrap-up/look";

interface Asked {
  readonly params: Promise<{ id: string }>;
}

export const GET = (request: Request, { params }: Asked): Promise<Response> =>
  route(request, async (context) => lookThrough(context, (await params).id));

export const POST = (request: Request, { params }: Asked): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, WrapUpRequestSchema);
    return body.ok ? wrapUp(context, (await params).id, body.value) : body;
  });
