import { EmptyBinSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { emptyBin, listBin } from "@/server/use-cases/filing/bin";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => ok({ items: await listBin(context) }));

export const DELETE = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, EmptyBinSchema);
    return body.ok ? emptyBin(context, body.value.ids) : body;
  });
