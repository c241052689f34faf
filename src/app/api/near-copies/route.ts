import { MergeSchema } from "@/contracts/library";
import { ok } from "@/core/result";
import { readJson, route } from "@/server/http/route";
import { mergePresets } from "@/server/use-cases/filing/merge";

export const POST = (request: Request): Promise<Response> =>
  route(request, async (context) => {
    const body = await readJson(request, MergeSchema);
    if (!body.ok) return body;
    const merged = await mergePresets(context, body.value);
    return merged.ok ? ok({ preset: merged.value }) : merged;
  });
