import { MergeSchema, NearCopiesQuerySchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, readQuery, route } from "@/server/http/route";
import { mergePresets } from "@/server/use-cases/filing/merge";
import { listNearCopies } from "@/server/use-cases/near-copies";

export const GET = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const query = readQuery(request, NearCopiesQuerySchema);
    return query.ok ? ok(await listNearCopies(context, query.value.within ?? 0)) : query;
  });

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, MergeSchema);
    if (!body.ok) return body;
    const merged = await mergePresets(context, body.value);
    return merged.ok ? ok({ preset: merged.value }) : merged;
  });
