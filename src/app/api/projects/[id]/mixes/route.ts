import { KeepMixRequestSchema } from "@/contracts/history";
import { readJson, route } from "@/server/http/route";
import { keepMix } from "@/server/use-cases/projects/mixes";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, KeepMixRequestSchema);
    return body.ok ? keepMix(context, (await params).id, body.value) : body;
  });
