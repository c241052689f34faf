import { NewSweepSchema } from "@/contracts/wrap-up";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { beginSweep, tellSweep } from "@/server/use-cases/wrap-up/sweep";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok(await tellSweep(context)));

export const POST = (request: Request): Promise<Response> =>
  route(
    request,
    async (context) => {
      const body = await readJson(request, NewSweepSchema);
      return body.ok ? ok(beginSweep(context, body.value)) : body;
    },
    202,
  );
