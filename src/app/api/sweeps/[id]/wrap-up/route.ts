import { SweepWrapUpSchema } from "@/contracts/wrap-up";
import { readJson, route } from "@/server/http/route";
import { wrapUpSweep } from "@/server/use-cases/wrap-up/sweep";

export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, SweepWrapUpSchema);
    return body.ok ? wrapUpSweep(context, (await params).id, body.value) : body;
  });
