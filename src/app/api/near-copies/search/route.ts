import { NearCopiesRequestSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { listNearCopies } from "@/server/use-cases/near-copies";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, NearCopiesRequestSchema);
    return body.ok ? ok(await listNearCopies(context, body.value)) : body;
  });
