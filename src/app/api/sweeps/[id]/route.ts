import { SweepChangeSchema } from "@/contracts/wrap-up";
import { readJson, route } from "@/server/http/route";
import { changeSweep } from "@/server/use-cases/wrap-up/sweep";

export const PATCH = (request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, SweepChangeSchema);
    return body.ok ? changeSweep(context, (await params).id, body.value.isRunning) : body;
  });
